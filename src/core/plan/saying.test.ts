import { describe, expect, it } from 'vitest';
import { USUAL_MANNERS } from './manner';
import { sayingOf } from './saying';

const us = sayingOf({ manner: USUAL_MANNERS.us, currency: 'USD', timeZone: 'America/Chicago' });
const uk = sayingOf({ manner: USUAL_MANNERS.uk, currency: 'GBP', timeZone: 'Europe/London' });

describe('what a programme says', () => {
  it.each([
    ['Not before Thu 26 Nov, 09:30: it keeps about 5 days.', 'Not before Thu, Nov 26, 9:30 am: it keeps about 5 days.'],
    ['Use by Thu 26 Nov 2026.', 'Use by Thu, Nov 26, 2026.'],
    ['Free 07:00 to 21:00, not on 2026-12-10.', 'Free 7:00 am to 9:00 pm, not on Dec 10, 2026.'],
    ['Line 3: “not on 2026-12-10 16:00” is not understood.', 'Line 3: “not on 2026-12-10 16:00” is not understood.'],
    ['Move “Fri 4 Dec party” to Sat 5 Dec, 16:00', 'Move “Fri 4 Dec party” to Sat, Dec 5, 4:00 pm'],
    ['1:16:00 is no time of day, nor 2.16:00', '1:16:00 is no time of day, nor 2.16:00'],
  ])('of a sentence of the core: %s', (plain, said) => {
    expect([uk.text(plain), us.text(plain)]).toEqual([plain.replace('2026-12-10.', '10 Dec 2026.'), said]);
  });

  it('of several days, with a year where it is not the same', () => {
    expect(us.span('2026-12-19', '2026-12-20')).toBe('Sat, Dec 19 to Sun, Dec 20, 2026');
    expect(uk.span('2026-12-28', '2027-01-08')).toBe('Mon 28 Dec 2026 to Fri 8 Jan 2027');
    expect(us.span('2026-12-23', '2026-12-23')).toBe('Wed, Dec 23, 2026');
    expect(uk.month('2026-11')).toBe('November 2026');
  });
});
