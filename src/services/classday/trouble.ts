import { classNow } from '@/core/classday/live/class-events';
import { topUp } from '@/core/classday/top-up';
import { handedNow, STILL_HERE } from '@/core/handout/handing';
import { saidSince } from '@/store/classday';
import { handedSince } from '@/store/handout';
import { ROLES, service } from '../gate/gate';
import { loadBundle } from '../plan/sessions';
import { readSnapshot } from '../sheet/session-sheet';
import { oneClass } from './class-plan';
import { enterClass } from './entry';

export const viewTroubles = service({
  title: 'See what ran short or was wrong in a class, and which kits can still be put right',
  roles: ROLES,
  input: oneClass,
  run: async (context, { sessionId, sitting }) => {
    await enterClass(context, sessionId);
    const { db } = context.store;
    const bundle = await loadBundle(context, sessionId);
    const now = classNow(await saidSince(db, { sessionId, sitting }, 0));
    const locked = bundle.sheet && readSnapshot(bundle.sheet);
    const handed = handedNow(await handedSince(db, sessionId, 0));
    const here = (locked?.kits ?? []).filter(({ id }) => (handed.get(id) ?? STILL_HERE).state !== 'gone');
    const { title, courseTitle } = bundle.session;
    return {
      session: { id: sessionId, sitting, title, courseTitle },
      isLocked: Boolean(locked),
      troubles: now.troubles.map(({ id, what, item, value, at, by }) => ({
        id,
        what,
        food: item,
        percent: value.percent ?? 0,
        text: value.text ?? '',
        at,
        by,
        isSettled: now.settled.has(id),
        ...topUp(here, locked?.content.variants ?? [], item, value.percent ?? 0),
      })),
    };
  },
});
