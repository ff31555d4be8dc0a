'use server';

import { putBackTaken } from '@/services/programme/put-back';
import type { FormState } from '@/ui/form/form-state';
import { call } from '../access';
import { attempt } from '../form';

/** What a notice offers after something was taken away: it is put back as it was. */
export async function putBack(changeId: string): Promise<FormState> {
  return attempt(putBackTaken, async () => {
    const called = await call(putBackTaken, { changeId });
    return called ? `${called} is back.` : 'It is back.';
  });
}
