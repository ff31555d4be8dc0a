import { z } from 'zod';
import { lackingAtHome, needsAtHome } from '@/core/classday/on-screen/at-home';
import { whoIsThere } from '@/core/classday/on-screen/who-is-there';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { insideOf, type SafetyProfile } from '@/core/recipes/steps/safe-temperatures';
import { attendanceNow } from '@/core/roll/attendance';
import { holdSessions } from '@/store/plan';
import { find, insert } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import { nowOf, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadProgramme } from '../sheet/load-programme';
import { stepsOf } from '../sheet/steps-of';
import { openRoom } from './room';

/** A list of a whole call, or a long chat; far more than a class holds. */
const LONGEST = 40_000;

export const matchThere = service({
  title: 'See whom of the roll a pasted list of names or a chat names',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), pasted: z.string().max(LONGEST, 'Paste the names of one class.') }),
  run: async (context, { sessionId, pasted }) => {
    const { coming } = await openRoom(context, sessionId);
    await logLook(context, 'who is there', sessionId, coming.length);
    const roll = coming.map(({ id, name }) => ({ id, name }));
    const lines = whoIsThere(pasted, roll);
    const there = new Set(lines.flatMap(({ ids }) => ids));
    const nameOf = new Map(roll.map(({ id, name }) => [id, name]));
    const named = (ids: readonly string[]) => ids.map((id) => ({ id, name: nameOf.get(id) ?? '' }));
    return {
      there: named([...there]),
      missing: named(roll.filter(({ id }) => !there.has(id)).map(({ id }) => id)),
      asked: lines
        .filter(({ perhaps }) => perhaps.length > 0)
        .map(({ said, perhaps }) => ({ said, perhaps: named(perhaps) })),
      strangers: lines.filter(({ ids, perhaps }) => ids.length === 0 && perhaps.length === 0).map(({ said }) => said),
    };
  },
});

export const recordThere = service({
  title: 'Note that those who are in the call came',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), ids: z.array(z.uuid()).min(1, 'Nobody is chosen.').max(500) }),
  run: async (context, { sessionId, ids }) => {
    const { coming } = await openRoom(context, sessionId);
    const known = new Set(coming.map(({ id }) => id));
    return context.store.transaction(async (db) => {
      // Pressed twice at once, it is noted once.
      await holdSessions(db, context.actor.programmeId, [sessionId]);
      const seen = attendanceNow(
        await find(db, db.models.attendance, { sessionId }, [
          ['at', 'ASC'],
          ['id', 'ASC'],
        ]),
      );
      const open = [...new Set(ids)].filter((id) => known.has(id) && !seen.get(id)?.has('came'));
      const made = { sessionId, state: 'came' as const, at: nowOf(context), actorId: context.actor.id };
      await insert(
        db,
        db.models.attendance,
        open.map((enrolmentId) => ({ ...made, id: context.ids(), enrolmentId })),
      );
      return { noted: open.length };
    });
  },
});

export const viewAtHome = service({
  title: 'See what families of a class on screen lack at home, and what will do instead',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    const { programme } = await loadProgramme(context);
    const steps = bundle.dishes.flatMap((dish) => stepsOf(dish, programme.reference).filter(({ ahead }) => !ahead));
    const needs = needsAtHome(steps, insideAtHome(bundle.dishes, programme.safetyProfile));
    return {
      ...needs,
      families: coming
        .filter(({ mode }) => isHomeKit((mode ?? bundle.session.mode) as Mode))
        .map(({ id, name, home }) => ({ id, name, ...lackingAtHome(needs, home ?? {}) })),
    };
  },
});

/** Poultry and minced meat among the dishes: no dish for a home without a thermometer. */
const insideAtHome = (dishes: SessionBundle['dishes'], profile: SafetyProfile) =>
  dishes.flatMap(({ title, body }) => {
    const foods = wholeRecipe(body).lines.map(({ ingredient }) => ingredient);
    const inside = insideOf('', foods, profile);
    return inside && ['poultry', 'minced meat'].includes(inside.kind) ? [{ title, ...inside }] : [];
  });
