'use server';

import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { setDoor } from '@/services/handout/doors';
import type { FormState } from '@/ui/form/form-state';

/** Keeps where a family’s door is, and when somebody is there. */
export async function keepDoor(
  householdId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setDoor, async () => {
    const { point = '', from = '', to = '', note = '' } = fields(data);
    await call(setDoor, { householdId, version, point, from, to, note });
    return 'Kept.';
  });
}
