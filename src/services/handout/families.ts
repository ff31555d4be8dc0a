import { z } from 'zod';
import { STILL_HERE } from '@/core/handout/handing';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { sayNamed } from '@/core/quantity/plain-words';
import { cautionSentences } from '@/core/recipes/steps/caution-sentences';
import { cautionsOf } from '@/core/recipes/steps/cautions';
import { find, findOne, insert } from '@/store/query';
import { type DishWithRecipe, loadSessionBundles } from '@/store/session-bundles';
import { openLink, validLink } from '../access/links';
import type { Visit } from '../access/sign-in';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { queueMessage } from '../messages/messages';
import { loadLocked } from '../packing/locked';
import { type Doors, loadDoors, usualSpan } from './door-stops';
import { type KitNews, NEWS, saySpan, sayToldSpan, tellFamily } from './family-messages';

const GONE = new ServiceError('not-found', 'This page has ended. Ask whoever runs the programme.');

/** Whose kit a link is about. */
export interface OwnKit {
  readonly context: Context;
  readonly householdId: string;
  readonly sessionId: string;
}

/** The family that a link belongs to. @throws ServiceError where it opens nothing any more */
export async function kitByLink(visit: Visit, secret: string): Promise<OwnKit> {
  const link = (await validLink(visit, visit.store.db, 'family', secret)) ?? (await openLink(visit, 'family', secret));
  const { db } = visit.store;
  const { householdId, sessionId, programmeId } = link ?? {};
  const home = householdId && (await findOne(db, db.models.household, { id: householdId, erasedAt: null }));
  if (!home || !sessionId || !programmeId) throw GONE;
  const actor = { id: home.id, programmeId, role: 'crew' as const, name: home.name };
  return { context: { ...visit, actor }, householdId: home.id, sessionId };
}

/** When and where a family gets its kits: by its round, before one is planned by what is usual, or at the table. */
function fetchingOf({ locked, programme, doors, rounds }: Doors, householdId: string, groupName: string | undefined) {
  const say = sayingOf(sayingFacts(programme));
  const group = locked.session.groups?.find(({ name }) => name === groupName);
  const { date, startsAt, place } = group ?? locked.session;
  const door = doors.find((each) => each.householdId === householdId);
  if (!door) {
    const time = say.time(startsAt);
    return { date, when: `from ${time}`, where: place, words: NEWS.atTable(say.shortDate(date), time, place) };
  }
  const where = 'at your door';
  for (const round of rounds) {
    const stop = round.stops.find((each) => each.householdId === householdId);
    if (!stop) continue;
    const when = sayToldSpan(stop.begins, say);
    return { date: round.date, when, where, words: NEWS.atDoor(say.shortDate(round.date), when) };
  }
  // The hour of the class says nothing of when a kit comes: one for a class on screen comes before it.
  const { from, to } = usualSpan([door], { startsAt });
  const span = saySpan(from, to, say);
  return { date, when: `as it looks now ${span}`, where, words: NEWS.atDoorSoon(say.shortDate(date), span) };
}

/** What a family sees of its kit: when and where, what is in it, and what it said. */
export async function viewOwnKit({ context, householdId, sessionId }: OwnKit) {
  const { db } = context.store;
  const loaded = await loadDoors(context, sessionId, db, householdId);
  const { locked, programme, people, now } = loaded;
  const kits = locked.kits.filter(({ enrolmentId }) => people.some(({ id }) => id === enrolmentId));
  if (kits.length === 0) throw GONE;
  const words = await find(db, db.models.kitWord, { sessionId, enrolmentId: kits.map((kit) => kit.enrolmentId) }, [
    ['at', 'ASC'],
    ['id', 'ASC'],
  ]);
  const said = words.filter(({ word }) => word === 'confirmed' || word === 'later').at(-1);
  const { date, when, where } = fetchingOf(loaded, householdId, kits[0]?.group);
  return {
    programme: programme.name,
    says: sayingFacts(programme),
    title: locked.session.title,
    date,
    when,
    where,
    isOver: date < todayIn(context, programme.timeZone),
    dishes: locked.content.input.dishes.map(({ title }) => title),
    kits: kits.map(({ id, name, variant }) => {
      const own = locked.content.variants.find(({ letter }) => letter === variant);
      return {
        name,
        state: (now.get(id) ?? STILL_HERE).state,
        inside: (own?.components ?? [])
          .filter(({ isInside }) => !isInside)
          .map(({ say, name: food }) => sayNamed(say, food)),
      };
    }),
    said: said ? { word: said.word, note: said.note } : null,
    cardSent: words.some(({ word }) => word === 'card'),
  };
}

const wordOf = z.object({
  word: z.enum(['confirmed', 'later', 'card']),
  note: z.string().trim().max(200, 'At most 200 characters.').default(''),
});

/** Keeps what a family says of its kit; the card goes out to where the family is reached. */
export const sayOfKit = ({ context, householdId, sessionId }: OwnKit, sent: unknown): Promise<string> =>
  context.store.transaction(async (db) => {
    const reading = wordOf.safeParse(sent);
    if (!reading.success)
      throw new ServiceError('invalid', reading.error.issues[0]?.message ?? 'Nothing was saved yet.', [
        { where: 'note', message: reading.error.issues[0]?.message ?? '' },
      ]);
    const { word, note } = reading.data;
    if (word === 'later' && note === '')
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'note', message: 'When, or where, would it suit you?' },
      ]);
    const { locked } = await loadLocked(context, sessionId, db);
    const people = await find(db, db.models.enrolment, { householdId });
    const kits = locked.kits.filter(({ enrolmentId }) => people.some(({ id }) => id === enrolmentId));
    const home = await findOne(db, db.models.household, { id: householdId, erasedAt: null });
    if (kits.length === 0 || !home) throw GONE;
    await insert(
      db,
      db.models.kitWord,
      kits.map(({ enrolmentId }) => ({ id: context.ids(), sessionId, enrolmentId, word, note, at: nowOf(context) })),
    );
    await logChange(context, db, `family: ${word}`, 'session', sessionId, {});
    if (word !== 'card')
      return word === 'confirmed' ? 'Thank you: we count on you.' : 'Thank you. We will be in touch.';
    if (home.contact === '') throw new ServiceError('invalid', 'We do not know where to send it: ask the coordinator.');
    await queueMessage(context, db, home.programmeId, {
      sentTo: home.contact,
      subject: `The recipe: ${locked.session.title}`.slice(0, 190),
      body: cardOf(
        locked,
        kits.map(({ variant }) => variant),
        (await loadSessionBundles(db, home.programmeId, { ids: [sessionId] }))[0]?.dishes ?? [],
      ),
      householdId,
    });
    return 'It is on its way to you.';
  });

/** The recipe of a kit as text: what is in it, how it is cooked with what this family got, and what to mind. */
function cardOf(locked: LockedSheet, letters: readonly string[], cooked: readonly DishWithRecipe[]): string {
  const { dishes } = locked.content.input;
  const own = locked.content.variants
    .filter(({ letter }) => letters.includes(letter))
    .flatMap((each) => each.components ?? []);
  return dishes
    .map(({ id, title }, dish) => {
      const inside = own.filter(({ row }) => locked.content.rows[row]?.dish === dish);
      const recipe = cooked.find((each) => each.id === id)?.body;
      const swaps = inside.flatMap(({ ingredient, row }) => {
        const line = recipe?.lines.find(({ alternatives = [] }) =>
          alternatives.some((each) => !('omit' in each) && each.ingredient === ingredient),
        );
        const swap = line?.alternatives?.find((each) => !('omit' in each) && each.ingredient === ingredient);
        if (!line || !swap || 'omit' in swap || locked.content.rows[row]?.name.startsWith(ingredient)) return [];
        return [`Your kit has ${ingredient} instead of ${line.ingredient}.${swap.step ? ` ${swap.step}` : ''}`];
      });
      const steps = (recipe?.steps ?? []).map((step, at) => `${at + 1}. ${step}`);
      const minds = cautionSentences(
        cautionsOf(
          inside.map(({ ingredient }) => ingredient),
          recipe?.steps ?? [],
        ),
      );
      return [
        title,
        [...new Set(inside.map(({ say, name }) => `- ${sayNamed(say, name)}`))].join('\n'),
        [...new Set(swaps)].join('\n'),
        steps.join('\n'),
        minds.join(' '),
      ]
        .filter(Boolean)
        .join('\n\n');
    })
    .join('\n\n');
}

export const tellFamilies = service({
  title: 'Write to the families when and where they get their kits',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: (context, { sessionId }) =>
    context.store.transaction(async (db) => {
      const loaded = await loadDoors(context, sessionId, db);
      const { locked, programme, people, homes, now } = loaded;
      const say = sayingOf(sayingFacts(programme));
      const news: KitNews = { sessionId, title: locked.session.title, programme: programme.name, say };
      const unreached: string[] = [];
      let told = 0;
      for (const home of homes) {
        const own = locked.kits.filter(({ enrolmentId }) =>
          people.some((person) => person.id === enrolmentId && person.householdId === home.id),
        );
        if (own.every(({ id }) => (now.get(id) ?? STILL_HERE).state === 'gone')) continue;
        const { words } = fetchingOf(loaded, home.id, own[0]?.group);
        const family = { householdId: home.id, name: home.name, contact: home.contact };
        if (await tellFamily(context, db, family, news, 'Your kit', words)) told++;
        else unreached.push(home.name);
      }
      await logChange(context, db, 'wrote to the families', 'session', sessionId, { told });
      return { told, unreached };
    }),
});
