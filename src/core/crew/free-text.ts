import { minutesOf, timeOf, WEEKDAY_NAMES, type Weekday } from '../plan/civil';
import { readDate, readTime } from '../plan/manner';
import type { FreeTimes } from './crew-case';

/** Where somebody writes a day without hours. */
const WHOLE_DAY = { from: 8 * 60, to: 22 * 60 };
const ALL_DAY = { from: 0, to: 24 * 60 };

const DAYS: readonly (readonly [words: RegExp, weekdays: readonly Weekday[]])[] = [
  [/^(?:every ?day|daily|all week|any ?day)$/, [1, 2, 3, 4, 5, 6, 7]],
  [/^(?:week ?days?|working days?)$/, [1, 2, 3, 4, 5]],
  [/^week-?ends?$/, [6, 7]],
];

/** The weekday that a word is, or begins: "thu", "thurs", "Thursdays". */
function weekdayOf(word: string): Weekday | undefined {
  const name = word.trim().toLowerCase().replace(/\.$/, '').replace(/s$/, '');
  const at = WEEKDAY_NAMES.findIndex((each) => each.toLowerCase().startsWith(name));
  return name.length < 2 || at < 0 ? undefined : ((at + 1) as Weekday);
}

/** "Mon-Fri", "Tue and Thu", "weekends". */
function weekdaysIn(text: string): Weekday[] | undefined {
  const words = text.trim().toLowerCase();
  const known = DAYS.find(([each]) => each.test(words));
  if (known) return [...known[1]];
  const days: Weekday[] = [];
  for (const part of words.split(/\s*(?:,|\/|&|\+|\band\b)\s*/).filter(Boolean)) {
    const [first = '', last, more] = part.split(/\s*(?:-|–|\bto\b|\bthrough\b)\s*/);
    const [from, to] = [weekdayOf(first), last === undefined ? undefined : weekdayOf(last)];
    if (from === undefined || more !== undefined || (last !== undefined && to === undefined)) return undefined;
    for (let day = from; ; day = ((day % 7) + 1) as Weekday) {
      days.push(day);
      if (to === undefined || day === to) break;
    }
  }
  return days.length > 0 ? [...new Set(days)].sort() : undefined;
}

/** "14:00-18:00", "2 pm to 6 pm", "after 3pm", "until noon"; undefined for what is no span. */
function spanIn(text: string): { from: number; to: number } | undefined {
  const words = text
    .trim()
    .toLowerCase()
    .replace(/\bnoon\b/g, '12:00')
    .replace(/\bmidnight\b/g, '24:00');
  if (words === '' || /^(?:all|whole) day$/.test(words)) return WHOLE_DAY;
  const at = (time: string) => (time.trim() === '24:00' ? 24 * 60 : minutesIn(time));
  const after = /^(?:after|from)\s+(.+)$/.exec(words);
  if (after && !/(?:-|–|\bto\b|\buntil\b)/.test(after[1] ?? '')) {
    const from = at(after[1] ?? '');
    return from === undefined || from >= WHOLE_DAY.to ? undefined : { from, to: WHOLE_DAY.to };
  }
  const before = /^(?:before|until|till|to)\s+(.+)$/.exec(words);
  if (before) {
    const to = at(before[1] ?? '');
    return to === undefined || to <= WHOLE_DAY.from ? undefined : { from: WHOLE_DAY.from, to };
  }
  const [first = '', last = '', more] = words.replace(/^from\s+/, '').split(/\s*(?:-|–|\bto\b|\buntil\b|\btill\b)\s*/);
  if (more !== undefined) return undefined;
  // "2-6 pm": the half of the day is said once.
  const half = /[ap]\.?m\.?$/.exec(last.trim())?.[0];
  const start = half && !/[ap]\.?m\.?$/.test(first.trim()) ? startBefore(first, last, half) : at(first);
  const end = at(last);
  return start === undefined || end === undefined || start >= end ? undefined : { from: start, to: end };
}

const minutesIn = (time: string): number | undefined => {
  const plain = /^\d{1,2}$/.test(time.trim()) ? `${time.trim()}:00` : time;
  const read = readTime(plain, { clock: 24 });
  return read === undefined ? undefined : minutesOf(read);
};

/** "10-2 pm" begins in the morning, "2-6 pm" in the afternoon. */
function startBefore(first: string, last: string, half: string): number | undefined {
  const same = minutesIn(`${first} ${half}`);
  const end = minutesIn(last);
  return same !== undefined && end !== undefined && same < end ? same : minutesIn(`${first} am`);
}

/**
 * Free times as people write them, one a line or with semicolons between: "Thu 14:00-18:00; weekends after 10 am; not on 3 Dec 2026;
 * on 2026-12-05 9-12". Hours without "pm" are those of a clock of 24.
 *
 * @returns the times, or the first part that is none
 * @example
 * readFree('Tue, Thu 2-6 pm') //=> { free: { weekly: [{ weekday: 2, from: 840, to: 1080 }, { weekday: 4, from: 840, to: 1080 }], exceptions: [] } }
 */
export function readFree(text: string): { readonly free: FreeTimes } | { readonly unclear: string } {
  const weekly: FreeTimes['weekly'][number][] = [];
  const exceptions: FreeTimes['exceptions'][number][] = [];
  for (const part of text.split(/[;\n]/)) {
    const said = part.trim();
    if (said === '') continue;
    const dated = /^(not\s+|never\s+)?(?:on\s+)(.+)$/i.exec(said);
    const away = /^(?:not|away|never)\s+(?!on\b)(.+)$/i.exec(said);
    if (dated || away) {
      const isFree = !away && !dated?.[1];
      const found = dateAndSpan((dated?.[2] ?? away?.[1] ?? '').trim(), isFree);
      if (!found) return { unclear: said };
      exceptions.push({ ...found, isFree });
      continue;
    }
    const found = daysAndSpan(said);
    if (!found) return { unclear: said };
    weekly.push(...found.days.map((weekday) => ({ weekday, ...found.span })));
  }
  return { free: { weekly, exceptions } };
}

/** The longest beginning that is days, with the rest as hours. */
function daysAndSpan(text: string): { days: Weekday[]; span: { from: number; to: number } } | undefined {
  const words = text.split(/\s+/);
  for (let count = words.length; count > 0; count--) {
    const days = weekdaysIn(words.slice(0, count).join(' ').replace(/[,:]$/, ''));
    const span = days && spanIn(words.slice(count).join(' '));
    if (days && span) return { days, span };
  }
  return undefined;
}

function dateAndSpan(text: string, isFree: boolean): { date: string; from: number; to: number } | undefined {
  const words = text.split(/\s+/);
  for (let count = words.length; count > 0; count--) {
    const date = readDate(words.slice(0, count).join(' ').replace(/[,:]$/, ''));
    const rest = words.slice(count).join(' ');
    const span = date && (rest === '' && !isFree ? ALL_DAY : spanIn(rest));
    if (date && span) return { date, ...span };
  }
  return undefined;
}

const sayTime = (minutes: number) => (minutes === 24 * 60 ? '24:00' : timeOf(minutes));

const sayDay = (weekday: Weekday) => WEEKDAY_NAMES[weekday - 1]?.slice(0, 3) ?? '';

/** Free times as a text that is read back the same: "Mon-Fri 14:00-18:00; not on 2026-12-10". */
export function sayFree({ weekly, exceptions }: FreeTimes): string {
  const runs: { first: Weekday; last: Weekday; from: number; to: number }[] = [];
  for (const { weekday, from, to } of weekly) {
    const run = runs.at(-1);
    if (run && run.from === from && run.to === to && run.last + 1 === weekday) run.last = weekday;
    else runs.push({ first: weekday, last: weekday, from, to });
  }
  const isAllDay = ({ from, to }: { from: number; to: number }) => from === ALL_DAY.from && to === ALL_DAY.to;
  const hours = ({ from, to }: { from: number; to: number }) => `${sayTime(from)}-${sayTime(to)}`;
  return [
    ...runs.map((run) => `${sayDay(run.first)}${run.last === run.first ? '' : `-${sayDay(run.last)}`} ${hours(run)}`),
    ...exceptions.map((each) =>
      each.isFree || !isAllDay(each)
        ? `${each.isFree ? '' : 'not '}on ${each.date} ${hours(each)}`
        : `not on ${each.date}`,
    ),
  ].join('; ');
}
