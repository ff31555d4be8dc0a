// Calendar files as different kinds of programs write them: each is read to the same days and hours.
import { describe, expect, it } from 'vitest';
import { readCalendar } from './icalendar-in';

const WINDOW = { from: '2026-09-01', to: '2027-08-31' };
const NEW_YORK = `BEGIN:VTIMEZONE
TZID:America/New_York
BEGIN:DAYLIGHT
TZOFFSETFROM:-0500
TZOFFSETTO:-0400
TZNAME:EDT
DTSTART:19700308T020000
RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU
END:DAYLIGHT
BEGIN:STANDARD
TZOFFSETFROM:-0400
TZOFFSETTO:-0500
TZNAME:EST
DTSTART:19701101T020000
RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU
END:STANDARD
END:VTIMEZONE`;
/** A zone named as people say it, not by its IANA name. */
const EASTERN = NEW_YORK.replace('TZID:America/New_York', 'TZID:Eastern Standard Time');
const SYDNEY = `BEGIN:VTIMEZONE
TZID:Sydney
BEGIN:STANDARD
DTSTART:20080406T030000
TZOFFSETFROM:+1100
TZOFFSETTO:+1000
RRULE:FREQ=YEARLY;BYMONTH=4;BYDAY=1SU
END:STANDARD
BEGIN:DAYLIGHT
DTSTART:20081005T020000
TZOFFSETFROM:+1000
TZOFFSETTO:+1100
RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=1SU
END:DAYLIGHT
END:VTIMEZONE`;

const file = (...parts: string[]) =>
  new TextEncoder().encode(
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Quay school//EN', ...parts, 'END:VCALENDAR', '']
      .join('\r\n')
      .replace(/\r?\n/g, '\r\n'),
  );
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:closing@quay.example', ...lines, 'END:VEVENT'].join('\r\n');
const read = (timeZone: string, ...parts: string[]) => {
  const { closures, problems } = readCalendar(file(...parts), WINDOW, timeZone);
  expect(problems).toEqual([]);
  return closures.map(
    ({ from, to, hours }) => `${from}${to === from ? '' : ` to ${to}`}${hours ? ` ${hours.from}-${hours.to}` : ''}`,
  );
};

describe('one closing time, as different programs write it', () => {
  it.each([
    [
      'a school’s office: zone with its rules',
      NEW_YORK,
      ['DTSTART;TZID=America/New_York:20261029T130000', 'DTEND;TZID=America/New_York:20261029T150000'],
    ],
    [
      'a phone: zone by name only',
      '',
      ['DTSTART;TZID=America/New_York:20261029T130000', 'DTEND;TZID=America/New_York:20261029T150000'],
    ],
    [
      'an office suite: zone as people say it',
      EASTERN,
      ['DTSTART;TZID=Eastern Standard Time:20261029T130000', 'DTEND;TZID=Eastern Standard Time:20261029T150000'],
    ],
    [
      'an office suite: zone in quotes',
      EASTERN,
      ['DTSTART;TZID="Eastern Standard Time":20261029T130000', 'DTEND;TZID="Eastern Standard Time":20261029T150000'],
    ],
    ['a web calendar: in UTC', '', ['DTSTART:20261029T170000Z', 'DTEND:20261029T190000Z']],
    ['a script: with a duration', '', ['DTSTART:20261029T170000Z', 'DURATION:PT2H']],
    ['a spreadsheet: without a zone', '', ['DTSTART:20261029T130000', 'DTEND:20261029T150000']],
    [
      'a planner: with words around it',
      NEW_YORK,
      [
        'CLASS:PUBLIC',
        'TRANSP:OPAQUE',
        'X-PLANNER-COLOR:#00AA55',
        'DTSTART;TZID=America/New_York;VALUE=DATE-TIME:20261029T130000',
        'DTEND;TZID=America/New_York:20261029T150000',
        'BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:-PT15M\r\nDESCRIPTION:Soon\r\nEND:VALARM',
      ],
    ],
  ])('%s', (_, zone, lines) => {
    expect(read('America/New_York', ...(zone ? [zone] : []), event('SUMMARY:Hall closed', ...lines))).toEqual([
      '2026-10-29 13:00-15:00',
    ]);
  });
});

describe('one holiday, as different programs write it', () => {
  it.each([
    ['whole days', ['DTSTART;VALUE=DATE:20261221', 'DTEND;VALUE=DATE:20270104']],
    ['whole days as a duration', ['DTSTART;VALUE=DATE:20261221', 'DURATION:P2W']],
    ['from midnight to midnight', ['DTSTART:20261221T000000', 'DTEND:20270104T000000']],
    ['until a minute before midnight', ['DTSTART:20261221T000000', 'DTEND:20270103T235900']],
  ])('%s', (_, lines) => {
    expect(read('America/New_York', event('SUMMARY:Winter break', ...lines))).toEqual(['2026-12-21 to 2027-01-03']);
  });
});

describe('what repeats, across a clock change', () => {
  it('stays at its hour in the zone that it is written in', () => {
    const weekly = event(
      'SUMMARY:Assembly',
      'DTSTART;TZID=America/New_York:20261022T150000',
      'DURATION:PT1H',
      'RRULE:FREQ=WEEKLY;COUNT=3;BYDAY=TH',
    );
    expect(read('America/New_York', NEW_YORK, weekly)).toEqual([
      '2026-10-22 15:00-16:00',
      '2026-10-29 15:00-16:00',
      '2026-11-05 15:00-16:00',
    ]);
    // Seen from London the distance is four hours for the week between the two changes.
    expect(read('Europe/London', NEW_YORK, weekly)).toEqual([
      '2026-10-22 20:00-21:00',
      '2026-10-29 19:00-20:00',
      '2026-11-05 20:00-21:00',
    ]);
  });

  it('also on the other side of the world, where summer begins', () => {
    const weekly = event(
      'SUMMARY:Regatta',
      'DTSTART;TZID=Sydney:20260930T160000',
      'DTEND;TZID=Sydney:20260930T180000',
      'RRULE:FREQ=WEEKLY;UNTIL=20261014T235959Z',
    );
    expect(read('Australia/Sydney', SYDNEY, weekly)).toEqual([
      '2026-09-30 16:00-18:00',
      '2026-10-07 16:00-18:00',
      '2026-10-14 16:00-18:00',
    ]);
    expect(read('UTC', SYDNEY, weekly)).toEqual([
      '2026-09-30 06:00-08:00',
      '2026-10-07 05:00-07:00',
      '2026-10-14 05:00-07:00',
    ]);
  });

  it.each([
    [
      'on the last Friday of each month',
      'RRULE:FREQ=MONTHLY;BYDAY=-1FR;COUNT=3',
      '20260925',
      ['2026-09-25', '2026-10-30', '2026-11-27'],
    ],
    [
      'every second week',
      'RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=3',
      '20260904',
      ['2026-09-04', '2026-09-18', '2026-10-02'],
    ],
    ['every year, leap day', 'RRULE:FREQ=YEARLY', '20240229', []],
    [
      'every month, on a day that not all have',
      'RRULE:FREQ=MONTHLY;COUNT=3',
      '20261031',
      ['2026-10-31', '2026-12-31', '2027-01-31'],
    ],
    [
      'without one of its days',
      'RRULE:FREQ=DAILY;COUNT=4\r\nEXDATE;VALUE=DATE:20260906',
      '20260904',
      ['2026-09-04', '2026-09-05', '2026-09-07'],
    ],
    ['on two more days', 'RDATE;VALUE=DATE:20260910,20260914', '20260904', ['2026-09-04', '2026-09-10', '2026-09-14']],
  ])('%s', (_, rule, start, expected) => {
    expect(
      read('Europe/London', event('SUMMARY:Closed', `DTSTART;VALUE=DATE:${start}`, ...rule.split('\r\n'))),
    ).toEqual(expected);
  });
});

describe('a file that is not quite right', () => {
  const lenient = (...parts: string[]) => readCalendar(file(...parts), WINDOW, 'Europe/London');

  it('with an event sent twice holds what was said last', () => {
    const { closures } = lenient(
      event('SEQUENCE:0', 'SUMMARY:Old', 'DTSTART;VALUE=DATE:20261001'),
      event('SEQUENCE:1', 'SUMMARY:New', 'DTSTART;VALUE=DATE:20261002'),
    );
    expect(closures.map(({ title, from }) => `${title} ${from}`)).toEqual(['New 2026-10-02']);
  });

  it('with events without ids holds each of them', () => {
    const nameless = (day: string) =>
      ['BEGIN:VEVENT', 'SUMMARY:Closed', `DTSTART;VALUE=DATE:${day}`, 'END:VEVENT'].join('\r\n');
    expect(lenient(nameless('20261001'), nameless('20261003')).closures).toHaveLength(2);
  });

  it('with an end before its start keeps the day', () => {
    expect(
      lenient(event('SUMMARY:Odd', 'DTSTART;VALUE=DATE:20261005', 'DTEND;VALUE=DATE:20261001')).closures,
    ).toMatchObject([{ from: '2026-10-05', to: '2026-10-05' }]);
  });

  it('with tasks, journals and free times between its events reads the events', () => {
    const other = ['VTODO', 'VJOURNAL', 'VFREEBUSY'].map(
      (kind) => `BEGIN:${kind}\r\nUID:x\r\nSUMMARY:Not closed\r\nDTSTART:20261001T100000Z\r\nEND:${kind}`,
    );
    expect(lenient(...other, event('SUMMARY:Closed', 'DTSTART;VALUE=DATE:20261002')).closures).toHaveLength(1);
  });

  it('of letters and signs from everywhere keeps them', () => {
    const title = 'Fête d’été · 祭り · עיד 🎪';
    expect(lenient(event(`SUMMARY:${title}`, 'DTSTART;VALUE=DATE:20261002')).closures[0]?.title).toBe(title);
  });

  it('with events long past or far ahead leaves them out', () => {
    const at = (year: string, uid: string) =>
      event('SUMMARY:Closed', `DTSTART;VALUE=DATE:${year}0101`).replace('closing@', `${uid}@`);
    expect(lenient(at('1999', 'a'), at('2027', 'b'), at('2090', 'c')).closures.map(({ from }) => from)).toEqual([
      '2027-01-01',
    ]);
  });

  it('of ten thousand events is read to a limit, and says that it was cut', () => {
    const many = Array.from({ length: 10_000 }, (_, n) =>
      event('SUMMARY:Closed', 'DTSTART;VALUE=DATE:20261002').replace('closing@', `${n}@`),
    );
    const { closures, problems } = lenient(...many);
    expect(closures).toHaveLength(5000);
    expect(problems.map(({ message }) => message).join(' ')).toContain('more than 5000 closures');
  });
});
