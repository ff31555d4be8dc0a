import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { z } from 'zod';
import { dropTotp, setSecondStep, setTotp, useRecoveryCode, useTotpStep } from '@/store/access';
import { insert, remove } from '@/store/query';
import type { Db } from '@/store/store';
import type { AccountRow } from '@/store/tables/access';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { recoveryHash, seal, unseal } from '../gate/keys';
import { tellMember } from '../messages/notices';
import { accountOf } from './account-of';

/** Codes change every half minute (RFC 6238); one step before and after is taken too, for clocks that differ. */
const PERIOD = 30;
const WINDOW = 1;

const RECOVERY_CODES = 10;

const totpOf = (secret: string, label = '') =>
  new TOTP({ issuer: 'Logistra', label, secret: Secret.fromBase32(secret), digits: 6, period: PERIOD });

/** The number of the half minute whose code this is; undefined when it is none of those about now. */
function stepOf(secret: string, code: string, now: Date): number | undefined {
  const delta = totpOf(secret).validate({ token: code, timestamp: now.getTime(), window: WINDOW });
  return delta === null ? undefined : Math.floor(now.getTime() / 1000 / PERIOD) + delta;
}

const plainCode = (typed: string) => typed.toLowerCase().replace(/[\s-]/g, '');

/**
 * Whether a code is the member's, used now for the first time: from the telephone, or a recovery code, which is then used up.
 * Of two browsers with one code, one gets in.
 */
export async function codeFits(
  from: Pick<Context, 'clock' | 'store' | 'deploymentKey'>,
  account: Pick<AccountRow, 'id' | 'totp'>,
  typed: string,
): Promise<'code' | 'recovery code' | 'used before' | undefined> {
  const { db } = from.store;
  const now = nowOf(from);
  const code = plainCode(typed);
  const secret = account.totp === null ? undefined : await unseal(from, account.totp);
  const step = secret && /^\d{6}$/.test(code) ? stepOf(secret, code, now) : undefined;
  if (step !== undefined) {
    const used = await useTotpStep(db, {
      accountId: account.id,
      step,
    });
    return used === 1 ? 'code' : 'used before';
  }
  const used = await useRecoveryCode(db, { accountId: account.id, hash: recoveryHash(from, account.id, code), now });
  return used === 1 ? 'recovery code' : undefined;
}

export const viewSecondStep = service({
  title: 'See whether one signs in with a code beside the password',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const account = await accountOf(context, db);
    const left = await db.models.recoveryCode.count({ where: { accountId: account.id, usedAt: null } });
    return { isOn: account.totp !== null, recoveryCodesLeft: left };
  },
});

export const beginSecondStep = service({
  title: 'Begin to set up a code beside the password',
  roles: ROLES,
  proof: true,
  input: z.object({}),
  run: async (context) => {
    const secret = new Secret({ size: 20 }).base32;
    const account = await accountOf(context, context.store.db);
    // Nothing is kept yet: the page sends the sealed secret back with the first code.
    return { secret, address: totpOf(secret, account.email).toString(), sealed: await seal(context, secret) };
  },
});

export const turnOnSecondStep = service({
  title: 'Sign in with a code beside the password from now on',
  roles: ROLES,
  proof: true,
  input: z.object({ sealed: z.string().max(2000), code: z.string().max(20) }),
  run: async (context, { sealed, code }) => {
    const secret = await unseal(context, sealed);
    const step = secret && stepOf(secret, plainCode(code), nowOf(context));
    if (!secret || !step) {
      const message =
        'This code does not fit. Wait for the next one in the app, and write that. Is the telephone’s clock right?';
      throw new ServiceError('invalid', message, [{ where: 'code', message }]);
    }
    const totp = await seal(context, secret);
    return context.store.transaction(async (db) => {
      const { id: accountId } = await accountOf(context, db);
      await setTotp(db, { totp, step, accountId });
      const codes = await freshCodes(context, db, accountId);
      await logChange(context, db, 'turned on the second step', 'member', context.actor.id);
      await tellMember(context, db, context.actor.id, 'signing in now asks for a code beside the password');
      return { codes };
    });
  },
});

/** Recovery codes in place of all that were there. Shown once; kept as hashes. */
async function freshCodes(context: Context, db: Db, accountId: string): Promise<string[]> {
  // 49 bits each, in letters that are not taken for one another.
  const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
  const codes = Array.from({ length: RECOVERY_CODES }, () =>
    [...randomBytes(10)].map((byte) => LETTERS[byte % LETTERS.length]).join(''),
  );
  await remove(db, db.models.recoveryCode, { accountId });
  await insert(
    db,
    db.models.recoveryCode,
    codes.map((code) => ({
      id: context.ids(),
      accountId,
      codeHash: recoveryHash(context, accountId, code),
      usedAt: null,
    })),
  );
  return codes.map((code) => `${code.slice(0, 5)}-${code.slice(5)}`);
}

export const renewRecoveryCodes = service({
  title: 'Get new recovery codes',
  roles: ROLES,
  proof: true,
  input: z.object({}),
  run: (context) =>
    context.store.transaction(async (db) => {
      const codes = await freshCodes(context, db, (await accountOf(context, db)).id);
      await logChange(context, db, 'renewed the recovery codes', 'member', context.actor.id);
      await tellMember(context, db, context.actor.id, 'the recovery codes were made anew');
      return { codes };
    }),
});

export const turnOffSecondStep = service({
  title: 'Sign in without a code again',
  roles: ROLES,
  proof: true,
  input: z.object({}),
  run: (context) =>
    context.store.transaction(async (db) => {
      const memberId = context.actor.id;
      const { id: accountId } = await accountOf(context, db);
      await dropTotp(db, { accountId });
      await remove(db, db.models.recoveryCode, { accountId });
      await logChange(context, db, 'turned off the second step', 'member', memberId);
      await tellMember(context, db, memberId, 'signing in no longer asks for a code beside the password');
    }),
});

export const requireSecondStep = service({
  title: 'Say whether coordinators must sign in with a code beside the password',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ required: z.boolean() }),
  run: (context, { required }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      await setSecondStep(db, {
        required: required ? 1 : 0,
        programmeId,
      });
      await logChange(context, db, 'changed', 'programme', programmeId, { secondStep: required });
    }),
});
