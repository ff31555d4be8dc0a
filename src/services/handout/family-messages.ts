import { toldSpan } from '@/core/handout/doors/on-the-road';
import type { Saying } from '@/core/plan/saying';
import { find } from '@/store/query';
import type { Db } from '@/store/store';
import { makeLink } from '../access/links';
import type { Context } from '../gate/gate';
import { nowOf } from '../gate/gate';
import { LINK_PLACE } from '../messages/link-place';
import { queueMessage } from '../messages/messages';

/** A family's page of its kit works so many days. */
const LINK_DAYS = 21;

/** A family as a message reaches it. */
export interface ReachedFamily {
  readonly householdId: string;
  readonly name: string;
  readonly contact: string;
}

export interface KitNews {
  readonly sessionId: string;
  readonly title: string;
  readonly programme: string;
  readonly say: Saying;
}

/** The link to a family's page of its kit; the one it has, while it works. @returns its id */
export async function familyLink(context: Context, db: Db, householdId: string, sessionId: string): Promise<string> {
  const { programmeId, id: createdBy } = context.actor;
  const links = await find(db, db.models.accessLink, { householdId, sessionId, purpose: 'family', usedAt: null });
  const open = links.find(({ expiresAt }) => expiresAt > nowOf(context));
  if (open) return open.id;
  const link = {
    programmeId,
    purpose: 'family' as const,
    email: '',
    role: null,
    memberId: null,
    householdId,
    sessionId,
  };
  return (await makeLink(context, db, { ...link, createdBy }, LINK_DAYS * 24)).id;
}

/** "between 4:30 pm and 5:05 pm", of minutes of the day */
export const saySpan = (from: number, to: number, { time }: Saying): string => `between ${time(from)} and ${time(to)}`;

/** What a family is told of the minute at which its door is reached. */
export const sayToldSpan = (begins: number, say: Saying): string => {
  const { from, to } = toldSpan(begins);
  return saySpan(from, to, say);
};

/**
 * Queues a message to a family about its kit, in the transaction of what it tells about, with its page behind a link.
 *
 * @returns false where nobody wrote how it is reached: it is called instead
 */
export async function tellFamily(
  context: Context,
  db: Db,
  { householdId, name, contact }: ReachedFamily,
  { sessionId, title, programme }: KitNews,
  subject: string,
  words: string,
  asks = 'Say that somebody will be there, or that you need it later:',
): Promise<boolean> {
  if (contact === '') return false;
  const linkId = await familyLink(context, db, householdId, sessionId);
  const page = `${asks}\n${context.address}/kit/${LINK_PLACE}`;
  await queueMessage(context, db, context.actor.programmeId, {
    sentTo: contact,
    subject: `${subject}: ${title}`.slice(0, 190),
    body: [`Hello ${name},`, words, page, programme].join('\n\n'),
    householdId,
    linkId,
  });
  return true;
}

/** What a family is told of its kit. Days and times are written in the programme's manner. */
export const NEWS = {
  onTheWay: (span: string) =>
    `your kit has left the kitchen and is with you ${span}. What is cold in it goes into your fridge at once.`,
  late: (span: string) => `your kit is on its way and comes later than we said: ${span}. We are sorry.`,
  atDoor: (day: string, span: string) =>
    `your kit is brought to your door on ${day}, ${span}. Somebody has to be there to take it: what is cold in it goes into your fridge at once.`,
  atDoorSoon: (day: string, span: string) =>
    `your kit is brought to your door on ${day}, as it looks now ${span}. We write again when we know the hour.`,
  atTable: (day: string, time: string, place: string) =>
    `your kit is handed out on ${day} from ${time}: ${place}. Bring a bag, and something to keep it cold on the way.`,
} as const;
