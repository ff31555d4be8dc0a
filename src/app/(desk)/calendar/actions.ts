'use server';

import { attempt } from '@/app/form';
import { ServiceError } from '@/services/errors';
import { undoChange } from '@/services/plan/changes';
import { cancelSession, checkSession, moveSession, previewChange } from '@/services/plan/sessions';
import type { FormState } from '@/ui/action-form';
import { call } from '../../access';

export type MovePreview = Awaited<ReturnType<typeof previewChange>>;

/** What a move would bring, or why it cannot be looked at. */
export async function previewMove(input: {
  sessionId: string;
  groupId?: string;
  date: string;
  startsAt: string;
  place?: string;
}): Promise<{ preview: MovePreview } | { problem: string }> {
  try {
    return { preview: await call(previewChange, input as never) };
  } catch (error) {
    if (error instanceof ServiceError) return { problem: error.problems[0]?.message ?? error.message };
    throw error;
  }
}

/** What stands against a session in a form; null while the form cannot be read. */
export async function check(values: Record<string, string>): Promise<{ conflicts: string[]; fixes: string[] } | null> {
  try {
    return await call(checkSession, values as never);
  } catch (error) {
    if (error instanceof ServiceError) return null;
    throw error;
  }
}

export async function move(input: {
  sessionId: string;
  groupId?: string;
  version: number;
  date: string;
  startsAt: string;
  place?: string;
}): Promise<FormState> {
  return attempt(async () => {
    await call(moveSession, input as never);
    return 'Moved. What hangs on it is counted back anew.';
  });
}

/** @param groupId '' for the session as a whole */
export async function cancel(sessionId: string, groupId: string, version: number, cancelled: boolean): Promise<void> {
  await attempt(async () => {
    await call(cancelSession, {
      sessionId,
      ...(groupId ? { groupId } : {}),
      version,
      cancelled,
      because: '',
    } as never);
    return undefined;
  });
}

export async function undo(changeId: string, _state: FormState | null): Promise<FormState> {
  return attempt(async () => {
    const said = await call(undoChange, { changeId });
    return `Taken back: ${said}.`;
  });
}
