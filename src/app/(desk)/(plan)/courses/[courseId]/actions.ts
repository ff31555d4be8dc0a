'use server';

import { call } from '@/app/access';
import { attempt } from '@/app/form';
import type { Fix } from '@/core/plan/conflicts';
import { settleConflict } from '@/services/plan/sessions';

/** Takes a way out of a conflict that was offered. */
export async function takeFix(
  sessionId: string,
  groupId: string,
  version: number,
  change: Fix['change'],
): Promise<void> {
  await attempt(settleConflict, async () => {
    await call(settleConflict, { sessionId, ...(groupId ? { groupId } : {}), version, ...change });
    return undefined;
  });
}
