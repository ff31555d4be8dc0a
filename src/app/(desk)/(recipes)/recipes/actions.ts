'use server';

import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import type { Slip } from '@/core/recipes/slips/slip';
import { ServiceError } from '@/services/errors';
import type { InputOf } from '@/services/gate/gate';
import { addDish } from '@/services/plan/sessions';
import { checkDraft, type DraftedLine, readDraftLine, saveDraft, saveEdited } from '@/services/recipes/drafts';
import type { FormState } from '@/ui/form/form-state';

/** One line, read again after it was changed or a food was chosen for it. */
export async function readAgain(line: InputOf<typeof readDraftLine>): Promise<DraftedLine> {
  return call(readDraftLine, line);
}

/** What smells like a slip in the draft as it stands, and what it weighs; null while it cannot be looked at. */
export async function smell(
  draft: InputOf<typeof checkDraft>,
): Promise<{ slips: Slip[]; grams: number | null } | null> {
  try {
    return await call(checkDraft, draft);
  } catch (error) {
    if (error instanceof ServiceError) return null;
    throw error;
  }
}

export type SentDraft = InputOf<typeof saveDraft>;

/** Saves the recipe; adds it to a session when it was brought in for one. */
export async function saveIncoming(sessionId: string | undefined, draft: SentDraft): Promise<FormState> {
  return attempt(saveDraft, async () => {
    const recipeId = await call(saveDraft, draft);
    if (sessionId) await call(addDish, { sessionId, recipeId });
    redirect(sessionId ? `/sessions/${sessionId}` : `/recipes/${recipeId}`);
  });
}

/** Saves one of several recipes, and stays where it is. */
export async function saveOne(draft: SentDraft): Promise<FormState> {
  return attempt(saveDraft, async () => {
    await call(saveDraft, draft);
    return `${draft.title} is saved.`;
  });
}

/** Saves the next version of a recipe, or a variation of it. */
export async function saveNext(
  recipeId: string,
  version: number,
  asVariation: boolean,
  draft: SentDraft,
): Promise<FormState> {
  return attempt(saveEdited, async () => {
    const id = await call(saveEdited, { ...draft, recipeId, version, asVariation });
    redirect(`/recipes/${id}`);
  });
}
