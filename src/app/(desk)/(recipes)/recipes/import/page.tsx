import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { readQuery } from '@/app/query';
import { listRecipes } from '@/services/recipes/recipes';
import { PageTitle } from '@/ui/page';
import { saveIncoming } from '../actions';
import { RecipeImport } from './recipe-import';

export const metadata = { title: 'Bring in a recipe' };

export default async function ImportRecipe({ searchParams }: { searchParams: Promise<{ session?: string }> }) {
  await requireMember();
  const others = await call(listRecipes, {});
  const { session } = await readQuery(searchParams);
  return (
    <>
      <PageTitle title="Bring in a recipe" over="From a text, a web page that was saved, or a recipe file">
        <Link href={session ? `/sessions/${session}` : '/recipes'} className="btn">
          Back
        </Link>
      </PageTitle>
      <RecipeImport
        save={saveIncoming.bind(null, session)}
        forSession={Boolean(session)}
        others={others.map(({ id, title }) => ({ id, title }))}
      />
    </>
  );
}
