// The crew of the demo: a roster that was asked for, answers to it, one who dropped out, and a place that nobody can fill.
import type { Temporal } from 'temporal-polyfill';
import { askCrew } from '@/services/crew/asking';
import { importCrew, listCrew } from '@/services/crew/people';
import { changePlaces } from '@/services/crew/places';
import { planRoster, viewRoster } from '@/services/crew/roster';
import { dropOut } from '@/services/crew/step-in';
import type { Context } from '@/services/gate/gate';
import { find, insert, update } from '@/store/query';

/** Days of answers that are in: who was asked for a later one has not answered yet. */
const ANSWERED_DAYS = 5;

/** Dates in the file are said from today: "{+30}". */
const datesFrom = (text: string, today: Temporal.PlainDate): string =>
  text.replace(/\{([+-]\d+)\}/g, (_, days: string) => today.add({ days: Number(days) }).toString());

/** Brings the crew in, plans and asks for two weeks, and lets them answer. @param file the crew as CSV, dates said from today */
export async function loadCrew(context: Context, file: string, today: Temporal.PlainDate): Promise<void> {
  await importCrew(context, { bytes: new TextEncoder().encode(datesFrom(file, today)) });
  const { db } = context.store;
  const { programmeId } = context.actor;
  const { people, members } = await listCrew(context, {});
  const idOf = (name: string) => people.find((person) => person.name === name)?.id ?? '';
  const tobin = members.find(({ name }) => name === 'Tobin Farrow');
  if (tobin) await update(db, db.models.crewMember, { id: idOf('Tobin Farrow') }, { memberId: tobin.id });
  const breads = (await viewRoster(context, {})).sessions.find(({ duties }) =>
    duties.some(({ kind }) => kind === 'heat'),
  );
  const by = { lead: 'Tobin Farrow', heat: 'Hollis Crane', assistant: 'Joss Arden' };
  if (breads)
    await changePlaces(context, {
      changes: Object.entries(by).map(([duty, name]) => ({
        sessionId: breads.id,
        duty,
        crewId: idOf(name),
        what: 'put' as const,
      })),
    });
  await planRoster(context, {});
  await askCrew(context, { words: 'Thank you for helping at the Boatshed. Marit' });
  const until = today.add({ days: ANSWERED_DAYS }).toString();
  const { sessions } = await viewRoster(context, {});
  for (const session of sessions)
    for (const duty of session.duties)
      for (const { promiseId, state } of duty.holders)
        if (state === 'asked' && duty.date <= until) await dropOut(context, { promiseId, answer: 'yes' });
  const heat = sessions.find(({ id }) => id === breads?.id)?.duties.find(({ kind }) => kind === 'heat')?.holders[0];
  if (heat) await dropOut(context, { promiseId: heat.promiseId, answer: 'no', note: 'has to be at work' });
  const past = await find(db, db.models.session, { title: 'Stew night' });
  const courses = await find(db, db.models.course, { programmeId });
  const stew = past.find(({ courseId }) => courses.some(({ id }) => id === courseId));
  if (!stew) return;
  const stay = (name: string, came: number, went: number) => ({
    id: context.ids(),
    sessionId: stew.id,
    crewId: idOf(name),
    date: stew.date,
    came,
    went,
    note: '',
    version: 1,
  });
  await insert(db, db.models.crewHours, [
    stay('Tobin Farrow', 930, 1040),
    stay('Wilf Sandar', 945, 1035),
    stay('Edda Rowan', 840, 1020),
  ]);
}
