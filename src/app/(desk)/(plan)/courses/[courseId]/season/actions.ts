'use server';

import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { ServiceError } from '@/services/errors';
import { laySeason, previewSeason, type SeasonDraft } from '@/services/plan/season';
import type { FormState } from '@/ui/action-form';

/** What a season comes to, or what to mend first. */
export async function preview(plan: unknown): Promise<{ draft: SeasonDraft } | { problem: string }> {
  try {
    return { draft: await call(previewSeason, plan as never) };
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    const [first] = error.problems;
    return { problem: first?.message ?? error.message };
  }
}

export async function lay(courseId: string, plan: unknown): Promise<FormState> {
  return attempt(laySeason, async () => {
    await call(laySeason, plan as never);
    redirect(`/courses/${courseId}`);
  });
}
