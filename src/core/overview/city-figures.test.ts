import { describe, expect, it } from 'vitest';
import { lookAtCity, type ProgrammeCounts } from './city-figures';

const programme = (name: string, change: Partial<ProgrammeCounts> = {}): ProgrammeCounts => ({
  id: name,
  name,
  currency: 'USD',
  held: 8,
  cancelled: 0,
  next: '2026-12-03',
  people: 24,
  came: 160,
  absent: 30,
  kits: 190,
  calledBack: 0,
  crewMinutes: 900,
  spent: 57_000,
  budget: 80_000,
  ...change,
});
const named = (all: readonly ProgrammeCounts[], name: string) =>
  lookAtCity(all).programmes.find((each) => each.name === name);

describe('a city', () => {
  it('sees counts and money, and all together', () => {
    const { programmes, totals } = lookAtCity([programme('Quay'), programme('Hill', { currency: 'EUR', spent: 100 })]);
    expect(programmes[0]).toMatchObject({ people: 24, kits: 190, attendance: 84, perKit: 300, asks: [] });
    expect(totals).toMatchObject({ programmes: 2, held: 16, people: 48, kits: 380, attendance: 84, crewMinutes: 1800 });
    // Money of two currencies is never added up.
    expect(totals.money).toEqual([
      { currency: 'USD', spent: 57_000, budget: 80_000 },
      { currency: 'EUR', spent: 100, budget: 80_000 },
    ]);
  });

  it('does not see how many they are where they are few, nor what would tell', () => {
    const all = [programme('Quay', { people: 3, kits: 3 }), programme('Hill', { people: 9 }), programme('Mill')];
    expect(named(all, 'Quay')).toMatchObject({ people: 'small', kits: 'small', attendance: null, perKit: null });
    expect(named(all, 'Hill')).toMatchObject({ people: 'withheld' });
    const alone = lookAtCity([programme('Quay', { people: 3 })]);
    expect([alone.programmes[0]?.people, alone.totals.people]).toEqual(['withheld', 'small']);
    expect(named([programme('Quay', { calledBack: 1 })], 'Quay')?.calledBack).toBe('small');
  });

  it('is told what is worth a question, and nothing where there is none', () => {
    const asks = (change: Partial<ProgrammeCounts>) => named([programme('Quay', change)], 'Quay')?.asks;
    expect(asks({ spent: 80_001 })).toEqual(['More was spent than budgeted.']);
    expect(asks({ spent: 80_001, budget: null })).toEqual([]);
    expect(asks({ held: 4, cancelled: 1 })).toEqual(['1 of 5 sessions were called off.']);
    expect(asks({ held: 3, cancelled: 1 })).toEqual([]);
    expect(asks({ came: 11, absent: 9 })).toEqual(['Fewer than 60 % came.']);
    expect(asks({ came: 11, absent: 9, people: 3 })).toEqual([]);
    expect(asks({ next: null })).toEqual(['Nothing is planned in the coming three weeks.']);
    expect(asks({ calledBack: 2 })).toEqual(['Kits were called back: was it a need told late, or a label?']);
    // Dear is said of one among enough others of the same currency.
    const dear = programme('Dear', { spent: 79_000, kits: 150 });
    const others = ['A', 'B', 'C', 'D'].map((name) => programme(name));
    expect(named([...others, dear], 'Dear')?.asks).toEqual(['A kit costs half as much again as is usual here.']);
    expect(named([...others.slice(1), dear], 'Dear')?.asks).toEqual([]);
    expect(named([...others, { ...dear, currency: 'EUR' }], 'Dear')?.asks).toEqual([]);
  });
});
