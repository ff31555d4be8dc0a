// Figures of looking back: a funder's report, and what many sessions teach.
import { factorLesson, neededFactor } from '@/core/closeout/lessons';
import { reportOf } from '@/core/closeout/report/report';
import type { ReportFacts, ReportSession, Seen } from '@/core/closeout/report/report-facts';
import { randomFrom } from '../scripts/random.mjs';
import { measureRuns, say } from './measure';

const GROUPS = ['vegetable', 'fruit', 'grain', 'protein', 'dairy'];

/** So many courses of so many sessions and people, four of five of whom come. */
export function pastYear(courses: number, sessions: number, people: number): ReportFacts {
  const chance = randomFrom(7);
  const pick = <T>(all: readonly T[]): T[] => all.filter(() => chance() < 0.5);
  const all: ReportSession[] = [];
  for (let course = 0; course < courses; course++)
    for (let n = 0; n < sessions; n++) {
      const seen = Array.from({ length: people }, (_, at): Seen => {
        const came = chance() < 0.8;
        return [course * people + at, 1 + Math.floor(chance() * 3), came ? ['came', 'collected'] : ['absent']];
      });
      all.push({
        id: `${course} ${n}`,
        courseId: `${course}`,
        course: `Course ${course}`,
        title: `Session ${n}`,
        date: `2026-${String(1 + (n % 12)).padStart(2, '0')}-10`,
        minutes: 90,
        mode: 'in person',
        kits: people,
        seen,
        plateGroups: pick(GROUPS),
        vegetableFamilies: pick(['dark green', 'starchy', 'cabbage']),
        votes: { 'more please': 9, 'it is fine': 4, 'not yet': 2 },
        tries: 40,
        stays: Array.from({ length: 4 }, (_, crew) => [crew + course, 120] as const),
        bought: 4000,
        given: 300,
        isEstimated: false,
        incidents: chance() < 0.02 ? 1 : 0,
      });
    }
  const ages = Array.from({ length: courses * people }, (_, person) => ({ person, age: 6 + (person % 9) }));
  return { sessions: all, cancelled: 3, people: ages, givenGrams: 120_000, lostGrams: 8000 };
}

export async function lookingBackFigures(): Promise<void> {
  const facts = pastYear(60, 12, 20);
  say(
    'A report of 60 courses × 12 sessions × 20 people',
    await measureRuns(() => reportOf(facts), 20),
    'goal: at most 1 s',
  );
  const chance = randomFrom(3);
  const foods = Array.from({ length: 300 }, () =>
    Array.from({ length: 2000 / 30 }, () => neededFactor(100, chance() < 0.3 ? Math.floor(chance() * 60) : 0, 0)),
  );
  say(
    'Lessons of 2,000 sessions: 30 recipes of 10 foods',
    await measureRuns(() => foods.map((seen) => factorLesson(seen)), 20),
    'goal: at most 200 ms',
  );
}
