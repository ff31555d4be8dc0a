import Link from 'next/link';
import { call } from '@/app/access';
import { findRecipes } from '@/services/recipes/recipes';
import { Empty, PageTitle } from '@/ui/page';
import { RecipesTable } from './recipes-table';

export const metadata = { title: 'Recipes' };

export default async function Recipes() {
  const recipes = await call(findRecipes, {});
  return (
    <>
      <PageTitle title="Recipes">
        <Link href="/reference" className="btn">
          Reference table
        </Link>
        <Link href="/recipes/import" className="btn btn-primary">
          Bring in a recipe
        </Link>
      </PageTitle>
      {recipes.length === 0 ? (
        <Empty title="No recipe yet">
          <p>Paste one, or bring in a web page or a recipe file: each line is shown as it was understood.</p>
        </Empty>
      ) : (
        <RecipesTable recipes={recipes} />
      )}
    </>
  );
}
