import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { addDays } from '@/core/plan/civil';
import { writeTemperatures } from '@/formats/packing/temperatures-csv';
import { batchesBetween } from '@/store/made';
import { find } from '@/store/query';
import { beginningOf, type Context, nowOf, service, todayIn } from '../../gate/gate';
import { loadProgramme } from '../../sheet/load-programme';
import { namesOfMembers, shownBatches } from './made';

/** Days that are shown where nobody says which. */
const USUAL_DAYS = 90;

const span = z.object({ from: civilDate.optional(), to: civilDate.optional() });

async function logBetween(context: Context, wanted: z.output<typeof span>) {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const { programme } = await loadProgramme(context);
  const today = todayIn(context, programme.timeZone);
  const to = wanted.to ?? today;
  const from = wanted.from ?? addDays(to, -USUAL_DAYS);
  const found = await batchesBetween(db, {
    programmeId,
    from: beginningOf(from, programme.timeZone),
    to: beginningOf(addDays(to, 1), programme.timeZone),
  });
  const temperatures = await find(db, db.models.temperature, { batchId: found.map(({ id }) => id) }, [['at', 'ASC']]);
  const titles = new Map(found.map(({ id, title }) => [id, title]));
  const names = await namesOfMembers(context);
  return {
    from,
    to,
    programme: programme.name,
    timeZone: programme.timeZone,
    profile: programme.safetyProfile,
    batches: shownBatches(found, temperatures, programme.safetyProfile, nowOf(context), names).map((batch) => ({
      ...batch,
      session: titles.get(batch.id) ?? '',
    })),
  };
}

export const viewTemperatures = service({
  title: 'See all temperatures that were taken, for an inspector',
  roles: ['coordinator'],
  input: span,
  run: (context, wanted) => logBetween(context, wanted),
});

export const exportTemperatures = service({
  title: 'Take the temperatures out as CSV',
  roles: ['coordinator'],
  input: span,
  run: async (context, wanted) => writeTemperatures((await logBetween(context, wanted)).batches),
});
