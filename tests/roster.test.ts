import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { bestRoster, planRoster } from '@/core/crew/roster';
import type { Change, Place, RosterAnswer, RosterCase } from '@/core/crew/roster-case';
import { type StepIn, whoCanStepIn } from '@/core/crew/step-in';
import type { SolveMilp } from '@/core/solver/milp';
import { milpSolver } from '@/workers/highs';

let solve: SolveMilp;
beforeAll(async () => {
  solve = await milpSolver();
});
const plan = (given: RosterCase): RosterAnswer => planRoster(given, { solve, clock: () => performance.now() / 1000 });

// The judge: every rule said a second time, from the case and the places alone.

const way = (given: RosterCase, a = '', b = '') => {
  const found = given.travel?.find(({ between: [x, y] }) => (x === a && y === b) || (x === b && y === a));
  return found ? found.minutes : a === b ? 0 : 30;
};

/** Rules that a plan breaks, and what it comes to. */
function judge(given: RosterCase, places: readonly Place[]) {
  const { duties = [], people = [], now = [] } = given;
  const wrong: string[] = [];
  const fits = (person: NonNullable<typeof people>[number], duty: NonNullable<typeof duties>[number]) => ({
    skilled: (duty.skills ?? []).every((skill) => (person.skills?.[skill] ?? -1) >= duty.day),
    free: (person.free ?? []).some(([on, from, to]) => on === duty.day && from <= duty.from && duty.to <= to),
  });
  const had = new Map(people.map((person) => [person.id, [] as (typeof duties)[number][]]));
  for (const place of places) {
    const duty = duties.find(({ id }) => id === place.duty);
    const person = people.find(({ id }) => id === place.person);
    if (!duty || !person) {
      wrong.push('somebody or something that is not there');
      continue;
    }
    const { skilled, free } = fits(person, duty);
    if (!skilled) wrong.push(`${person.id} may not ${duty.id}`);
    if (!free) wrong.push(`${person.id} is not free for ${duty.id}`);
    had.get(person.id)?.push(duty);
  }
  let evenness = 0;
  for (const person of people) {
    const own = had.get(person.id) ?? [];
    evenness += own.length * own.length;
    if (new Set(own).size < own.length) wrong.push(`${person.id} has one duty twice`);
    if (own.length > (person.most_duties ?? 1e9)) wrong.push(`${person.id} has too many duties`);
    if (own.reduce((sum, { from, to }) => sum + to - from, 0) > (person.most_minutes ?? 1e9))
      wrong.push(`${person.id} has too many minutes`);
    for (const one of own)
      for (const other of own) {
        if (one === other || one.day !== other.day || one.from > other.from) continue;
        if (other.from < one.to) wrong.push(`${person.id} has two duties at once`);
        else if (other.from - one.to < way(given, one.place, other.place)) wrong.push(`${person.id} cannot get there`);
      }
  }
  let empty = 0;
  for (const { id, people: wanted = 1, weight = 1 } of duties) {
    const there = places.filter(({ duty }) => duty === id).map(({ person }) => person);
    if (there.length > wanted) wrong.push(`${id} has too many`);
    empty += weight * (wanted - there.length);
    for (const a of there)
      for (const b of there)
        if (people.find((each) => each.id === a)?.apart?.includes(b)) wrong.push(`${a} and ${b} are together`);
  }
  const has = (duty: string, person: string) => places.some((each) => each.duty === duty && each.person === person);
  const broken = now.filter((promise, at) => {
    const duty = duties.find(({ id }) => id === promise.duty);
    const person = people.find(({ id }) => id === promise.person);
    if (!duty || !person || now.findIndex((each) => each.duty === promise.duty && each.person === promise.person) < at)
      return false;
    const { skilled, free } = fits(person, duty);
    return skilled && free && !has(duty.id, person.id);
  }).length;
  const wishes = people.reduce(
    (sum, { id, wishes: own = [] }) => sum + own.reduce((all, each) => all + (has(each.duty, id) ? each.cost : 0), 0),
    0,
  );
  return { wrong, figures: [empty, broken, wishes, evenness] as const };
}

const isBefore = (a: readonly number[], b: readonly number[]) => {
  const at = a.findIndex((each, place) => each !== b[place]);
  return at >= 0 && (a[at] as number) < (b[at] as number);
};

/** The best figures there are, by trying every set of places of a small case. */
function bestByTrying(given: RosterCase): readonly number[] {
  const pairs = (given.duties ?? []).flatMap(({ id: duty }) =>
    (given.people ?? []).map(({ id: person }) => ({ duty, person })),
  );
  let best: readonly number[] | undefined;
  const look = (at: number, places: Place[]) => {
    if (judge(given, places).wrong.length > 0) return;
    if (at === pairs.length) {
      const { figures } = judge(given, places);
      if (!best || isBefore(figures, best)) best = figures;
      return;
    }
    look(at + 1, [...places, pairs[at] as Place]);
    look(at + 1, places);
  };
  look(0, []);
  return best ?? [];
}

const figuresOf = ({ empty, broken, wishes, evenness }: RosterAnswer) => [empty, broken, wishes, evenness];

/** The same with one thing otherwise: written for this judge alone. */
function otherwise(given: RosterCase, change: Change): RosterCase {
  const people = structuredClone(given.people ?? []) as {
    -readonly [K in keyof NonNullable<RosterCase['people']>[number]]: NonNullable<RosterCase['people']>[number][K];
  }[];
  for (const person of people) {
    if (change.rule === 'apart' && (person.id === change.person || person.id === change.with))
      person.apart = (person.apart ?? []).filter((id) => id !== change.person && id !== change.with);
    if (person.id !== change.person) continue;
    if (change.rule === 'skill') person.skills = { ...person.skills, [change.skill]: change.to };
    if (change.rule === 'free') person.free = [...(person.free ?? []), change.to];
    if (change.rule === 'most_duties') person.most_duties = change.to;
    if (change.rule === 'most_minutes') person.most_minutes = change.to;
  }
  return { ...given, people };
}

/** Numbers that are the same on every run, each below what is asked for. */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((state / 2 ** 31) * below);
  };
}

function smallCase(random: (below: number) => number): RosterCase {
  const names = ['Ada', 'Ben', 'Cleo'];
  const duties = ['a', 'b', 'c', 'd'].map((id) => {
    const from = 60 * random(6);
    const to = from + 60 + 30 * random(3);
    return {
      id,
      day: random(2),
      from,
      to,
      place: random(2) ? 'hall' : 'market',
      people: 1 + random(2),
      ...(random(2) ? { weight: 1 + random(3) } : {}),
      ...(random(2) ? { skills: ['knife'] } : {}),
    };
  });
  return {
    duties,
    people: names.map((id, at) => ({
      id,
      skills: (random(4) ? { knife: random(3) } : {}) as Record<string, number>,
      free: [0, 1].flatMap((day) => (random(5) ? [[day, 60 * random(2), 480] as const] : [])),
      ...(random(2) ? { most_duties: 1 + random(3) } : {}),
      ...(random(3) ? {} : { most_minutes: 120 + 60 * random(3) }),
      wishes: duties.flatMap(({ id: duty }) => (random(2) ? [{ duty, cost: random(4) }] : [])),
      ...(random(3) ? {} : { apart: [names[(at + 1) % 3] as string] }),
    })),
    travel: random(2) ? [{ between: ['hall', 'market'], minutes: 20 * random(4) }] : [],
    now: duties.flatMap(({ id: duty }) => (random(3) ? [] : [{ duty, person: names[random(3)] as string }])),
  };
}

describe('who does what', () => {
  it.each(readdirSync('tests/cases').filter((name) => name.startsWith('roster-')))(
    'comes out as worked by hand: %s',
    (name) => {
      const { expect: wanted, ...given } = JSON.parse(readFileSync(`tests/cases/${name}`, 'utf8'));
      const answer = plan(given);
      expect(judge(given, answer.places)).toEqual({ wrong: [], figures: figuresOf(answer) });
      expect(answer).toMatchObject({
        empty: wanted.empty,
        broken: wanted.broken,
        wishes: wanted.wishes,
        evenness: wanted.evenness,
        proven: wanted.proven,
      });
      for (const [duty, missing] of Object.entries(wanted.missing))
        expect(answer.why.find((each) => each.duty === duty)?.missing).toBe(missing);
      for (const [duty, would] of Object.entries(wanted.would)) {
        const own = answer.why.find((each) => each.duty === duty)?.would ?? [];
        expect(own.map((each) => JSON.stringify(each)).sort()).toEqual(
          (would as Change[]).map((each) => JSON.stringify(each)).sort(),
        );
      }
    },
  );

  it('is never bettered by any other set of places, and what would fill a place does', () => {
    const random = numbers(11);
    let tried = 0;
    for (let round = 0; round < 25; round++) {
      const given = smallCase(random);
      const answer = plan(given);
      const { wrong, figures } = judge(given, answer.places);
      expect({ round, wrong }).toEqual({ round, wrong: [] });
      expect([round, ...figures]).toEqual([round, ...figuresOf(answer)]);
      expect([round, ...figures]).toEqual([round, ...bestByTrying(given)]);
      for (const { duty, would, because } of answer.why) {
        const there = answer.places.filter((each) => each.duty === duty).map(({ person }) => person);
        expect([...there, ...because.map(({ person }) => person)].sort()).toEqual(['Ada', 'Ben', 'Cleo']);
        for (const change of would) {
          tried++;
          const [empty = 0] = bestByTrying(otherwise(given, change));
          expect([round, duty, change, empty < answer.empty]).toEqual([round, duty, change, true]);
        }
      }
    }
    expect(tried).toBeGreaterThan(10);
  });
});

/** Places after the steps of a proposal. */
const after = (places: readonly Place[], { steps }: StepIn): Place[] =>
  steps.reduce<Place[]>(
    (now, { person, takes, gives }) => [
      ...now.filter((each) => each.person !== person || each.duty !== gives),
      { duty: takes, person },
    ],
    [...places],
  );

describe('somebody drops out', () => {
  it('is mended by those who could step in, each with as few others as can be: tried one by one', () => {
    const random = numbers(23);
    const lengths = { 1: 0, 2: 0 };
    for (let round = 0; round < 60; round++) {
      const given = smallCase(random);
      const { places } = bestRoster(given, { solve, clock: () => performance.now() / 1000 }, 2);
      const [lost] = places;
      if (!lost) continue;
      const rest = places.slice(1);
      const found = whoCanStepIn(given, rest, lost.duty, [lost.person]);
      for (const each of found) {
        const now = after(rest, each);
        expect([round, judge(given, now).wrong]).toEqual([round, []]);
        const isEmptier = given.duties?.find(({ id }) => id === each.leaves);
        expect(now.length).toBe(rest.length + (isEmptier ? 0 : 1));
      }
      const names = ['Ada', 'Ben', 'Cleo'].filter((name) => name !== lost.person);
      const isRight = (now: readonly Place[]) => judge(given, now).wrong.length === 0;
      const byHand = names.map((person) => {
        if (rest.some((each) => each.duty === lost.duty && each.person === person)) return 0;
        const take = { duty: lost.duty, person };
        if (isRight([...rest, take])) return 1;
        const chains = rest
          .filter((each) => each.person === person)
          .flatMap((given) =>
            names
              .filter((other) => other !== person)
              .map((other) => [...rest.filter((each) => each !== given), take, { duty: given.duty, person: other }]),
          );
        return chains.some(
          (now) => new Set(now.map((each) => `${each.duty} ${each.person}`)).size === now.length && isRight(now),
        )
          ? 2
          : 0;
      });
      for (const [at, length] of byHand.entries()) {
        const own = found.find(({ steps, leaves }) => steps[0]?.person === names[at] && leaves === undefined);
        expect([round, names[at], own?.steps.length ?? 0]).toEqual([round, names[at], length]);
        if (length === 1 || length === 2) lengths[length]++;
      }
    }
    expect(lengths[1]).toBeGreaterThan(5);
    expect(lengths[2]).toBeGreaterThan(0);
  });
});
