import { describe, expect, it } from 'vitest';
import type { Weekday } from '../plan/civil';
import { readFree, sayFree } from './free-text';

const on = (days: readonly number[], from: number, to: number) =>
  days.map((weekday) => ({ weekday: weekday as Weekday, from: from * 60, to: to * 60 }));

describe('free times as people write them', () => {
  it.each([
    ['Thu 14:00-18:00', on([4], 14, 18)],
    ['Tue, Thu 2-6 pm', on([2, 4], 14, 18)],
    ['tuesdays and thursdays 10-2pm', on([2, 4], 10, 14)],
    ['Mon-Fri 9-17', on([1, 2, 3, 4, 5], 9, 17)],
    ['weekdays after 3pm', on([1, 2, 3, 4, 5], 15, 22)],
    ['Weekends', on([6, 7], 8, 22)],
    ['Sat all day', on([6], 8, 22)],
    ['fri until noon', on([5], 8, 12)],
    ['Fri–Sun from 10 am to 4 pm', on([5, 6, 7], 10, 16)],
    ['every day 18:00 – 21:00', on([1, 2, 3, 4, 5, 6, 7], 18, 21)],
    ['Sun-Tue 9-12', on([1, 2, 7], 9, 12)],
    ['Wed 13:00-15:00; Wed 18-20', [...on([3], 13, 15), ...on([3], 18, 20)]],
    ['', []],
  ])('%j', (text, weekly) => {
    expect(readFree(text)).toEqual({ free: { weekly, exceptions: [] } });
  });

  it('with days on which it is otherwise', () => {
    expect(readFree('Thu 14-18\nnot on 3 Dec 2026\non 2026-12-05 9-12; away 10 Dec 2026 14:00-16:00')).toEqual({
      free: {
        weekly: on([4], 14, 18),
        exceptions: [
          { date: '2026-12-03', from: 0, to: 1440, isFree: false },
          { date: '2026-12-05', from: 540, to: 720, isFree: true },
          { date: '2026-12-10', from: 840, to: 960, isFree: false },
        ],
      },
    });
  });

  it.each(['Thu 18-14', 'Thursdayish', 'sometimes', 'Thu 25:00-26:00', 'on 30 Feb 2026', 'Thu 14-18-20', 'Thu 14'])(
    'says which part is none: %j',
    (text) => {
      expect(readFree(`Mon 9-12; ${text}`)).toEqual({ unclear: text });
    },
  );

  it('are said so that they are read back the same', () => {
    for (let seed = 1; seed < 300; seed++) {
      const from = 1 + ((seed * 37) % 1300);
      const free = {
        weekly: Array.from({ length: 1 + (seed % 4) }, (_, at) => ({
          weekday: (((seed + at) % 7) + 1) as Weekday,
          from: from - (at === 2 ? 1 : 0),
          to: Math.min(1440, from + 1 + ((seed * 53) % 400)),
        })),
        exceptions: [
          {
            date: `2026-12-${String((seed % 28) + 1).padStart(2, '0')}`,
            from: 0,
            to: seed % 2 ? 1440 : 600,
            isFree: seed % 3 === 0,
          },
        ],
      };
      expect(readFree(sayFree(free))).toEqual({ free });
    }
  });
});
