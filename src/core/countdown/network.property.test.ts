import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { civilOf, DAY, weekdayOf } from '../plan/civil';
import type { WorkHours } from '../stages/facts';
import { calculate, finishAfter, type Job, startBefore, workHours } from './network';

const CLASS = civilOf('2026-11-26', '16:00');
const CREW = workHours(
  'the crew',
  [
    { weekdays: [1, 2, 3], from: '09:00', to: '12:00' },
    { weekdays: [1, 2, 3, 4, 5], from: '13:00', to: '18:00' },
  ],
  new Set([civilOf('2026-11-24', '00:00') / DAY]),
);

/** Jobs in which each may wait for some of those before it; the last is the class. */
const jobs = (hours: WorkHours | null) =>
  fc
    .array(
      fc.record({
        minutes: fc.integer({ min: 0, max: 240 }),
        after: fc.array(fc.nat(8), { maxLength: 3 }),
        done: fc.boolean(),
      }),
      {
        minLength: 1,
        maxLength: 9,
      },
    )
    .map((list): Job[] => {
      const before = list.map(
        ({ minutes, after, done }, n): Job => ({
          key: `job ${n}`,
          title: `Job ${n}`,
          after: [...new Set(after)].filter((other) => other < n).map((other) => `job ${other}`),
          minutes,
          hours,
          done,
        }),
      );
      return [
        ...before,
        {
          key: 'class',
          title: 'Class',
          after: before.map(({ key }) => key),
          minutes: 90,
          hours: null,
          at: CLASS,
          done: false,
        },
      ];
    });

/** Whether each minute of work lies in working hours, by looking at every minute. */
function isWork(minute: number): boolean {
  const day = Math.floor(minute / DAY);
  if (CREW.closedDays.has(day)) return false;
  return (CREW.windows[weekdayOf(day) - 1] ?? []).some(
    ({ from, to }) => minute - day * DAY >= from && minute - day * DAY < to,
  );
}

describe('a network of jobs, whatever they are', () => {
  it('without hours has the latest starts that the longest way to the class gives', () => {
    fc.assert(
      fc.property(jobs(null), (list) => {
        const { timings } = calculate(list, CLASS - 10 * DAY);
        const toClass = (key: string): number => {
          const next = list.filter(({ after }) => after.includes(key) && key !== 'class');
          const own = list.find((job) => job.key === key)?.minutes ?? 0;
          return own + Math.max(0, ...next.filter((job) => job.key !== 'class').map((job) => toClass(job.key)));
        };
        for (const { key } of list.slice(0, -1)) expect(timings.get(key)?.latestStart).toBe(CLASS - toClass(key));
      }),
    );
  });

  it('done each at its latest, is done in order and in time', () => {
    fc.assert(
      fc.property(jobs(CREW), (list) => {
        const { timings } = calculate(list, CLASS - 20 * DAY);
        for (const job of list) {
          const own = timings.get(job.key);
          for (const key of job.after)
            expect(timings.get(key)?.latestFinish).toBeLessThanOrEqual(own?.latestStart ?? 0);
          if (job.at === undefined && own)
            expect(finishAfter(CREW, own.latestStart, job.minutes).finish).toBeLessThanOrEqual(own.latestFinish);
        }
      }),
    );
  });

  it('started in time is never late, and once the slack is used up always is', () => {
    fc.assert(
      fc.property(jobs(null), fc.integer({ min: 0, max: 3000 }), (list, waited) => {
        fc.pre(list.some(({ done, at }) => !done && at === undefined));
        const now = CLASS - 3 * DAY;
        const { slack } = calculate(list, now);
        const later = calculate(list, now + waited).slack;
        if (slack === null || later === null) throw new Error('Something is open.');
        expect(later).toBe(slack - waited);
      }),
    );
  });

  it('holds nobody up with what is done', () => {
    fc.assert(
      fc.property(jobs(CREW), (list) => {
        const { timings, chain } = calculate(list, CLASS - DAY);
        const isDone = new Set(list.filter(({ done }) => done).map(({ key }) => key));
        expect(chain.filter((key) => isDone.has(key))).toEqual([]);
        for (const job of list) {
          const open = job.after.filter((key) => !isDone.has(key));
          const ready = Math.max(CLASS - DAY, ...open.map((key) => timings.get(key)?.earliestFinish ?? 0));
          if (job.at === undefined) expect(timings.get(job.key)?.earliestStart).toBeGreaterThanOrEqual(ready);
        }
      }),
    );
  });
});

describe('work within hours, counted minute by minute', () => {
  const minutesOfWork = (from: number, to: number) => {
    let count = 0;
    for (let minute = from; minute < to; minute++) if (isWork(minute)) count++;
    return count;
  };

  it('that fits a window lies in one; what does not fills windows to the last minute', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 14 * DAY }), fc.integer({ min: 1, max: 900 }), (shift, minutes) => {
        const from = civilOf('2026-11-16', '00:00') + shift;
        const { start, finish } = finishAfter(CREW, from, minutes);
        expect(start).toBeGreaterThanOrEqual(from);
        expect(minutesOfWork(start, finish)).toBe(minutes);
        if (minutes <= CREW.longest) expect(finish - start).toBe(minutes);
      }),
      { numRuns: 60 },
    );
  });

  it('ends at the latest when it must, and could not have begun later', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 14 * DAY }), fc.integer({ min: 1, max: 900 }), (shift, minutes) => {
        const end = civilOf('2026-11-16', '00:00') + shift;
        const start = startBefore(CREW, end, minutes);
        expect(minutesOfWork(start, end)).toBeGreaterThanOrEqual(minutes);
        expect(isWork(start)).toBe(true);
        if (minutes > CREW.longest) expect(minutesOfWork(start + 1, end)).toBeLessThan(minutes);
      }),
      { numRuns: 60 },
    );
  });
});
