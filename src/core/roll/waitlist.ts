/** How somebody stands to a course. */
export const ROLL_STATUSES = ['applied', 'enrolled', 'waitlisted', 'withdrawn'] as const;
export type RollStatus = (typeof ROLL_STATUSES)[number];

/** Who gets a place that becomes free: who waits longest, whose brother or sister is in, or whose family has none yet. */
export const WAITLIST_RULES = ['first come', 'siblings first', 'new families first'] as const;
export type WaitlistRule = (typeof WAITLIST_RULES)[number];

/** One person of a roll as places are counted. */
export interface Place {
  readonly id: string;
  readonly householdId: string;
  readonly status: RollStatus | 'erased';
  /** The group they come with; null for the first, and where there is only one. */
  readonly groupId: string | null;
  /** Civil date since which the status holds; null sorts first. */
  readonly since: string | null;
  /** How they take part; null: as each session is given. */
  readonly mode: string | null;
}

/** The most people that come in a mode of their own; a mode left out has no limit. */
export type ModeRoom = Readonly<Partial<Record<string, number>>>;

/** How full a mode is that has a limit. */
export interface ModePlaces {
  readonly mode: string;
  readonly enrolled: number;
  readonly room: number;
}

/** How full each mode is that has a limit. Who takes part as the session is given counts for none. */
export const modePlaces = (people: readonly Pick<Place, 'status' | 'mode'>[], modeRoom: ModeRoom): ModePlaces[] =>
  Object.entries(modeRoom).flatMap(([mode, room]) =>
    room === undefined
      ? []
      : [{ mode, room, enrolled: people.filter((each) => each.status === 'enrolled' && each.mode === mode).length }],
  );

/** The places of one group, or of a course that has only one. */
export interface Places {
  readonly groupId: string | null;
  /** null: no limit. */
  readonly free: number | null;
  /** More are enrolled than there is room for. */
  readonly over: number;
  /** Who waits, in the order of the rule; at last those whose mode is full. */
  readonly waiting: readonly string[];
  /** Who of them a free place goes to; undefined when their modes are all full. */
  readonly next: string | undefined;
}

/**
 * Places of a course by group, and who is next.
 *
 * @param capacity room in each group; null for no limit
 * @param groupIds of the groups beside the first
 * @param modeRoom room in each mode
 */
export function placesOf(
  people: readonly Place[],
  capacity: number | null,
  rule: WaitlistRule,
  groupIds: readonly string[] = [],
  modeRoom: ModeRoom = {},
): Places[] {
  const full = new Set(
    modePlaces(people, modeRoom).flatMap(({ mode, enrolled, room }) => (enrolled >= room ? [mode] : [])),
  );
  const isBlocked = ({ mode }: Place) => mode !== null && full.has(mode);
  const households = new Set(
    people.filter(({ status }) => status === 'enrolled').map(({ householdId }) => householdId),
  );
  const rank = ({ householdId }: Place): number => {
    if (rule === 'first come') return 0;
    return households.has(householdId) === (rule === 'siblings first') ? 0 : 1;
  };
  return [null, ...groupIds].map((groupId): Places => {
    const own = people.filter((person) => person.groupId === groupId);
    const enrolled = own.filter(({ status }) => status === 'enrolled').length;
    const waiting = own
      .filter(({ status }) => status === 'waitlisted')
      .sort(
        (a, b) =>
          Number(isBlocked(a)) - Number(isBlocked(b)) ||
          rank(a) - rank(b) ||
          (a.since ?? '').localeCompare(b.since ?? '') ||
          (a.id < b.id ? -1 : 1),
      );
    return {
      groupId,
      free: capacity === null ? null : Math.max(0, capacity - enrolled),
      over: capacity === null ? 0 : Math.max(0, enrolled - capacity),
      waiting: waiting.map(({ id }) => id),
      next: waiting.find((person) => !isBlocked(person))?.id,
    };
  });
}

/**
 * The message that offers a free place, as a draft: the coordinator reads it before it goes out.
 *
 * @example
 * offerDraft('Ada', 'Small Hands Kitchen', 'Marit').subject //=> 'A place in Small Hands Kitchen for Ada'
 */
export const offerDraft = (name: string, course: string, coordinator: string): { subject: string; body: string } => ({
  subject: `A place in ${course} for ${name}`,
  body: `Good news: a place in ${course} has become free, and ${name} is next on the list. It is yours.\n\nPlease answer within three days if you do not want it, so that the next family can have it. Tell us also if what ${name} must not eat has changed.\n\n${coordinator}`,
});
