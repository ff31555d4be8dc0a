import Link from 'next/link';
import { redirect } from 'next/navigation';
import { attempt } from '@/app/form';
import { addDish } from '@/services/plan/sessions';
import { saveRecipe } from '@/services/recipes/recipes';
import type { FormState } from '@/ui/action-form';
import { PageTitle } from '@/ui/page';
import { call, requireMember } from '../../../access';
import { RecipeImport } from './recipe-import';

export const metadata = { title: 'Bring in a recipe' };

async function save(sessionId: string | undefined, title: string, body: unknown): Promise<FormState> {
  'use server';
  return attempt(async () => {
    const recipeId = await call(saveRecipe, { title, body } as never);
    if (sessionId) await call(addDish, { sessionId, recipeId });
    redirect(sessionId ? `/sessions/${sessionId}` : `/recipes/${recipeId}`);
  });
}

export default async function ImportRecipe({ searchParams }: { searchParams: Promise<{ session?: string }> }) {
  await requireMember();
  const { session } = await searchParams;
  return (
    <>
      <PageTitle title="Bring in a recipe">
        <Link href={session ? `/sessions/${session}` : '/recipes'} className="btn">
          Back
        </Link>
      </PageTitle>
      <RecipeImport save={save.bind(null, session)} forSession={Boolean(session)} />
    </>
  );
}
