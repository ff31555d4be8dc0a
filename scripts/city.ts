// Fills an empty database with a city's programmes, for trying load and faults: invented people, one week of sessions, and benches
// ready to be ticked. Prints what a load needs as JSON.
//   PROGRAMMES PEOPLE SESSIONS BENCHES (of all programmes together)
import { sealData } from 'iron-session';
import { v7 } from 'uuid';
import { addDays } from '@/core/plan/civil';
import { makeLink } from '@/services/access/links';
import { makeToken } from '@/services/access/members';
import type { Context } from '@/services/gate/gate';
import { lockKitSheet, viewKitSheet } from '@/services/kits/kit-sheet';
import { viewBench } from '@/services/packing/bench';
import { addCourse } from '@/services/plan/courses';
import { addDish, addSession } from '@/services/plan/sessions';
import { saveRecipe } from '@/services/recipes/recipes';
import { previewRollFile, saveRoll } from '@/services/roll/roll-file';
import { contextFor, runningStore } from '@/services/runtime';
import { addMember } from '@/store/accounts';
import { freshProgramme } from '@/store/fresh';
import { findOne, insert } from '@/store/query';

const [programmes = 200, people = 20_000, sessions = 400, benches = 40] = process.argv.slice(2).map(Number);
const store = runningStore();
const { db } = store;
const today = new Date().toISOString().slice(0, 10);
const NEEDS = ['', '', '', '', 'milk', 'egg', 'vegetarian'];
const TOGETHER = 6;

async function programmeAt(n: number) {
  const programmeId = v7();
  await insert(db, db.models.programme, [
    freshProgramme({ id: programmeId, name: `Quarter ${n + 1}`, timeZone: 'Europe/London' }),
  ]);
  const id = v7();
  const role = 'coordinator' as const;
  const member = {
    id,
    programmeId,
    email: `${id}@example.test`,
    name: `Coordinator ${n + 1}`,
    role,
  };
  await addMember(db, member);
  const context = contextFor({ id, programmeId, role, name: member.name });
  const { token } = await makeToken(context, { name: 'load', role, days: 7 });
  const courseId = await addCourse(context, { title: 'Supper club', audience: '' });
  const rows = Array.from(
    { length: Math.round(people / programmes) },
    (_, p) => `Person ${n}-${p},${1 + (p % 4)},${NEEDS[p % NEEDS.length]}`,
  );
  const bytes = Buffer.from(`name,servings,avoids\n${rows.join('\n')}\n`);
  const { rows: read } = await previewRollFile(context, { courseId, bytes });
  await saveRoll(context, { courseId, rows: read as never });
  const recipeId = await saveRecipe(context, {
    title: 'Barley pot',
    body: {
      servings: 4,
      lines: [
        { ingredient: 'pearl barley', amount: '200', unit: 'g' },
        { ingredient: 'carrot', amount: '300', unit: 'g' },
        {
          ingredient: 'plain yogurt',
          amount: '1',
          unit: 'cup',
          alternatives: [{ ingredient: 'firm tofu', amount: '100', unit: 'g' }],
        },
        { ingredient: 'ground cumin', amount: '1', unit: 'tsp' },
      ],
      steps: ['Simmer for 40 minutes.'],
    },
  });
  const ids: string[] = [];
  for (let s = 0; s < Math.round(sessions / programmes); s++) {
    const sessionId = await addSession(context, {
      courseId,
      title: `Evening ${s + 1}`,
      // Its kits are packed and handed out today; the others fill the week.
      date: addDays(today, s === 0 ? 0 : 1 + ((n + s) % 6)),
      startsAt: '19:00',
      minutes: 90,
      place: 'Hall',
      mode: 'take-home',
    });
    await addDish(context, { sessionId, recipeId });
    ids.push(sessionId);
  }
  return { context, token, courseId, sessionIds: ids, cookie: await cookieOf(id) };
}

/** A browser's cookie of somebody who is signed in. */
async function cookieOf(memberId: string): Promise<string> {
  const now = new Date();
  const id = v7();
  await insert(db, db.models.signIn, [
    {
      id,
      // The first membership gives the account its id.
      accountId: memberId,
      memberId,
      device: 'load',
      createdAt: now,
      expiresAt: new Date(now.getTime() + 8 * 3_600_000),
      endedAt: null,
      seenAt: now,
      provenAt: now,
      awaitsCode: 0,
    },
  ]);
  const name = process.env.LOGISTRA_TLS === '1' ? '__Host-logistra' : 'logistra';
  return `${name}=${await sealData({ signInId: id }, { password: process.env.SESSION_SECRET ?? '' })}`;
}

/** What can be ticked at a bench. */
async function benchOf(context: Context, sessionId: string) {
  const { sheet } = await viewKitSheet(context, { sessionId });
  await lockKitSheet(context, { sessionId, basis: sheet.basis });
  const { kits } = (await viewBench(context, { sessionId })).sheet;
  return kits.flatMap(({ id, components }) => components.map((component) => [id, component]));
}

/** The secret of the page of a family who gets a kit of a session. */
async function familyLink(context: Context, courseId: string, sessionId: string): Promise<string> {
  const person = await findOne(db, db.models.enrolment, { courseId });
  const link = {
    programmeId: context.actor.programmeId,
    purpose: 'family' as const,
    email: '',
    role: null,
    memberId: null,
    createdBy: null,
    householdId: person?.householdId ?? '',
    sessionId,
  };
  return (await makeLink(context, db, link, 24)).secret;
}

const made: Record<string, unknown>[] = [];
for (let from = 0; from < programmes; from += TOGETHER) {
  const numbers = Array.from({ length: Math.min(TOGETHER, programmes - from) }, (_, at) => from + at);
  for (const { context, ...rest } of await Promise.all(numbers.map(programmeAt))) {
    const [sessionId = ''] = rest.sessionIds;
    if (made.length >= benches) made.push({ ...rest, ticks: [], family: '' });
    else
      made.push({
        ...rest,
        ticks: await benchOf(context, sessionId),
        family: await familyLink(context, rest.courseId, sessionId),
      });
  }
}
console.log(JSON.stringify(made));
await store.close();
