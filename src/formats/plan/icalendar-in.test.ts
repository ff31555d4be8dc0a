import { describe, expect, it } from 'vitest';
import { readCalendar } from './icalendar-in';

const WINDOW = { from: '2026-09-01', to: '2027-08-31' };
const read = (events: string, timeZone = 'America/New_York', end = '\r\n') =>
  readCalendar(
    new TextEncoder().encode(
      `BEGIN:VCALENDAR\nVERSION:2.0\nX-WR-CALNAME:Quay Street school\n${events}\nEND:VCALENDAR\n`.replaceAll('\n', end),
    ),
    WINDOW,
    timeZone,
  );
const event = (lines: string, uid = 'one') =>
  `BEGIN:VEVENT\nUID:${uid}\nDTSTAMP:20260801T000000Z\n${lines}\nEND:VEVENT`;

/** A zone under a name of the file's own, as some programs write it. */
const OWN_ZONE = `BEGIN:VTIMEZONE
TZID:Harbour time
BEGIN:STANDARD
DTSTART:20001029T020000
RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10
TZOFFSETFROM:+0200
TZOFFSETTO:+0100
END:STANDARD
BEGIN:DAYLIGHT
DTSTART:20000326T020000
RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=3
TZOFFSETFROM:+0100
TZOFFSETTO:+0200
END:DAYLIGHT
END:VTIMEZONE`;

describe('a calendar file', () => {
  it('gives whole days: the day after the last is where it ends', () => {
    const { name, closures, problems } = read(
      [
        event('SUMMARY:Autumn break\nDTSTART;VALUE=DATE:20261026\nDTEND;VALUE=DATE:20261031', 'a'),
        event('SUMMARY:Staff day\nDTSTART;VALUE=DATE:20261106', 'b'),
        event('SUMMARY:Winter break\nDTSTART:20261221T000000\nDTEND:20270104T000000', 'c'),
      ].join('\n'),
    );
    expect({ name, problems }).toEqual({ name: 'Quay Street school', problems: [] });
    expect(closures).toEqual([
      { title: 'Autumn break', from: '2026-10-26', to: '2026-10-30' },
      { title: 'Staff day', from: '2026-11-06', to: '2026-11-06' },
      { title: 'Winter break', from: '2026-12-21', to: '2027-01-03' },
    ]);
  });

  it.each([
    ['UTC', 'DTSTART:20261105T210000Z\nDTEND:20261105T223000Z', '16:00', '17:30'],
    ['a named zone', 'DTSTART;TZID=Europe/London:20261105T210000\nDURATION:PT90M', '16:00', '17:30'],
    [
      'a zone of the file’s own',
      'DTSTART;TZID=Harbour time:20261105T220000\nDTEND;TZID=Harbour time:20261105T233000',
      '16:00',
      '17:30',
    ],
    ['no zone', 'DTSTART:20261105T160000\nDTEND:20261105T173000', '16:00', '17:30'],
    // The United States change their clocks a week after Europe: for that week the distance is one hour less.
    [
      'the week between two clock changes',
      'DTSTART;TZID=Europe/London:20261028T160000\nDTEND;TZID=Europe/London:20261028T170000',
      '12:00',
      '13:00',
    ],
  ])('turns times of %s into the programme’s', (_, lines, from, to) => {
    const { closures, problems } = read(`${OWN_ZONE}\n${event(`SUMMARY:Boiler\n${lines}`)}`);
    expect(problems).toEqual([]);
    expect(closures[0]?.hours).toEqual({ from, to });
  });

  it('follows a rule with its exceptions, its moved and its cancelled instances', () => {
    const { closures } = read(
      [
        event(
          'SUMMARY:Assembly\nDTSTART;TZID=America/New_York:20261001T150000\nDTEND;TZID=America/New_York:20261001T160000\nRRULE:FREQ=WEEKLY;COUNT=6\nEXDATE;TZID=America/New_York:20261008T150000',
        ),
        event(
          'SUMMARY:Assembly moved\nRECURRENCE-ID;TZID=America/New_York:20261015T150000\nDTSTART;TZID=America/New_York:20261016T110000\nDTEND;TZID=America/New_York:20261016T120000',
        ),
        event(
          'SUMMARY:Assembly\nSTATUS:CANCELLED\nRECURRENCE-ID;TZID=America/New_York:20261022T150000\nDTSTART;TZID=America/New_York:20261022T150000',
        ),
      ].join('\n'),
    );
    expect(closures.map(({ title, from, hours }) => `${from} ${hours?.from} ${title}`)).toEqual([
      '2026-10-01 15:00 Assembly',
      '2026-10-16 11:00 Assembly moved',
      '2026-10-29 15:00 Assembly',
      // The clocks have gone back: it is still three o'clock.
      '2026-11-05 15:00 Assembly',
    ]);
  });

  it('reads folded lines, escapes, any kind of line end, and names without a zone', () => {
    const folded = event('SUMMARY:Closed for the long\n  repair\\, all floors\nDTSTART;VALUE=DATE:20261106');
    for (const end of ['\r\n', '\n', '\r'])
      expect(read(folded, 'Europe/London', end).closures).toEqual([
        { title: 'Closed for the long repair, all floors', from: '2026-11-06', to: '2026-11-06' },
      ]);
  });

  it('with a bad line offers the rest, and names the line', () => {
    const good = event('SUMMARY:Fine\nDTSTART;VALUE=DATE:20261106', 'good');
    const { closures, problems } = read(
      `${good}\nBEGIN:VEVENT\nUID:bad\nthis is no line at all\nDTSTART:yesterday\nSUMMARY:Odd\nEND:VEVENT\n${event('SUMMARY:No start', 'none')}`,
    );
    expect(closures.map(({ title }) => title)).toEqual(['Fine']);
    expect(problems).toEqual([
      { where: 'line 12', message: expect.stringContaining('“this is no line at all” is not a line') },
      { where: 'line 10', message: expect.stringContaining('“Odd” cannot be read') },
      { where: 'line 16', message: expect.stringContaining('“No start” cannot be read') },
    ]);
  });

  it('with a rule that never ends is followed to the end of the window, and says so', () => {
    const { closures, cutAt } = read(event('SUMMARY:Sundays\nDTSTART;VALUE=DATE:20200105\nRRULE:FREQ=WEEKLY'));
    expect(closures).toHaveLength(52);
    expect(cutAt).toBe('2027-08-31');
    expect(
      read(event('SUMMARY:Ticks\nDTSTART:20260101T000000\nRRULE:FREQ=MINUTELY')).closures.length,
    ).toBeLessThanOrEqual(800);
  });

  it('with a zone there is not says so, and reads the times as the programme’s', () => {
    const { closures, problems } = read(
      event('SUMMARY:Odd\nDTSTART;TZID=Mars/Olympus:20261105T160000\nDTEND;TZID=Mars/Olympus:20261105T170000'),
    );
    expect(closures[0]?.hours).toEqual({ from: '16:00', to: '17:00' });
    expect(problems[0]?.message).toContain('There is no time zone “Mars/Olympus”');
  });

  it('that is none, or cut off, says so', () => {
    const plain = (text: string) => readCalendar(new TextEncoder().encode(text), WINDOW, 'UTC');
    expect(plain('name,date\nA,2026').problems[0]?.message).toContain('not a calendar file');
    expect(plain('BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:a\nDTSTART;VALUE=DATE:20261106').problems[0]?.message).toContain(
      'ends in the middle',
    );
  });

  it('names a day or an hour that there is not, instead of taking it for another', () => {
    const { closures, problems } = read(
      [
        event('SUMMARY:Leap\nDTSTART;VALUE=DATE:20270230', 'a'),
        event('SUMMARY:Month\nDTSTART;VALUE=DATE:20261301', 'b'),
        event('SUMMARY:Hour\nDTSTART:20261101T250000\nDTEND:20261101T260000', 'c'),
        event('SUMMARY:Real\nDTSTART;VALUE=DATE:20270228', 'd'),
      ].join('\n'),
    );
    expect(closures.map(({ title }) => title)).toEqual(['Real']);
    expect(problems.map(({ message }) => message.split(' names ')[1]?.split(',')[0])).toEqual([
      'the day 2027-02-30',
      'the day 2026-13-01',
      'the time 25:00',
    ]);
  });

  it('passes over what has no length, and says what is beyond five thousand', () => {
    const { closures, problems } = read(
      [event('SUMMARY:Bell\nDTSTART:20261101T160000'), event('SUMMARY:Day\nDTSTART;VALUE=DATE:20261102', 'b')].join(
        '\n',
      ),
    );
    expect(closures.map(({ title }) => title)).toEqual(['Day']);
    expect(problems[0]?.message).toBe('“Bell” has no length: it closes nothing, and was passed over.');
    const many = Array.from({ length: 5200 }, (_, at) => event(`SUMMARY:${at}\nDTSTART;VALUE=DATE:20261102`, `u${at}`));
    const all = read(many.join('\n'));
    expect(all.closures).toHaveLength(5000);
    expect(all.problems[0]?.message).toContain('more than 5000 closures');
  });
});
