'use server';

import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { ServiceError } from '@/services/errors';
import type { InputOf } from '@/services/gate/gate';
import { laySeason, previewSeason, type SeasonDraft } from '@/services/plan/season';
import type { FormState } from '@/ui/form/form-state';

/** What a season comes to, or what to mend first. */
export async function preview(
  plan: InputOf<typeof previewSeason>,
): Promise<{ draft: SeasonDraft } | { problem: string }> {
  try {
    return { draft: await call(previewSeason, plan) };
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    const [first] = error.problems;
    return { problem: first?.message ?? error.message };
  }
}

export async function lay(courseId: string, plan: InputOf<typeof laySeason>): Promise<FormState> {
  return attempt(laySeason, async () => {
    await call(laySeason, plan);
    redirect(`/courses/${courseId}`);
  });
}
