import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { civilOf, splitCivil } from './civil';
import { clockOf } from './clock';

const instant = (zone: string, date: string, time: string) =>
  new Date(clockOf(zone).toInstant(civilOf(date, time)) * 60_000).toISOString();

describe('the clock of a place', () => {
  it.each([
    ['America/New_York', '2026-10-29', '16:00', '2026-10-29T20:00:00.000Z'],
    ['America/New_York', '2026-11-05', '16:00', '2026-11-05T21:00:00.000Z'],
    ['Pacific/Auckland', '2026-09-26', '10:00', '2026-09-25T22:00:00.000Z'],
    ['Pacific/Auckland', '2026-09-28', '10:00', '2026-09-27T21:00:00.000Z'],
    ['Asia/Kathmandu', '2026-11-05', '16:00', '2026-11-05T10:15:00.000Z'],
  ])('in %s on %s at %s it is %s', (zone, date, time, expected) => {
    expect(instant(zone, date, time)).toBe(expected);
  });

  it.each([
    ['Europe/London', '2026-03-29', '01:30', 'missing'],
    ['Europe/London', '2026-03-29', '02:00', undefined],
    ['Europe/London', '2026-10-25', '01:30', 'twice'],
    ['Europe/London', '2026-10-25', '00:59', undefined],
    ['Australia/Sydney', '2026-10-04', '02:15', 'missing'],
    ['Australia/Sydney', '2026-04-05', '02:15', 'twice'],
    ['Australia/Lord_Howe', '2026-04-05', '01:45', 'twice'],
    ['Australia/Lord_Howe', '2026-04-05', '01:15', undefined],
  ])('in %s %s at %s is %s', (zone, date, time, expected) => {
    expect(clockOf(zone).oddity(civilOf(date, time))).toBe(expected);
  });

  it('agrees with the calendar library at every minute, in both directions', () => {
    const zones = ['America/New_York', 'Europe/London', 'Australia/Lord_Howe', 'Africa/Casablanca', 'America/Santiago'];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: civilOf('2024-01-01', '00:00'), max: civilOf('2030-01-01', '00:00') }),
        (zone, civil) => {
          const { date, time } = splitCivil(civil);
          const zoned = Temporal.PlainDateTime.from(`${date}T${time}`).toZonedDateTime(zone);
          const found = clockOf(zone).toInstant(civil);
          expect(found).toBe(zoned.epochMilliseconds / 60_000);
          expect(clockOf(zone).toCivil(found)).toBe(
            civilOf(zoned.toPlainDate().toString(), zoned.toPlainTime().toString().slice(0, 5)),
          );
        },
      ),
      { numRuns: 500 },
    );
  });
});
