// The demo's finished course: four classes that were closed, their lessons waiting, one of them taken, and somebody to report to.
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { recordAttendance, viewAttendance } from '@/services/classday/attendance';
import { noteIncident } from '@/services/classday/incidents';
import { sayInClass, viewClass } from '@/services/classday/live';
import { taste, viewTasting } from '@/services/classday/tasting';
import { noteCloseOut } from '@/services/closeout/close-out';
import { closeSession } from '@/services/closeout/closing';
import { saveFunder } from '@/services/closeout/funders';
import { decideLesson, viewLessons } from '@/services/closeout/lessons/lessons';
import type { Context } from '@/services/gate/gate';
import { find, insert } from '@/store/query';

/** What happened in one class of it. */
interface PastClass {
  readonly title: string;
  readonly absent: readonly string[];
  /** Per cent that was left, by food. */
  readonly left: Readonly<Record<string, number>>;
  readonly bad?: Readonly<Record<string, readonly [bad: number, pieces: number]>>;
  readonly note?: string;
  /** What each child thought, in the order of the roll: m for more please, f for fine, n for not yet, - for not tasted. */
  readonly faces: string;
  /** Minutes that steps took longer than planned. */
  readonly behind: number;
  readonly hurt?: string;
}

export interface DemoCloseOut {
  readonly classes: readonly PastClass[];
  /** After which of them a lesson is taken, of which food, and what was made of it. */
  readonly taken: { readonly after: number; readonly food: string; readonly percent: number };
  readonly crew: readonly (readonly [name: string, came: number, went: number])[];
  readonly funder: { readonly name: string; readonly intro: string; readonly words: Readonly<Record<string, string>> };
}

const FACES = { m: 'more please', f: 'it is fine', n: 'not yet' } as const;

/** Runs, notes and closes the classes of the course that is over, each on its day. */
export async function loadFinished(context: Context, demo: DemoCloseOut, timeZone: string): Promise<void> {
  const { db } = context.store;
  const courses = (await find(db, db.models.course, { programmeId: context.actor.programmeId })).map(({ id }) => id);
  const crew = new Map(
    (await find(db, db.models.crewMember, { programmeId: context.actor.programmeId })).map(({ id, name }) => [
      name,
      id,
    ]),
  );
  for (const [at, past] of demo.classes.entries()) {
    const [session] = await find(db, db.models.session, { title: past.title, courseId: courses });
    if (!session) throw new Error(`The demo has no session “${past.title}”.`);
    const start = Temporal.PlainDateTime.from(`${session.date}T${session.startsAt}`)
      .toZonedDateTime(timeZone)
      .toInstant();
    const after = (minutes: number): Context => ({ ...context, clock: () => start.add({ minutes }) });
    await hold(after, session.id, session.minutes, past);
    await insert(
      db,
      db.models.crewHours,
      demo.crew.flatMap(([name, came, went]) => {
        const crewId = crew.get(name);
        const stay = { id: context.ids(), sessionId: session.id, date: session.date, came, went, note: '', version: 1 };
        return crewId ? [{ ...stay, crewId }] : [];
      }),
    );
    await closeSession(after(session.minutes + 10), { sessionId: session.id, id: v7() });
    if (at === demo.taken.after) await takeOne(after(24 * 60), demo.taken);
  }
  await saveFunder(context, demo.funder);
}

async function hold(
  after: (minutes: number) => Context,
  sessionId: string,
  minutes: number,
  past: PastClass,
): Promise<void> {
  const { people } = await viewAttendance(after(5), { sessionId });
  for (const { id: enrolmentId, name } of people) {
    const state = past.absent.includes(name) ? 'absent' : 'came';
    await recordAttendance(after(5), { sessionId, id: v7(), enrolmentId, state });
  }
  const { plan } = await viewClass(after(8), { sessionId });
  const say = async (minute: number, event: object) => {
    const at = after(minute).clock().toString();
    await sayInClass(after(minute), { sessionId, now: at, events: [{ id: v7(), at, ...event }] } as never);
  };
  if (plan) {
    await say(10, { what: 'begun', value: { plan } });
    for (const { id, start, on, off } of [...plan.tasks].sort(
      (a, b) => a.start + a.on + a.off - b.start - b.on - b.off,
    ))
      await say(10 + Math.round((start + on + off) * (1 + past.behind / 100)), { what: 'done', item: id });
  }
  const { dishes, people: tasters } = await viewTasting(after(minutes - 10), { sessionId });
  const there = tasters.filter(({ name }) => !past.absent.includes(name));
  for (const { id: dishId } of dishes) {
    const events = there.flatMap(({ id: enrolmentId }, at) => {
      const face = FACES[past.faces[at] as keyof typeof FACES];
      return face ? [{ id: v7(), dishId, enrolmentId, face }] : [];
    });
    if (events.length > 0) await taste(after(minutes - 10), { sessionId, events });
  }
  if (past.hurt)
    await noteIncident(after(minutes - 30), {
      id: v7(),
      sessionId,
      enrolmentId: there[0]?.id ?? '',
      hurt: 'cut',
      words: past.hurt,
      told: 'the family, when they fetched',
    });
  const notes = [
    ...Object.entries(past.left).map(([item, percent]) => ({ id: v7(), what: 'left' as const, item, percent })),
    ...Object.entries(past.bad ?? {}).map(([item, [bad, pieces]]) => ({
      id: v7(),
      what: 'bad' as const,
      item,
      bad,
      pieces,
    })),
    ...(past.note ? [{ id: v7(), what: 'note' as const, words: past.note }] : []),
  ];
  await noteCloseOut(after(minutes + 5), { sessionId, notes });
}

async function takeOne(context: Context, { food, percent }: DemoCloseOut['taken']): Promise<void> {
  const { lessons } = await viewLessons(context, {});
  const lesson = lessons.find(({ kind, item }) => kind === 'amount' && item === food);
  if (!lesson) throw new Error(`The demo has no lesson about ${food}.`);
  const { kind, ofId, item, version } = lesson;
  await decideLesson(context, { kind, ofId, item, version, word: 'taken', percent });
}
