import { describe, expect, it } from 'vitest';
import { dateOf } from './civil';
import { readDate, readTime, USUAL_MANNERS, writeDate, writeTime } from './manner';

const { uk, us } = USUAL_MANNERS;

describe('a date', () => {
  it('is said so that it cannot be taken for another, and is read again as it was', () => {
    expect([writeDate('2026-11-05', uk), writeDate('2026-11-05', us)]).toEqual(['5 Nov 2026', 'Nov 5, 2026']);
    for (let day = 20_000; day < 21_500; day += 13)
      for (const manner of [uk, us]) expect(readDate(writeDate(dateOf(day), manner))).toBe(dateOf(day));
  });

  it.each([
    ['5/11/2026', '2026-11-05', '2026-05-11'],
    ['5.11.26', '2026-11-05', '2026-05-11'],
    ['Thursday, 5th November 2026', '2026-11-05', '2026-11-05'],
    ['Sept 3 2026', '2026-09-03', '2026-09-03'],
    ['2026-2-9', '2026-02-09', '2026-02-09'],
    ['1/2', '2027-02-01', '2027-01-02'],
    ['3 Dec', '2026-12-03', '2026-12-03'],
    ['25/12/2026', '2026-12-25', undefined],
  ])('written as %s is read in the manner of the programme', (text, day, month) => {
    expect([readDate(text, uk, '2026-11-28'), readDate(text, us, '2026-11-28')]).toEqual([day, month]);
  });

  it.each(['30 Feb 2026', '2026-13-01', '0/1/2026', 'soon', '', '5 Nox 2026'])(
    'that no calendar has is none: %s',
    (text) => {
      expect(readDate(text, uk, '2026-11-28')).toBeUndefined();
    },
  );

  it('with its month in figures means nothing where nobody says in which order', () => {
    expect(readDate('5/11/2026')).toBeUndefined();
  });
});

describe('a time', () => {
  it('is said by the clock of the programme, and is read again as it was', () => {
    expect(['00:00', '09:05', '12:00', '16:30'].map((time) => writeTime(time, us))).toEqual([
      '12:00 am',
      '9:05 am',
      '12:00 pm',
      '4:30 pm',
    ]);
    for (let minute = 0; minute < 1440; minute += 7) {
      const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
      for (const manner of [uk, us]) expect(readTime(writeTime(time, manner), manner)).toBe(time);
    }
  });

  it.each([
    ['9', '09:00', undefined],
    ['4:30', '04:30', undefined],
    ['4.30pm', '16:30', '16:30'],
    ['12 a.m.', '00:00', '00:00'],
    ['16h30', '16:30', '16:30'],
    ['7 P', '19:00', '19:00'],
    ['24:00', undefined, undefined],
    ['9:75', undefined, undefined],
    ['13 pm', undefined, undefined],
    ['noon', undefined, undefined],
  ])('written as %s is not guessed on a clock of twelve hours', (text, by24, by12) => {
    expect([readTime(text, uk), readTime(text, us)]).toEqual([by24, by12]);
  });
});
