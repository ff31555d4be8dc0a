/**
 * What can happen to a kit once it is packed: it goes to somebody, nobody is there for it, it comes back, or what was said of it
 * was a slip. Equipment goes along and is brought back.
 */
export const HANDINGS = ['handed', 'not there', 'came back', 'undone', 'lent', 'brought back'] as const;
export type Handing = (typeof HANDINGS)[number];

/** One thing that happened to a kit. Its id was made by the sender, so that sending it twice changes nothing. */
export interface HandEvent {
  readonly id: string;
  readonly kitId: string;
  readonly what: Handing;
  /** Who took it; '' for whom it is for. */
  readonly who: string;
  /** What was lent or brought back; of `undone` the id of what is taken back. */
  readonly item: string;
  /** Order of the events of one session, from 1. */
  readonly seq: number;
  /** ISO instant. */
  readonly at: string;
}

/** Where a kit is. */
export interface HandedNow {
  readonly state: 'here' | 'gone' | 'not there' | 'came back';
  /** What brought it there; none while it is here. */
  readonly by: HandEvent | undefined;
  /** What was said of it after it had gone, by somebody who did not know: two phones, one kit. */
  readonly against: readonly HandEvent[];
}

export const STILL_HERE: HandedNow = { state: 'here', by: undefined, against: [] };

/**
 * Where each kit is, after all events in order. The first phone that hands a kit out has it: what a second says of it stands
 * beside it, to be looked into, until one of the two is taken back.
 *
 * @example
 * handedNow([{ id: 'a', kitId: 'k', what: 'handed', who: '', item: '', seq: 1, at: '2026-03-02T16:00:00Z' }]).get('k')?.state //=> 'gone'
 */
export function handedNow(events: readonly HandEvent[]): ReadonlyMap<string, HandedNow> {
  const inOrder = [...events].sort((a, b) => a.seq - b.seq);
  const undone = new Set(inOrder.flatMap(({ what, item }) => (what === 'undone' ? [item] : [])));
  const now = new Map<string, HandedNow>();
  for (const event of inOrder) {
    const { id, kitId, what } = event;
    if (undone.has(id) || what === 'undone' || what === 'lent' || what === 'brought back') continue;
    const before = now.get(kitId) ?? STILL_HERE;
    if (before.state === 'gone' && what !== 'came back')
      now.set(kitId, { ...before, against: [...before.against, event] });
    else now.set(kitId, { state: STATES[what], by: event, against: before.against });
  }
  return now;
}

const STATES = { handed: 'gone', 'not there': 'not there', 'came back': 'came back' } as const;

/** Equipment that somebody has, each with how many. @param events of all sessions, oldest first */
export function lentNow(events: readonly Pick<HandEvent, 'id' | 'what' | 'item'>[]): ReadonlyMap<string, number> {
  const undone = new Set(events.flatMap(({ what, item }) => (what === 'undone' ? [item] : [])));
  const lent = new Map<string, number>();
  for (const { id, what, item } of events) {
    if (undone.has(id) || (what !== 'lent' && what !== 'brought back')) continue;
    const left = (lent.get(item) ?? 0) + (what === 'lent' ? 1 : -1);
    if (left > 0) lent.set(item, left);
    else lent.delete(item);
  }
  return lent;
}
