import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { editRecipe } from '@/services/recipes/drafts';
import { listRecipes } from '@/services/recipes/recipes';
import { PageTitle } from '@/ui/page';
import { saveNext } from '../../actions';
import { RecipeEditor } from '../../recipe-editor';

export const metadata = { title: 'Edit a recipe' };

export default async function EditRecipe({ params }: { params: Promise<{ recipeId: string }> }) {
  const { recipeId } = await params;
  const { version, ...recipe } = await orNotFound(call(editRecipe, { recipeId }));
  const others = (await call(listRecipes, {})).filter(({ id }) => id !== recipeId);
  return (
    <>
      <PageTitle
        title={`Edit ${recipe.title}`}
        over={`Version ${version}. Sheets that are locked keep the one they have`}
      >
        <Link href={`/recipes/${recipeId}`} className="btn">
          Back
        </Link>
      </PageTitle>
      <RecipeEditor
        incoming={recipe}
        heading="The recipe"
        others={others.map(({ id, title }) => ({ id, title }))}
        savings={[
          { label: `Save as version ${version + 1}`, save: saveNext.bind(null, recipeId, version, false) },
          { label: 'Save as a variation of its own', save: saveNext.bind(null, recipeId, version, true) },
        ]}
      />
    </>
  );
}
