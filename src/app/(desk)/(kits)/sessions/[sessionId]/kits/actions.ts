'use server';

import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import type { VersionPolicy } from '@/core/kits/sheet/fewest-variants';
import { refuseDifferences, unlockSheet } from '@/services/kits/decide';
import { forgetLabel, leaveOut, lockKitSheet, putBack, recordLabel } from '@/services/kits/kit-sheet';
import { setVersions } from '@/services/plan/sessions';
import type { FormState } from '@/ui/form/form-state';

export async function lock(sessionId: string, basis: string): Promise<FormState> {
  return attempt(lockKitSheet, async () => {
    await call(lockKitSheet, { sessionId, basis });
    return undefined;
  });
}

export async function chooseVersions(sessionId: string, versions: VersionPolicy): Promise<void> {
  await attempt(setVersions, async () => {
    await call(setVersions, { sessionId, versions });
    return undefined;
  });
}

export async function refuse(
  sessionId: string,
  basis: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(refuseDifferences, async () => {
    await call(refuseDifferences, { sessionId, basis, reason: fields(data).reason ?? '' });
    return undefined;
  });
}

export async function unlock(
  sessionId: string,
  revision: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(unlockSheet, async () => {
    await call(unlockSheet, { sessionId, revision, reason: fields(data).reason ?? '' });
    return undefined;
  });
}

export async function leaveKitOut(
  sessionId: string,
  enrolmentId: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(leaveOut, async () => {
    await call(leaveOut, { sessionId, enrolmentId, reason: fields(data).reason ?? '' });
    return undefined;
  });
}

export async function putKitBack(sessionId: string, enrolmentId: string): Promise<void> {
  await attempt(putBack, async () => {
    await call(putBack, { sessionId, enrolmentId });
    return undefined;
  });
}

export async function saveLabel(
  sessionId: string,
  ingredient: string,
  shown: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(recordLabel, async () => {
    await call(recordLabel, {
      sessionId,
      ingredient,
      shown,
      product: fields(data).product ?? '',
      allergens: data.getAll('allergens').map(String),
    });
    return undefined;
  });
}

export async function takeLabelBack(sessionId: string, ingredient: string, shown: string): Promise<FormState> {
  return attempt(forgetLabel, async () => {
    await call(forgetLabel, { sessionId, ingredient, shown });
    return undefined;
  });
}
