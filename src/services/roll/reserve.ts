import { z } from 'zod';
import { balance, forecast, type PastSession, type ReserveCosts, USUAL_COSTS } from '@/core/roll/forecast';
import { update } from '@/store/query';
import { attendancePast } from '@/store/roll';
import type { SessionBundle } from '@/store/session-bundles';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { comingOf } from '../sheet/coming';
import type { Programme } from '../sheet/load-programme';

/** So many past sessions tell how it usually goes; older ones less and less. */
const MOST_PAST = 40;

/** Past sessions of the programme in which somebody was counted: of the same mode, the newest first. */
async function pastOf(context: Context, mode: string, before: string): Promise<PastSession[]> {
  const [yes, no] = mode === 'take-home' ? ['collected', 'not collected'] : ['came', 'absent'];
  const rows = await attendancePast(context.store.db, {
    yes,
    no,
    mode,
    before,
    programmeId: context.actor.programmeId,
    most: MOST_PAST,
  });
  return rows.map(({ expected, came }) => ({ expected: Number(expected), came: Number(came) }));
}

/** How many are expected at a session, and how many kits to make. */
export async function reserveOf(
  context: Context,
  bundle: SessionBundle,
  { reserveCosts }: Pick<Programme, 'reserveCosts'>,
) {
  const costs: ReserveCosts = { ...USUAL_COSTS, ...reserveCosts };
  const enrolled = comingOf(bundle).length;
  const past = await pastOf(context, bundle.session.mode, bundle.session.date);
  const expected = forecast(enrolled, past);
  const { best, all } = balance(expected.chances, costs);
  return { enrolled, past: past.length, forecast: expected, costs, best, all };
}

const money = z.coerce
  .number('Write an amount of money, such as 4.00.')
  .min(0, 'Not less than nothing.')
  .max(10_000, 'At most 10,000.')
  .transform((amount) => Math.round(amount * 100));

export const setReserveCosts = service({
  title: 'Say what a wasted kit and a child turned away cost',
  roles: ['coordinator'],
  input: z.object({ wasted: money, turnedAway: money }),
  run: (context, costs) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      await update(db, db.models.programme, { id: programmeId }, { reserveCosts: costs });
      await logChange(context, db, 'set what kits too many and too few cost', 'programme', programmeId, { ...costs });
    }),
});
