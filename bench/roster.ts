import { bestRoster, planRoster } from '@/core/crew/roster';
import type { Duty, Person, RosterCase } from '@/core/crew/roster-case';
import { rulesAgainst } from '@/core/crew/roster-why';
import { whoCanStepIn } from '@/core/crew/step-in';
import { milpSolver } from '@/workers/highs';

/** Numbers that are the same on every run. */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((state / 2 ** 31) * below);
  };
}

const KINDS = [
  { from: 750, to: 840, place: 'shop', skills: ['driving'], weight: 2, people: 1 },
  { from: 855, to: 930, place: 'hall', skills: ['hygiene'], weight: 2, people: 1 },
  { from: 930, to: 1050, place: 'hall', skills: ['lead', 'checked'], weight: 5, people: 1 },
  { from: 930, to: 1050, place: 'hall', skills: ['checked'], weight: 3, people: 2 },
  { from: 1050, to: 1095, place: 'hall', skills: [], weight: 1, people: 1 },
] as const;

/**
 * A term: sessions on some days of the week, each with five duties, and people with skills, times, limits and wishes.
 *
 * @param scarce skills and time are short, so that places stay empty whatever is tried
 */
export function rosterTerm(people: number, duties: number, { seed = 5, scarce = false } = {}): RosterCase {
  const part = scarce ? 0.75 : 1;
  const any = numbers(seed);
  const all = Array.from({ length: duties }, (_, at): Duty => {
    const kind = KINDS[at % KINDS.length] ?? KINDS[0];
    const session = Math.floor(at / KINDS.length);
    const day = Math.floor(session / 2) * 2 + (session % 2);
    return { ...kind, id: `d${at}`, day, place: kind.place === 'hall' ? `hall ${session % 3}` : kind.place };
  });
  const days = Math.max(...all.map(({ day }) => day)) + 1;
  const crew = Array.from({ length: people }, (_, at): Person => {
    const free = Array.from({ length: days }, (_day, day) => day).filter(
      (day) => (day + at) % 7 < 3 && any(10) < 8 * part,
    );
    return {
      id: `p${at}`,
      skills: {
        ...(any(10) < 7 * part ? { checked: any(10) < 8 ? 1000 : Math.floor(days / 2) } : {}),
        ...(any(10) < 5 ? { hygiene: 1000 } : {}),
        ...(any(10) < 4 * part ? { driving: 1000 } : {}),
        ...(any(10) < 3 * part ? { lead: 1000 } : {}),
      },
      free: free.map((day) => [day, any(2) ? 420 : 840, any(3) ? 1320 : 1080] as const),
      most_duties: 2 + any(scarce ? 2 : 4),
      wishes: all.filter(() => any(20) === 0).map(({ id }) => ({ duty: id, cost: 1 + any(5) })),
      ...(any(8) === 0 ? { apart: [`p${any(people)}`] } : {}),
    };
  });
  return { duties: all, people: crew };
}

export async function rosterFigures(): Promise<void> {
  const solve = await milpSolver();
  const help = { solve, clock: () => performance.now() / 1000 };
  for (const [people, duties, goal, scarce] of [
    [60, 120, 2, false],
    [60, 120, 2, true],
    [120, 300, 10, false],
    [120, 300, 10, true],
  ] as const) {
    const given = rosterTerm(people, duties, { scarce });
    const stages: string[] = [];
    let last = help.clock();
    const timed: typeof solve = (model, seconds) => {
      const answer = solve(model, seconds);
      stages.push(`${(help.clock() - last).toFixed(2)} s`);
      last = help.clock();
      return answer;
    };
    const { places, proven, bound, ...figures } = bestRoster(given, { ...help, solve: timed }, 3 * goal);
    console.log(
      `A roster of ${people} people × ${duties} duties${scarce ? ', hands scarce' : ''}\n  ${stages.join(', ')}; ${JSON.stringify(figures)}; proven ${JSON.stringify(proven)}${bound ? `, at least ${JSON.stringify(bound)}` : ''}\n  goal: the first three figures proven in at most ${goal} s\n`,
    );
    const checking = help.clock();
    const rules = rulesAgainst(given, places);
    const [someone] = given.people ?? [];
    for (const duty of given.duties ?? []) if (someone) rules(someone, duty);
    console.log(
      `One change in its table checked, and one row of it\n  ${((help.clock() - checking) * 1000).toFixed(1)} ms\n  goal: at most 30 ms\n`,
    );
    if (people > 60) continue;
    const now = { ...given, now: places };
    const [lost] = places;
    if (!lost) continue;
    const start = help.clock();
    const found = whoCanStepIn(given, places.slice(1), lost.duty, [lost.person]);
    const searched = help.clock() - start;
    const mended = bestRoster({ ...now, people: given.people?.filter(({ id }) => id !== lost.person) ?? [] }, help, 1);
    console.log(
      `Somebody drops out of it\n  ${found.length} who could step in after ${searched.toFixed(3)} s; mended as a whole after ${(help.clock() - start).toFixed(2)} s, ${mended.broken} promises broken\n  goal: proposals in at most 1 s\n`,
    );
    const begun = help.clock();
    const { why } = planRoster({ ...given, seconds: 10 }, help);
    console.log(
      `The same with what would fill its empty places\n  ${(help.clock() - begun).toFixed(2)} s; ${why.length} duties with an empty place, ${why.reduce((sum, { would }) => sum + would.length, 0)} changes would fill one\n`,
    );
  }
}
