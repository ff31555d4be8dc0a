'use server';

import { call } from '@/app/access';
import { attempt } from '@/app/form';
import type { InputOf } from '@/services/gate/gate';
import { saveCalendar } from '@/services/plan/closures';
import type { FormState } from '@/ui/form/form-state';

export async function saveImport(input: InputOf<typeof saveCalendar>): Promise<FormState> {
  return attempt(saveCalendar, async () => {
    await call(saveCalendar, input);
    return `${input.closures.length} closures are brought in as ${input.name}.`;
  });
}
