'use server';

import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { saveCalendar } from '@/services/plan/closures';
import type { FormState } from '@/ui/action-form';

export async function saveImport(input: { name: string; placeId: string; closures: unknown[] }): Promise<FormState> {
  return attempt(saveCalendar, async () => {
    await call(saveCalendar, input as never);
    return `${input.closures.length} closures are brought in as ${input.name}.`;
  });
}
