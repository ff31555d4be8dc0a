import { describe, expect, it } from 'vitest';
import { type CrewMember, crewCase, freeOn, type RosterDuty } from './crew-case';

const times = {
  weekly: [
    { weekday: 4 as const, from: 840, to: 1080 },
    { weekday: 4 as const, from: 1080, to: 1260 },
  ],
  exceptions: [
    { date: '2026-11-26', from: 900, to: 960, isFree: false },
    { date: '2026-11-27', from: 600, to: 720, isFree: true },
  ],
};
const member = (change: Partial<CrewMember> = {}): CrewMember => ({
  id: 'ada',
  isAdult: true,
  skills: { lead: null, 'background check': '2026-11-30' },
  free: times,
  ...change,
});
const duty = (change: Partial<RosterDuty> = {}): RosterDuty => ({
  id: 'lead',
  key: 'lead',
  sessionId: 's1',
  kind: 'lead',
  title: 'Lead the class',
  date: '2026-12-03',
  from: 960,
  to: 1050,
  place: 'Boatshed',
  people: 1,
  skills: ['lead', 'background check'],
  weight: 10,
  isAdult: true,
  because: [],
  ...change,
});

describe('a crew as a case', () => {
  it('is free when it usually is, joined where spans touch, with what is added and less what is taken away', () => {
    expect(freeOn(times, '2026-12-03')).toEqual([{ from: 840, to: 1260 }]);
    expect(freeOn(times, '2026-11-26')).toEqual([
      { from: 840, to: 900 },
      { from: 960, to: 1260 },
    ]);
    expect(freeOn(times, '2026-11-27')).toEqual([{ from: 600, to: 720 }]);
    expect(freeOn(times, '2026-11-28')).toEqual([]);
  });

  it('holds a check until its last day, and has none that ended before', () => {
    const { people, duties } = crewCase([duty()], [member()], [], '2026-11-26');
    expect(duties?.[0]).toMatchObject({ day: 7, skills: ['lead', 'background check', 'adult'] });
    expect(people?.[0]?.skills).toEqual({ lead: 5000, 'background check': 4, adult: 5000, lifts: 5000 });
    expect(crewCase([duty()], [member()], [], '2026-12-01').people?.[0]?.skills).not.toHaveProperty('background check');
  });

  it('keeps minors from what is for adults, those who must not lift from carrying, and whoever is sick from all of it', () => {
    const given = crewCase(
      [duty(), duty({ id: 'shop', kind: 'shop', skills: ['driving'] })],
      [member({ isAdult: false, noLifting: true })],
      [],
      '2026-11-26',
    );
    expect(given.people?.[0]?.skills).not.toHaveProperty('adult');
    expect(given.people?.[0]?.skills).not.toHaveProperty('lifts');
    expect(given.duties?.[1]?.skills).toEqual(['driving', 'adult', 'lifts']);
    expect(crewCase([duty()], [member({ sickUntil: '2026-12-03' })], [], '2026-11-26').people?.[0]?.free).toEqual([]);
    expect(crewCase([duty()], [member({ sickUntil: '2026-12-02' })], [], '2026-11-26').people?.[0]?.free).toEqual([
      [7, 840, 1260],
    ]);
  });
});
