import type { ClassPlan } from './class-plan';

/** What can be said while a class runs. What is said is never changed: the newest word on a thing counts. */
export const CLASS_WORDS = [
  'begun',
  'not begun',
  'done',
  'not done',
  'ticked',
  'not ticked',
  'timer',
  'timer off',
  'temperature',
  'planned again',
  'swapped',
  'not swapped',
  'short',
  'wrong',
  'settled',
  'question',
  'answered',
  'asked',
  'has',
  'has not',
  'lacks',
] as const;
export type ClassWord = (typeof CLASS_WORDS)[number];

/** What goes with a word, as far as it needs it. */
export interface ClassValue {
  readonly text?: string | undefined;
  /** Who asked, in their own spelling. */
  readonly who?: string | undefined;
  readonly minutes?: number | undefined;
  /** Tenths of a degree Celsius. */
  readonly tenths?: number | undefined;
  readonly source?: 'typed' | 'probe' | undefined;
  /** A station, from 1. */
  readonly station?: number | undefined;
  /** Of what the recipe says, that was needed beside it. */
  readonly percent?: number | undefined;
  /** What stands in for a food; '' where it is left out, undefined for what its recipe has. */
  readonly instead?: string | undefined;
  /** How much of it, where it is not as much. */
  readonly amount?: string | undefined;
  readonly unit?: string | undefined;
  /** What somebody new in the room must avoid. */
  readonly avoid?: string | undefined;
  readonly plan?: ClassPlan | undefined;
}

export interface ClassEvent {
  readonly id: string;
  /** Its place in the order of its class, from 1. */
  readonly seq: number;
  readonly what: ClassWord;
  /** What it is about: a task, a line of a routine, a food, an earlier event; '' for the class itself. */
  readonly item: string;
  readonly enrolmentId: string | null;
  readonly value: ClassValue;
  /** ISO instant. */
  readonly at: string;
  /** Who said it. */
  readonly by: string;
}

/** How something stands, and who said so when. */
export interface SaidBy {
  readonly at: string;
  readonly by: string;
}

export interface ClassTimer extends SaidBy {
  readonly id: string;
  readonly item: string;
  readonly text: string;
  readonly minutes: number;
}

export interface InsideReading extends SaidBy {
  readonly tenths: number;
  readonly source: 'typed' | 'probe';
}

/** A class as it stands. */
export interface ClassNow {
  /** When the cooking began; undefined before. Pressed twice, the first counts. */
  readonly begun: SaidBy | undefined;
  readonly plan: ClassPlan | undefined;
  readonly done: ReadonlyMap<string, SaidBy>;
  readonly ticked: ReadonlyMap<string, SaidBy>;
  readonly timers: readonly ClassTimer[];
  readonly readings: ReadonlyMap<string, readonly InsideReading[]>;
  /** What is not as written today, and holds. */
  readonly swaps: readonly ClassEvent[];
  /** What ran short or was wrong; nobody has settled it where `settled` does not name it. */
  readonly troubles: readonly ClassEvent[];
  readonly settled: ReadonlySet<string>;
  readonly questions: readonly (ClassEvent & { readonly answer: string })[];
  /** What everybody was asked for, with those who have it. */
  readonly asked: readonly (ClassEvent & { readonly having: ReadonlySet<string> })[];
  /** What a family lacks, the newest word of each. */
  readonly lacks: ReadonlyMap<string, string>;
}

/**
 * A class as its events leave it.
 *
 * @param events in order
 */
export function classNow(events: readonly ClassEvent[]): ClassNow {
  let begun: SaidBy | undefined;
  let plan: ClassPlan | undefined;
  const done = new Map<string, SaidBy>();
  const ticked = new Map<string, SaidBy>();
  const timers = new Map<string, ClassTimer>();
  const readings = new Map<string, InsideReading[]>();
  const swaps = new Map<string, ClassEvent>();
  const troubles: ClassEvent[] = [];
  const settled = new Set<string>();
  const questions = new Map<string, ClassEvent & { answer: string }>();
  const asked = new Map<string, ClassEvent & { having: Set<string> }>();
  const lacks = new Map<string, string>();
  for (const event of events) {
    const { id, what, item, value, at, by, enrolmentId } = event;
    const said = { at, by };
    switch (what) {
      case 'begun':
        if (begun || !value.plan) break;
        begun = said;
        plan = value.plan;
        break;
      case 'not begun':
        // Begun by mistake: what was done of it stays, should it begin again.
        begun = undefined;
        plan = undefined;
        break;
      case 'planned again':
        plan = value.plan ?? plan;
        break;
      case 'done':
        if (!done.has(item)) done.set(item, said);
        break;
      case 'not done':
        done.delete(item);
        break;
      case 'ticked':
        if (!ticked.has(item)) ticked.set(item, said);
        break;
      case 'not ticked':
        ticked.delete(item);
        break;
      case 'timer':
        timers.set(id, { ...said, id, item, text: value.text ?? '', minutes: value.minutes ?? 0 });
        break;
      case 'timer off':
        timers.delete(item);
        break;
      case 'temperature':
        readings.set(item, [
          ...(readings.get(item) ?? []),
          { ...said, tenths: value.tenths ?? 0, source: value.source ?? 'typed' },
        ]);
        break;
      case 'swapped':
        swaps.set(id, event);
        break;
      case 'not swapped':
        swaps.delete(item);
        break;
      case 'short':
      case 'wrong':
        troubles.push(event);
        break;
      case 'settled':
        settled.add(item);
        break;
      case 'question':
        questions.set(id, { ...event, answer: '' });
        break;
      case 'answered': {
        const own = questions.get(item);
        if (own) own.answer = value.text ?? '';
        break;
      }
      case 'asked':
        asked.set(id, { ...event, having: new Set() });
        break;
      case 'has':
        asked.get(item)?.having.add(enrolmentId ?? '');
        break;
      case 'has not':
        asked.get(item)?.having.delete(enrolmentId ?? '');
        break;
      case 'lacks':
        if (value.text) lacks.set(enrolmentId ?? '', value.text);
        else lacks.delete(enrolmentId ?? '');
        break;
    }
  }
  return {
    begun,
    plan,
    done,
    ticked,
    timers: [...timers.values()],
    readings,
    swaps: [...swaps.values()],
    troubles,
    settled,
    questions: [...questions.values()],
    asked: [...asked.values()],
    lacks,
  };
}
