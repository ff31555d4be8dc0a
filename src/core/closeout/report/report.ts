import { FACES } from '../../classday/tasting';
import type { ReportFacts, ReportSession, Seen } from './report-facts';
import { hideOne, hideSmall, type Shown } from './small-numbers';

/** What a figure counts, and how it is written. */
export type Unit = 'count' | 'percent' | 'hours' | 'money' | 'kilograms';

/** A figure with what each session brings to it. */
export interface Figure {
  readonly key: string;
  readonly section: Section;
  readonly label: string;
  readonly unit: Unit;
  /** Hours in minutes, money in minor units, weight in grams, a share in thousandths; null where nothing tells. */
  readonly value: number | null;
  /** Hidden, where it would tell of a child. */
  readonly hidden?: Exclude<Shown, number>;
  /** How it comes about, in a sentence. */
  readonly how: string;
  /** What each session brings; a share is of sums. Left out where sessions do not add up to it, or it is hidden. */
  readonly parts?: readonly { readonly sessionId: string; readonly value: number; readonly of?: number }[];
}

export const SECTIONS = ['People', 'Kits and food', 'Crew', 'Money', 'Safety'] as const;
export type Section = (typeof SECTIONS)[number];

/** Ages as funders ask for them. */
export const AGE_BANDS = [
  ['under 6', 0, 5],
  ['6 to 8', 6, 8],
  ['9 to 11', 9, 11],
  ['12 to 14', 12, 14],
  ['15 to 17', 15, 17],
  ['18 and over', 18, 200],
] as const;

const has = (seen: Seen, ...states: Seen[2]) => states.some((state) => seen[2].includes(state));
/** Whether somebody took part: they came, or fetched what they cook at home. */
const tookPart = (seen: Seen) => has(seen, 'came', 'collected', 'cooked');
const sum = <T>(all: readonly T[], of: (each: T) => number): number => all.reduce((total, each) => total + of(each), 0);
const count = (session: ReportSession, of: (seen: Seen) => boolean) => sum(session.seen, (seen) => (of(seen) ? 1 : 0));
const share = (part: number, whole: number): number | null => (whole === 0 ? null : Math.round((1000 * part) / whole));
const each = (value: number, by: number): number | null => (by === 0 ? null : Math.round(value / by));

/** A report: figures in the order in which they are read, each with its working. */
export function reportOf(facts: ReportFacts): Figure[] {
  const { sessions, people } = facts;
  const add = (of: (session: ReportSession) => number) => ({
    value: sum(sessions, of),
    parts: sessions.map((session) => ({ sessionId: session.id, value: of(session) })),
  });
  const ratio = (of: (session: ReportSession) => readonly [number, number]) => {
    const parts = sessions.map((session) => {
      const [value, whole] = of(session);
      return { sessionId: session.id, value, of: whole };
    });
    return {
      value: share(
        sum(parts, ({ value }) => value),
        sum(parts, ({ of: whole }) => whole),
      ),
      parts,
    };
  };
  /** So many different ones, each at the first session that has it. */
  const firstTimes = (of: (session: ReportSession) => readonly number[]) => {
    const known = new Set<number>();
    const parts = sessions.map((session) => {
      const before = known.size;
      for (const one of of(session)) known.add(one);
      return { sessionId: session.id, value: known.size - before };
    });
    return { value: known.size, parts };
  };
  const reached = new Set(sessions.flatMap(({ seen }) => seen.flatMap((one) => (tookPart(one) ? [one[0]] : []))));
  const ages = new Map(people.map(({ person, age }) => [person, age]));
  const placesTaken = add((session) => count(session, tookPart));
  const cost = sessions.filter(({ bought }) => bought !== null);
  const bought = sum(cost, (session) => session.bought ?? 0);
  const given = sum(cost, (session) => session.given);
  const kitsCosted = sum(cost, ({ kits }) => kits);
  const reachedThere = new Set(cost.flatMap(({ seen }) => seen.flatMap((one) => (tookPart(one) ? [one[0]] : []))));
  const estimated = cost.filter(({ isEstimated }) => isEstimated).length;
  const costHow = [
    cost.length < sessions.length ? `of ${cost.length} of ${sessions.length} sessions whose cost is known` : '',
    estimated === 0 ? 'as it was taken off the shelf' : 'as their recipes say',
    estimated > 0 && estimated < cost.length ? `for ${estimated}, the others as it was taken off the shelf` : '',
  ]
    .filter(Boolean)
    .join(' ');
  const money = (
    key: string,
    label: string,
    value: number | null,
    how: string,
    of?: (one: ReportSession) => number,
  ) => ({
    key,
    section: 'Money' as const,
    label,
    unit: 'money' as const,
    value,
    how,
    ...(of ? { parts: cost.map((session) => ({ sessionId: session.id, value: of(session) })) } : {}),
  });
  const figures: Figure[] = [
    {
      key: 'sessions',
      section: 'People',
      label: 'Sessions held',
      unit: 'count',
      ...add(() => 1),
      how: facts.cancelled > 0 ? `${facts.cancelled} more were cancelled` : 'none was cancelled',
    },
    {
      key: 'reached',
      section: 'People',
      label: 'People reached',
      unit: 'count',
      ...firstTimes(({ seen }) => seen.flatMap((one) => (tookPart(one) ? [one[0]] : []))),
      how: 'who came, fetched or cooked at least once; each counted once, at their first session, however many courses they are in',
    },
    ...agesOf([...reached].map((person) => ages.get(person) ?? null)),
    {
      key: 'places',
      section: 'People',
      label: 'Places taken',
      unit: 'count',
      ...placesTaken,
      how: 'who came, or fetched what they cook, counted at each session',
    },
    {
      key: 'attendance',
      section: 'People',
      label: 'Attendance',
      unit: 'percent',
      ...ratio((session) => {
        const yes = count(session, (one) => has(one, 'came') || (!has(one, 'absent') && has(one, 'collected')));
        const no = count(session, (one) => has(one, 'absent') || (!has(one, 'came') && has(one, 'not collected')));
        return [yes, yes + no];
      }),
      how: 'of those of whom it was noted whether they came, or fetched',
    },
    {
      key: 'contact',
      section: 'People',
      label: 'Contact hours',
      unit: 'hours',
      ...add((session) => session.minutes * count(session, (one) => has(one, 'came'))),
      how: 'minutes of each class times who came to it',
    },
    {
      key: 'cooked',
      section: 'People',
      label: 'Cooked at home',
      unit: 'percent',
      ...ratio((session) => {
        const yes = count(session, (one) => has(one, 'cooked'));
        return [yes, yes + count(session, (one) => has(one, 'not cooked'))];
      }),
      how: 'of the families who said whether they did',
    },
    {
      key: 'kits',
      section: 'Kits and food',
      label: 'Kits made',
      unit: 'count',
      ...add(({ kits }) => kits),
      how: 'of the locked kit sheets',
    },
    {
      key: 'servings',
      section: 'Kits and food',
      label: 'Servings',
      unit: 'count',
      ...add(({ seen }) => sum(seen, (one) => (tookPart(one) ? one[1] : 0))),
      how: 'of those who came, or fetched',
    },
    ...foodFigures(sessions),
    {
      key: 'tries',
      section: 'Kits and food',
      label: 'Foods tried',
      unit: 'count',
      ...hiddenSum(sessions, ({ tries }) => tries),
      how: 'times that a child is known to have tried a food, once a food and session',
    },
    ...votesFigures(sessions),
    {
      key: 'given food',
      section: 'Kits and food',
      label: 'Food given',
      unit: 'kilograms',
      value: facts.givenGrams,
      how: 'gifts that were taken in',
    },
    {
      key: 'lost food',
      section: 'Kits and food',
      label: 'Food lost',
      unit: 'kilograms',
      value: facts.lostGrams,
      how: 'what was thrown away',
    },
    {
      key: 'volunteers',
      section: 'Crew',
      label: 'Volunteers',
      unit: 'count',
      ...firstTimes(({ stays }) => stays.map(([crew]) => crew)),
      how: 'of the crew who were there at least once; each counted once, at their first session',
    },
    {
      key: 'volunteer hours',
      section: 'Crew',
      label: 'Hours of the crew',
      unit: 'hours',
      ...add(({ stays }) => sum(stays, ([, minutes]) => minutes)),
      how: 'from coming to going, as tapped at the door',
    },
    money(
      'bought',
      'Food bought',
      cost.length > 0 ? bought : null,
      `what was used, ${costHow}`,
      (one) => one.bought ?? 0,
    ),
    money(
      'given money',
      'Gifts are worth',
      cost.length > 0 ? given : null,
      'what they would have cost',
      (one) => one.given,
    ),
    money('kit cost', 'Cost of a kit', each(bought, kitsCosted), 'without gifts: food bought, by kits made'),
    money('kit worth', 'Worth of a kit', each(bought + given, kitsCosted), 'gifts counted as if bought'),
    money('person cost', 'Cost of a person reached', each(bought, reachedThere.size), 'without gifts'),
    money(
      'person worth',
      'Worth for a person reached',
      each(bought + given, reachedThere.size),
      'gifts counted as if bought',
    ),
    {
      key: 'incidents',
      section: 'Safety',
      label: 'Incidents',
      unit: 'count',
      ...hiddenSum(sessions, ({ incidents }) => incidents),
      how: 'somebody was hurt or unwell',
    },
  ];
  return figures;
}

/** A sum of what may tell of a child: hidden where it is small, and its sessions are not shown. */
function hiddenSum(sessions: readonly ReportSession[], of: (session: ReportSession) => number) {
  const shown = hideOne(sum(sessions, of));
  return typeof shown === 'number' ? { value: shown } : { value: null, hidden: shown };
}

const shownAs = (shown: Shown) => (typeof shown === 'number' ? { value: shown } : { value: null, hidden: shown });

function agesOf(ages: readonly (number | null)[]): Figure[] {
  const bands = [...AGE_BANDS.map(([label, from, to]) => ({ label: `aged ${label}`, from, to })), null].map((band) => ({
    label: band ? band.label : 'age not told',
    count: ages.filter((age) => (band ? age !== null && age >= band.from && age <= band.to : age === null)).length,
  }));
  const shown = hideSmall(bands.map(({ count: own }) => own));
  return bands.flatMap(({ label }, at) =>
    shown[at] === 0
      ? []
      : [
          {
            key: `reached ${label}`,
            section: 'People' as const,
            label: `… ${label}`,
            unit: 'count' as const,
            ...shownAs(shown[at] ?? 0),
            how: 'of the people reached; the age is that on the roll',
          },
        ],
  );
}

function votesFigures(sessions: readonly ReportSession[]): Figure[] {
  const votes = FACES.map((face) => sum(sessions, (session) => session.votes[face]));
  const shown = hideSmall(votes);
  return FACES.flatMap((face, at) =>
    shown[at] === 0
      ? []
      : [
          {
            key: `votes ${face}`,
            section: 'Kits and food' as const,
            label: `“${face[0]?.toUpperCase()}${face.slice(1)}”`,
            unit: 'count' as const,
            ...shownAs(shown[at] ?? 0),
            how: 'votes of those who tasted, as they said last',
          },
        ],
  );
}

/** Groups of food that a plate is made of, as people count them. */
export const FOOD_GROUPS = ['vegetable', 'fruit', 'whole grain', 'grain', 'protein', 'dairy'] as const;

/** Sessions in which each plate group was cooked, and how many vegetable families. */
function foodFigures(sessions: readonly ReportSession[]): Figure[] {
  const cooked = new Set(sessions.flatMap(({ plateGroups }) => plateGroups));
  const groups = FOOD_GROUPS.filter((group) => cooked.has(group));
  return [
    ...groups.map((group): Figure => {
      const own = sessions.filter(({ plateGroups }) => plateGroups.includes(group));
      return {
        key: `group ${group}`,
        section: 'Kits and food',
        label: `Sessions with ${group}`,
        unit: 'count',
        value: own.length,
        how: 'by the foods of its dishes',
        parts: own.map(({ id }) => ({ sessionId: id, value: 1 })),
      };
    }),
    {
      key: 'vegetable families',
      section: 'Kits and food',
      label: 'Vegetable families',
      unit: 'count',
      value: new Set(sessions.flatMap(({ vegetableFamilies }) => vegetableFamilies)).size,
      how: [...new Set(sessions.flatMap(({ vegetableFamilies }) => vegetableFamilies))].sort().join(', ') || 'none',
    },
  ];
}
