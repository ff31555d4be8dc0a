'use server';

import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { addDish } from '@/services/plan/sessions';
import { type DraftedLine, readDraftLine, saveDraft } from '@/services/recipes/recipes';
import type { FormState } from '@/ui/action-form';

/** One line, read again after it was changed or a food was chosen for it. */
export async function readAgain(text: string, section: string, chosen: (string | null)[]): Promise<DraftedLine> {
  return call(readDraftLine, { text, section, chosen });
}

/** Saves the recipe; adds it to a session when it was brought in for one. */
export async function saveIncoming(sessionId: string | undefined, draft: unknown): Promise<FormState> {
  return attempt(async () => {
    const recipeId = await call(saveDraft, draft as never);
    if (sessionId) await call(addDish, { sessionId, recipeId });
    redirect(sessionId ? `/sessions/${sessionId}` : `/recipes/${recipeId}`);
  });
}
