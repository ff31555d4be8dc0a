// The demo's classes of today: one in full swing with a station behind and an omelette not hot enough, one on screen with questions.
import { v7 } from 'uuid';
import { timeOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { recordAllCame } from '@/services/classday/attendance';
import { setLessonNote } from '@/services/classday/follow-later';
import { sayInClass, viewClass } from '@/services/classday/live';
import { taste, viewTasting } from '@/services/classday/tasting';
import type { Context } from '@/services/gate/gate';
import { find, findOne } from '@/store/query';

export interface DemoClass {
  /** Titles of sessions: in full swing, on screen, cooked later. */
  readonly running: string;
  readonly onScreen: string;
  readonly later: string;
  readonly lesson: string;
}

/** Minutes since the cooking began, in the class that runs. */
const MINUTE = 21;
/** The class began so much earlier than its cooking. */
const BEFORE = 10;

/** When the class that runs began, HH:MM: some minutes ago, whenever the demo is loaded. */
export function beganAt(now: string, timeZone: string): string {
  const { time } = civilIn(now, timeZone);
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return timeOf(Math.max(0, hours * 60 + minutes - MINUTE - BEFORE));
}

/** The same context, so many minutes ago. */
const ago = (context: Context, minutes: number): Context => ({
  ...context,
  clock: () => context.clock().subtract({ minutes }),
});

export async function loadClasses(context: Context, demo: DemoClass): Promise<void> {
  const { db } = context.store;
  const courses = (await find(db, db.models.course, { programmeId: context.actor.programmeId })).map(({ id }) => id);
  const sessionOf = async (title: string) => {
    const found = await findOne(db, db.models.session, { title, courseId: courses });
    if (!found) throw new Error(`The demo has no session “${title}”.`);
    return found.id;
  };
  await runClass(context, await sessionOf(demo.running));
  await onScreen(context, await sessionOf(demo.onScreen));
  await setLessonNote(context, { sessionId: await sessionOf(demo.later), version: 0, words: demo.lesson });
}

type Say = Parameters<typeof sayInClass>[1];

/** Says something of a class some minutes ago. */
async function sayAgo(context: Context, sessionId: string, minutes: number, events: readonly object[]): Promise<void> {
  const then = ago(context, minutes);
  const at = then.clock().toString();
  if (events.length === 0) return;
  await sayInClass(then, { sessionId, now: at, events: events.map((event) => ({ id: v7(), at, ...event })) } as Say);
}

/** All is done as planned but at one station, which is behind; the first omelette that was probed is not hot enough. */
async function runClass(context: Context, sessionId: string): Promise<void> {
  await recordAllCame(ago(context, MINUTE + 5), { sessionId });
  const { plan, routines } = await viewClass(context, { sessionId });
  if (!plan) throw new Error('The class of the demo has no run sheet.');
  await sayAgo(
    context,
    sessionId,
    MINUTE + 4,
    routines.opening.map((line) => ({ what: 'ticked', item: `opening: ${line}`.slice(0, 190) })),
  );
  await sayAgo(context, sessionId, MINUTE, [{ what: 'begun', value: { plan } }]);
  const behind = Math.max(...plan.stations.map(({ number }) => number));
  const late = plan.tasks
    .filter(({ station, start, on, off }) => station === behind && start + on + off < MINUTE)
    .sort((a, b) => b.start - a.start)[0];
  for (let minute = 0; minute <= MINUTE; minute++) {
    const ended = plan.tasks.filter((task) => task.start + task.on + task.off === minute && task !== late);
    const open = ended.filter((task) => !task.inside && !(late && task.after.includes(late.id)));
    await sayAgo(
      context,
      sessionId,
      MINUTE - minute,
      open.map(({ id }) => ({ what: 'done', item: id })),
    );
  }
  const hot =
    plan.tasks.filter(({ inside, start }) => inside && start < MINUTE)[0] ?? plan.tasks.find(({ inside }) => inside);
  if (hot)
    await sayAgo(context, sessionId, 1, [
      { what: 'temperature', item: hot.id, value: { tenths: 638, source: 'probe' } },
    ]);
  await sayAgo(context, sessionId, 6, [
    { what: 'short', item: 'carrot', value: { percent: 25, text: 'two were brown inside' } },
  ]);
  const { dishes, people } = await viewTasting(context, { sessionId });
  const slaw = dishes.find(({ title }) => /slaw/i.test(title));
  if (slaw)
    await taste(context, {
      sessionId,
      events: people.slice(0, 5).map(({ id: enrolmentId }, at) => ({
        id: v7(),
        dishId: slaw.id,
        enrolmentId: at === 4 ? null : enrolmentId,
        face: (['more please', 'it is fine', 'not yet'] as const)[at % 3] ?? 'not yet',
      })),
    });
}

/** Families in the call: who has the kit at hand, questions with and without an answer, somebody who lacks something. */
async function onScreen(context: Context, sessionId: string): Promise<void> {
  const { people } = await viewClass(context, { sessionId });
  const [asked, question] = [v7(), v7()];
  await sayAgo(context, sessionId, 8, [{ id: asked, what: 'asked', value: { text: 'kit and equipment at hand' } }]);
  await sayAgo(
    context,
    sessionId,
    6,
    people.slice(0, 6).map(({ id }) => ({ what: 'has', item: asked, enrolmentId: id })),
  );
  await sayAgo(context, sessionId, 5, [
    {
      id: question,
      what: 'question',
      value: { who: people[1]?.name ?? '', text: 'Can the sweet potato keep its skin?' },
    },
    { what: 'answered', item: question, value: { text: 'Yes: scrub it well, and cut it a little smaller.' } },
    { what: 'question', value: { who: people[4]?.name ?? '', text: 'Our tin has no ring: how do we open it?' } },
    { what: 'lacks', enrolmentId: people[6]?.id ?? null, value: { text: 'a sieve: hold the lid ajar' } },
  ]);
}
