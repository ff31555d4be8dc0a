import { describe, expect, it } from 'vitest';
import { type DutySession, dutiesOf } from './duties';

const step = (heat: 'none' | 'hob', tools: readonly ('knife' | 'bowl')[] = [], fromAge = 6) => ({
  heat,
  tools,
  fromAge,
});
const session = (change: Partial<DutySession> = {}): DutySession => ({
  date: '2026-11-26',
  startsAt: 960,
  minutes: 90,
  place: 'Boatshed',
  modes: ['in person'],
  ages: [6, 7, 7, 8, 8, 8, 9, 9, 9, 10, 10, 10, 11, 11],
  steps: [step('none', ['bowl']), step('none', ['knife'], 8), step('hob', [], 10)],
  hasRawMeat: false,
  isOutdoor: false,
  jobs: [],
  stops: 0,
  profile: 'us',
  ...change,
});
const said = (change: Partial<DutySession> = {}) =>
  dutiesOf(session(change)).map(({ kind, people }) => (people > 1 ? `${people} ${kind}` : kind));

describe('the duties of a session', () => {
  it('come from its steps, and adults enough for its ages and its heat, with the working of each number', () => {
    expect(said()).toEqual(
      ['lead', 'heat', 'knives', 'set up', 'wash up'].flatMap((kind) => (kind === 'wash up' ? '2 wash up' : kind)),
    );
    // Fourteen by the heat: one adult for six. Three are there.
    const many = dutiesOf(session({ ages: Array.from({ length: 26 }, () => 7) }));
    expect(many.find(({ kind }) => kind === 'assistant')).toMatchObject({
      people: 2,
      because: [
        '26 of 6 to 8 years: one adult for 6, because of heat.',
        '5 adults in all; 3 are there as lead and at the stations.',
      ],
      skills: ['background check'],
      isAdult: true,
    });
    expect(many.find(({ kind }) => kind === 'heat')?.because).toEqual([
      '1 step over heat; somebody of 7 comes, and they are for those of 10.',
    ]);
  });

  it('name the fire, raw meat, the chat of a class on screen, and nobody checked where only adults come', () => {
    expect(said({ isOutdoor: true, hasRawMeat: true })).toEqual(
      expect.arrayContaining(['fire', 'raw meat', 'knives', 'lead']),
    );
    expect(said({ modes: ['live online'] })).toEqual(['lead', 'chat']);
    const adults = dutiesOf(session({ ages: [30, 41, null].map((age) => age ?? 50) }));
    expect(adults.flatMap(({ skills }) => skills)).not.toContain('background check');
    expect(adults.map(({ kind }) => kind)).not.toContain('assistant');
    expect(said({ modes: ['take-home'] })).toEqual([]);
  });

  it('have hands for the jobs as they are planned: more where packing is long, drivers by their stops', () => {
    const jobs = [
      { key: 'buying', date: '2026-11-24', from: 600, minutes: 75 },
      { key: 'packing', date: '2026-11-25', from: 840, minutes: 200 },
      { key: 'deliver', date: '2026-11-26', from: 900, minutes: 60 },
      { key: 'recipes', date: '2026-11-20', from: 600, minutes: 30 },
    ];
    const duties = dutiesOf(session({ modes: ['live online'], jobs, stops: 19 }));
    expect(duties.find(({ kind }) => kind === 'shop')).toMatchObject({
      date: '2026-11-24',
      from: 600,
      to: 675,
      people: 1,
    });
    expect(duties.find(({ kind }) => kind === 'pack')).toMatchObject({ from: 840, to: 907, people: 3, isAdult: false });
    // Nineteen stops: three drivers of seven at most, twelve minutes each.
    expect(duties.find(({ kind }) => kind === 'drive')).toMatchObject({
      people: 3,
      from: 900,
      to: 984,
      skills: ['driving'],
    });
    expect(duties.some(({ kind }) => kind === 'wash up')).toBe(false);
  });
});
