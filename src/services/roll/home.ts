import { z } from 'zod';
import { homeFacts } from '@/contracts/kits';
import { findIngredient } from '@/core/reference/reference';
import { find, findOne, updateVersion } from '@/store/query';
import { peopleOf } from '@/store/roll';
import type { Db } from '@/store/store';
import type { HouseholdRow } from '@/store/tables/roll';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';

/** A household of the asker's programme that was not erased. @throws ServiceError when there is none */
export async function loadHousehold(context: Context, householdId: string, db: Db): Promise<HouseholdRow> {
  const { programmeId } = context.actor;
  const household = await findOne(db, db.models.household, { id: householdId, programmeId, erasedAt: null });
  if (!household) throw notFound('household');
  return household;
}

export const viewHousehold = service({
  title: 'See a household: who it is, and what it has at home',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid() }),
  run: async (context, { householdId }) => {
    const { db } = context.store;
    const household = await loadHousehold(context, householdId, db);
    const people = await peopleOf(db, { householdId });
    await logLook(context, 'household', householdId, people.length);
    const { programme } = await loadProgramme(context);
    return {
      household,
      home: household.home,
      people,
      foods: programme.reference.ingredients.map(({ name }) => name),
    };
  },
});

export const setHome = service({
  title: 'Write down what a household has at home and agreed to',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid(), version: z.coerce.number().int(), home: homeFacts }),
  run: (context, { householdId, version, home }) =>
    context.store.transaction(async (db) => {
      const household = await loadHousehold(context, householdId, db);
      const { programme } = await loadProgramme(context, db);
      const strange = [...(home.staples ?? []), ...(home.box ?? []).map(({ ingredient }) => ingredient)].filter(
        (food) => !findIngredient(programme.reference, food),
      );
      if (strange.length > 0)
        throw new ServiceError(
          'invalid',
          'Nothing was saved yet.',
          strange.map((food) => ({
            where: food,
            message: 'Not in the reference table: choose its name from the list.',
          })),
        );
      const named = (food: string) => findIngredient(programme.reference, food)?.name ?? food;
      const values = {
        home: {
          ...home,
          ...(home.staples ? { staples: home.staples.map(named) } : {}),
          ...(home.box
            ? { box: home.box.map(({ ingredient, grams }) => ({ ingredient: named(ingredient), grams })) }
            : {}),
        },
      };
      if (!(await updateVersion(db, db.models.household, householdId, version, values))) throw stale(household.name);
      await logChange(context, db, 'changed what is at home', 'household', householdId, { ...home });
      const enrolments = await find(db, db.models.enrolment, { householdId, status: 'enrolled' });
      for (const courseId of new Set(enrolments.map((row) => row.courseId)))
        await syncCallBacks(context, db, { courseId });
    }),
});
