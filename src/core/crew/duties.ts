import { groupJobKey } from '../countdown/jobs';
import type { Mode } from '../plan/mode';
import { sayCount } from '../quantity/say';
import type { SafetyProfile } from '../recipes/steps/safe-temperatures';
import { ADULT, type Heat, type StepPlan } from '../recipes/steps/step-plan';
import { type AdultsNeeded, adultsFor, type Risk, type StricterRatios } from './adults';

/** What somebody can do, or has shown; each may end on a day. */
export const SKILLS = [
  'lead',
  'background check',
  'food handler',
  'first aid',
  'driving',
  'knives',
  'heat',
  'fire',
  'camera',
] as const;
export type Skill = (typeof SKILLS)[number];

export const DUTY_KINDS = [
  'lead',
  'assistant',
  'knives',
  'heat',
  'fire',
  'raw meat',
  'chat',
  'shop',
  'receive',
  'cook',
  'pack',
  'drive',
  'set up',
  'wash up',
  'other',
] as const;
export type DutyKind = (typeof DUTY_KINDS)[number];

/** Something a session needs people for, with the working of its numbers. Times are civil minutes of a day. */
export interface PlannedDuty {
  /** Which duty of its session it is: its kind, with the group it is for; an id where somebody added it. */
  readonly key: string;
  readonly kind: DutyKind;
  readonly title: string;
  /** YYYY-MM-DD */
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly place: string;
  readonly people: number;
  readonly skills: readonly Skill[];
  /** What a place left empty weighs: a class without its lead is none. */
  readonly weight: number;
  /** Only an adult may have it. */
  readonly isAdult: boolean;
  readonly because: readonly string[];
}

/** A job of the session's countdown that people are needed for, as it is planned. */
export interface PlannedJob {
  readonly key: string;
  /** YYYY-MM-DD, and civil minutes of that day. */
  readonly date: string;
  readonly from: number;
  readonly minutes: number;
}

/** A session as its duties are counted from. */
export interface DutySession {
  readonly date: string;
  /** Civil minutes of the day. */
  readonly startsAt: number;
  readonly minutes: number;
  readonly place: string;
  readonly modes: readonly Mode[];
  /** Of who comes to the room, null where nobody wrote it. */
  readonly ages: readonly (number | null)[];
  /** Of who follows on a screen. */
  readonly agesOnScreen?: readonly (number | null)[];
  /** Steps of all its dishes that are done in class. */
  readonly steps: readonly (Pick<StepPlan, 'heat' | 'tools' | 'fromAge'> & { readonly text?: string })[];
  /** A raw animal food is handled in class. */
  readonly hasRawMeat: boolean;
  readonly isOutdoor: boolean;
  readonly jobs: readonly PlannedJob[];
  /** Doorsteps that kits are brought to. */
  readonly stops: number;
  /** The group that meets then, where there are several: '' for the first. */
  readonly groupId?: string;
  readonly groupName?: string;
  readonly profile: SafetyProfile;
  readonly stricter?: StricterRatios;
}

/** Longest that one packer should stand at a bench; what takes longer is shared. */
const LONGEST_PACKING = 90;
/** Stops that one driver makes before cold food has been on the road too long. */
const MOST_STOPS = 8;
const MINUTES_A_STOP = 12;
const SET_UP = 30;
const WASH_UP = 30;
const HOT: readonly Heat[] = ['hob', 'oven', 'grill', 'kettle', 'fire'];
export const isHot = (heat: Heat): boolean => HOT.includes(heat);

/** Duties in the room weigh by what goes wrong without them. */
export const WEIGHTS: Readonly<Record<DutyKind, number>> = {
  lead: 10,
  assistant: 6,
  knives: 5,
  heat: 6,
  fire: 8,
  'raw meat': 5,
  chat: 3,
  shop: 5,
  receive: 3,
  cook: 4,
  pack: 4,
  drive: 5,
  'set up': 2,
  'wash up': 1,
  other: 2,
};

/** What could cut or burn in a class. */
export const risksOf = ({ steps, isOutdoor }: Pick<DutySession, 'steps' | 'isOutdoor'>): Risk[] => [
  ...(steps.some(({ tools }) => tools.includes('knife')) ? (['knives'] as const) : []),
  ...(steps.some(({ heat }) => isHot(heat)) ? (['heat'] as const) : []),
  ...(isOutdoor || steps.some(({ heat }) => heat === 'fire') ? (['fire'] as const) : []),
];

/** What a class could do without, so that a station of it is needed no more. */
export const WITHOUT = ['heat', 'fire', 'knives', 'raw meat'] as const;
export type Without = (typeof WITHOUT)[number];

/**
 * A session as it would be with other dishes: none over heat, nothing cut with a knife, nothing raw.
 *
 * @example
 * sessionWithout({ steps: [], isOutdoor: false, hasRawMeat: true }, 'raw meat').hasRawMeat //=> false
 */
export function sessionWithout<Of extends Pick<DutySession, 'steps' | 'isOutdoor' | 'hasRawMeat'>>(
  session: Of,
  what: Without,
): Of {
  switch (what) {
    case 'heat':
      return { ...session, steps: session.steps.filter(({ heat }) => !isHot(heat)) };
    case 'fire':
      return { ...session, isOutdoor: false, steps: session.steps.filter(({ heat }) => heat !== 'fire') };
    case 'knives':
      return { ...session, steps: session.steps.filter(({ tools }) => !tools.includes('knife')) };
    case 'raw meat':
      return { ...session, hasRawMeat: false };
  }
}

/** Adults that a session's room needs; none where nobody comes to a room. */
export const adultsOf = (session: DutySession): AdultsNeeded | undefined =>
  isInRoom(session) ? adultsFor(session.ages, risksOf(session), session.profile, session.stricter) : undefined;

const isInRoom = ({ modes }: DutySession): boolean =>
  modes.some((mode) => mode === 'in person' || mode === 'demonstration');

/**
 * What a session needs people for, worked out of what is planned: the room by ages and steps, the rest by its jobs. Each with the
 * working of its numbers.
 */
export function dutiesOf(session: DutySession): PlannedDuty[] {
  const { groupId = '', groupName } = session;
  return [...classDuties(session), ...jobDuties(session)].map((duty) => ({
    ...duty,
    key: groupJobKey(duty.kind, groupId),
    title: groupName && !FOR_ALL.includes(duty.kind) ? `${duty.title}: ${groupName}` : duty.title,
  }));
}

/** Done once for all groups. */
const FOR_ALL: readonly DutyKind[] = ['shop', 'receive'];

type UnnamedDuty = Omit<PlannedDuty, 'key'>;

function classDuties(session: DutySession): UnnamedDuty[] {
  const { date, startsAt, minutes, place, modes, ages } = session;
  const isTaught = isInRoom(session) || modes.includes('live online');
  if (!isTaught) return [];
  const at = { date, from: startsAt, to: startsAt + minutes, place };
  const duty = (
    kind: DutyKind,
    title: string,
    skills: readonly Skill[],
    people: number,
    because: readonly string[],
    more: Partial<UnnamedDuty> = {},
  ): UnnamedDuty => ({
    kind,
    title,
    ...at,
    people,
    skills,
    weight: WEIGHTS[kind],
    isAdult: true,
    because,
    ...more,
  });
  // Whoever teaches or writes with children on a screen is checked as in a room.
  const hasChildren = [...ages, ...(session.agesOnScreen ?? [])].some((age) => age === null || age < ADULT);
  const checked: readonly Skill[] = hasChildren ? ['background check'] : [];
  const duties: UnnamedDuty[] = [duty('lead', 'Lead the class', ['lead', ...checked], 1, ['Every class has one.'])];
  if (modes.includes('live online'))
    duties.push(
      duty('chat', 'Read the chat and note who is there', ['camera', ...checked], 1, [
        'The class is on screen: whoever teaches cannot read along.',
      ]),
    );
  if (!isInRoom(session)) return duties;
  const { adults, because } = adultsOf(session) ?? { adults: 0, because: [] };
  const stations = stationsOf(session, checked, duty);
  duties.push(...stations);
  const there = 1 + stations.reduce((sum, { people }) => sum + people, 0);
  if (adults > there)
    duties.push(
      duty('assistant', 'Assist in class', checked, adults - there, [
        ...because,
        `${adults} adults in all; ${there} ${there === 1 ? 'is' : 'are'} there as lead and at the stations.`,
      ]),
    );
  duties.push(
    duty('set up', 'Set up the room', [], 1, [`${SET_UP} minutes before the class.`], {
      from: Math.max(0, startsAt - SET_UP),
      to: startsAt,
      isAdult: false,
    }),
    duty(
      'wash up',
      'Wash up and clear',
      [],
      ages.length > 12 ? 2 : 1,
      [`${sayCount(ages.length, 'person', 'people')} cook; from 13 on two wash up.`],
      { from: startsAt + minutes, to: startsAt + minutes + WASH_UP, isAdult: false },
    ),
  );
  return duties;
}

/** Adults at the stations where something cuts, burns, or is raw. */
function stationsOf(
  session: DutySession,
  checked: readonly Skill[],
  duty: (
    kind: DutyKind,
    title: string,
    skills: readonly Skill[],
    people: number,
    because: readonly string[],
  ) => UnnamedDuty,
): UnnamedDuty[] {
  const { steps, ages, hasRawMeat, isOutdoor } = session;
  const youngest = Math.min(...ages.map((age) => age ?? 0), ADULT);
  const risks = risksOf(session);
  const told = (wanted: (step: DutySession['steps'][number]) => boolean, what: string) => {
    const own = steps.filter(wanted);
    const from = Math.max(0, ...own.map(({ fromAge }) => fromAge));
    return from > youngest
      ? `${sayCount(own.length, 'step')} ${what}; somebody of ${youngest} comes, and they are for ${from === ADULT ? 'adults' : `those of ${from}`}.`
      : `${sayCount(own.length, 'step')} ${what}.`;
  };
  const stations: UnnamedDuty[] = [];
  if (risks.includes('fire'))
    stations.push(
      duty('fire', 'Watch the fire', ['fire', ...checked], 1, [
        isOutdoor
          ? 'Somebody stands at the fire all the time, and does nothing else.'
          : told(({ heat }) => heat === 'fire', 'over a fire'),
      ]),
    );
  else if (risks.includes('heat'))
    stations.push(
      duty('heat', 'Stand at the heat', ['heat', ...checked], 1, [told(({ heat }) => isHot(heat), 'over heat')]),
    );
  if (risks.includes('knives'))
    stations.push(
      duty('knives', 'Stand at the knives', ['knives', ...checked], 1, [
        told(({ tools }) => tools.includes('knife'), 'with a knife'),
      ]),
    );
  if (hasRawMeat)
    stations.push(
      duty('raw meat', 'Handle what is raw', ['food handler', ...checked], 1, [
        'Raw meat, poultry or fish: one person handles it, at a board of its own, and nothing else meanwhile.',
      ]),
    );
  return stations;
}

/** Jobs of the countdown that are duties of the crew, by the key of the job. */
const JOB_DUTIES: Readonly<Record<string, { kind: DutyKind; title: string; skills: readonly Skill[] }>> = {
  buying: { kind: 'shop', title: 'Shop', skills: ['driving'] },
  receive: { kind: 'receive', title: 'Receive and store', skills: ['food handler'] },
  'cook-ahead': { kind: 'cook', title: 'Make ready ahead', skills: ['food handler'] },
  packing: { kind: 'pack', title: 'Pack kits', skills: ['food handler'] },
};

/** The job of the countdown that each of these duties is. */
export const JOB_OF: ReadonlyMap<string, string> = new Map([
  ...Object.entries(JOB_DUTIES).map(([job, { kind }]) => [kind, job] as const),
  ['drive', 'deliver'],
]);

/**
 * The key of the job that a duty of a session is; undefined where it is none.
 *
 * @example
 * jobOfDuty('pack@g2') //=> 'packing@g2'
 */
export function jobOfDuty(key: string): string | undefined {
  const [kind = '', groupId = ''] = key.split('@');
  const job = JOB_OF.get(kind);
  return job && groupJobKey(job, groupId);
}

/** People for the jobs of the countdown, at their planned times. */
function jobDuties({ jobs, place, stops, modes }: DutySession): UnnamedDuty[] {
  return jobs.flatMap(({ key, date, from, minutes }): UnnamedDuty[] => {
    if (key === 'deliver' && stops > 0 && modes.includes('live online')) {
      const people = Math.ceil(stops / MOST_STOPS);
      const each = Math.ceil(stops / people);
      return [
        {
          kind: 'drive',
          title: 'Bring kits to the doors',
          date,
          from,
          to: from + each * MINUTES_A_STOP,
          place,
          people,
          skills: ['driving'],
          weight: WEIGHTS.drive,
          isAdult: true,
          because: [
            `${sayCount(stops, 'stop')}: at most ${MOST_STOPS} for a driver, about ${MINUTES_A_STOP} minutes each, so that cold food stays cold.`,
          ],
        },
      ];
    }
    const own = JOB_DUTIES[key];
    if (!own) return [];
    const people = own.kind === 'pack' || own.kind === 'cook' ? Math.max(1, Math.ceil(minutes / LONGEST_PACKING)) : 1;
    const each = Math.ceil(minutes / people);
    return [
      {
        ...own,
        date,
        from,
        to: from + each,
        place,
        people,
        weight: WEIGHTS[own.kind],
        isAdult: own.kind === 'shop',
        because: [
          people === 1
            ? `${sayCount(minutes, 'minute')} by the countdown.`
            : `${sayCount(minutes, 'minute')} by the countdown: ${people} pairs of hands, so that nobody stands longer than ${LONGEST_PACKING} minutes.`,
        ],
      },
    ];
  });
}
