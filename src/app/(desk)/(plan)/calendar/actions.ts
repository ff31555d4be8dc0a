'use server';

import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { ServiceError } from '@/services/errors';
import type { InputOf } from '@/services/gate/gate';
import { cancelSession, previewCancel } from '@/services/plan/cancel';
import { undoChange } from '@/services/plan/changes';
import { checkSession, moveSession, previewChange } from '@/services/plan/sessions';
import type { FormState } from '@/ui/form/form-state';

export type MovePreview = Awaited<ReturnType<typeof previewChange>>;

/** What a service finds, or why it cannot be looked at. */
async function look<Found>(find: () => Promise<Found>): Promise<{ preview: Found } | { problem: string }> {
  try {
    return { preview: await find() };
  } catch (error) {
    if (error instanceof ServiceError) return { problem: error.problems[0]?.message ?? error.message };
    throw error;
  }
}

/** What a move would bring. */
export const previewMove = async (input: {
  sessionId: string;
  groupId?: string;
  date: string;
  startsAt: string;
  place?: string;
}) => look(() => call(previewChange, input));

export type CancelPreview = Awaited<ReturnType<typeof previewCancel>>;

/** What hangs on a session, before it is cancelled. */
export const lookAtCancelling = async (input: { sessionId: string; groupId?: string }) =>
  look(() => call(previewCancel, input));

/** What stands against a session in a form; null while the form cannot be read. */
export async function check(
  values: InputOf<typeof checkSession>,
): Promise<{ conflicts: string[]; fixes: string[] } | null> {
  try {
    return await call(checkSession, values);
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
  return attempt(moveSession, async () => {
    await call(moveSession, input);
    return 'Moved. What hangs on it is counted back anew.';
  });
}

/** Cancels a session or one of its groups, or holds it after all. */
export async function cancel(input: {
  sessionId: string;
  groupId?: string;
  version: number;
  cancelled: boolean;
  because?: string;
}): Promise<FormState> {
  return attempt(cancelSession, async () => {
    await call(cancelSession, input);
    return input.cancelled ? 'Cancelled. Calendars that follow the plan hear of it.' : 'It is held after all.';
  });
}

export async function undo(changeId: string, _state: FormState | null): Promise<FormState> {
  return attempt(undoChange, async () => {
    const said = await call(undoChange, { changeId });
    return `Taken back: ${said}.`;
  });
}
