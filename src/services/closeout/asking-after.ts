import { isHomeKit, type Mode } from '@/core/plan/mode';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { lastDayOf } from '@/core/plan/sitting';
import { attendanceNow, questionsOf } from '@/core/roll/attendance';
import { find, insert } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { isDuplicate } from '@/store/store';
import { type Context, nowOf } from '../gate/gate';
import { tellFamily } from '../handout/family-messages';
import { comingOf } from '../sheet/coming';
import { loadProgramme } from '../sheet/load-programme';

/** Families are asked on the day after they cooked, or soon after where nothing was sent then: later nobody remembers. */
const ASKED_DAYS = 3;
/** Nobody is written to at night. */
const [FROM_HOUR, TO_HOUR] = [9, 20];

const ASKS = 'Say whether you cooked it, and what was missing:';
const words = (title: string) =>
  `you had your kit of “${title}”. Did you cook it, and was something missing, or too much? One tap is enough.`;

/** Families who got a kit of a session to cook at home, and have not said whether they did. */
async function openFamilies(context: Context, bundle: SessionBundle): Promise<string[]> {
  const { session } = bundle;
  const { db } = context.store;
  const mayCook = comingOf(bundle).filter((row) => isHomeKit((row.mode ?? session.mode) as Mode));
  if (mayCook.length === 0) return [];
  const seen = attendanceNow(
    await find(db, db.models.attendance, { sessionId: session.id }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]),
  );
  const asked = new Set(
    (await find(db, db.models.askedAfter, { sessionId: session.id })).map((row) => row.householdId),
  );
  const open = mayCook.filter(({ id, mode }) => {
    const own = seen.get(id);
    const says = questionsOf((mode ?? session.mode) as Mode).flat();
    return own?.has('collected') && says.includes('cooked') && !own.has('cooked') && !own.has('not cooked');
  });
  return [...new Set(open.map(({ householdId }) => householdId))].filter((id) => !asked.has(id));
}

/** Asks the families of sessions that are just over whether they cooked: once each. @returns how many were written to */
export async function askAfter(context: Context): Promise<number> {
  const { programme } = await loadProgramme(context);
  const { db } = context.store;
  const now = context.clock().toZonedDateTimeISO(programme.timeZone);
  if (now.hour < FROM_HOUR || now.hour >= TO_HOUR) return 0;
  const today = now.toPlainDate();
  const first = today.subtract({ days: ASKED_DAYS }).toString();
  const bundles = await loadSessionBundles(db, context.actor.programmeId, {
    notOverOn: first,
    to: today.subtract({ days: 1 }).toString(),
  });
  let asked = 0;
  for (const bundle of bundles) {
    const { session } = bundle;
    const last = lastDayOf(session);
    if (last < first || last >= today.toString()) continue;
    const homes = await find(db, db.models.household, { id: await openFamilies(context, bundle), erasedAt: null });
    const news = {
      sessionId: session.id,
      title: session.title,
      programme: programme.name,
      say: sayingOf(sayingFacts(programme)),
    };
    for (const { id: householdId, name, contact } of homes)
      await context.store
        .transaction(async (inside) => {
          // Two background processes at once: one of them finds it said.
          await insert(inside, inside.models.askedAfter, [{ sessionId: session.id, householdId, at: nowOf(context) }]);
          const family = { householdId, name, contact };
          if (await tellFamily(context, inside, family, news, 'Did you cook it?', words(session.title), ASKS)) asked++;
        })
        .catch((error: unknown) => {
          if (!isDuplicate(error)) throw error;
        });
  }
  return asked;
}
