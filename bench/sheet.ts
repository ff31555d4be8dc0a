import { type LockedSheet, sheetDifferences } from '@/core/kits/record/locked-sheet';
import type { SheetInput } from '@/core/kits/record/sheet-content';
import { computeSheet, sheetContent } from '@/core/kits/record/snapshot';
import { fewestVersions } from '@/core/kits/sheet/fewest-variants';
import type { Participant } from '@/core/kits/sheet/participant';
import { newMemory } from '@/core/memory';
import { readRecipe } from '@/core/recipes/recipe/recipe';
import { TYPICAL } from '@/core/reference/reference';
import { AVOIDANCES, understandNeed } from '@/core/safety/avoidances';
import { writeRollXlsx } from '@/formats/roll/roll-xlsx';
import { course } from './course';

/** A locked sheet of 500 participants, and what changing one of them costs: computing it anew and telling the difference. */
export function locked(): { change: () => unknown } {
  const { recipes, roll } = course({ sessions: 1, participants: 500, lines: 25, profiles: 40 }).input;
  const none = new Map<string, readonly string[]>();
  const people = roll.map(
    ({ needs, ...person }): Participant => ({ ...person, needs: needs.map((need) => understandNeed(need, none)) }),
  );
  const [recipe] = recipes;
  if (!recipe) throw new Error('There is no recipe.');
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'dish', title: 'Dish', recipe }],
    labels: {},
    reference: TYPICAL,
  };
  const memory = newMemory();
  const contentOf = (participants: readonly Participant[]) => {
    const outcome = computeSheet(input, participants, undefined, memory);
    if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
    return sheetContent(input, outcome, memory);
  };
  const content = contentOf(people);
  const kits = content.variants.flatMap(({ participants, letter }) =>
    participants.map(({ id, name }, at) => ({ id, number: at + 1, enrolmentId: id, name, variant: letter })),
  );
  const sheet = { format: 1, session: {} as LockedSheet['session'], content, kits, leftOut: [] } as LockedSheet;
  // Each time somebody else, who avoids two things that nobody avoids together: a kit that was never measured before.
  const codes = AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);
  let turn = 0;
  return {
    change: () => {
      turn += 1;
      const [one = '', two = ''] = [codes[turn % codes.length], codes[(turn * 5 + 3) % codes.length]];
      const needs = [one, two].map((code) => understandNeed(code, none));
      const other = people.map((person, at) =>
        at === turn % people.length ? { ...person, servings: 1 + (turn % 9), needs } : person,
      );
      return sheetDifferences(sheet, contentOf(other), memory);
    },
  };
}

/** Forty needs and a recipe whose swaps stand in each other's way. */
export function manyNeeds(): { run: () => ReturnType<typeof fewestVersions> } {
  const codes = AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);
  const holding = codes.flatMap((code) => {
    const food = TYPICAL.ingredients.find(({ contains, name }) => contains.includes(code) && !name.includes('sauce'));
    return food ? [food.name] : [];
  });
  const lines = holding.map((ingredient, at) => ({
    ingredient,
    amount: '50',
    unit: 'g',
    alternatives: [{ ingredient: holding[(at + 4) % holding.length] ?? ingredient, amount: '50', unit: 'g' }],
  }));
  const reading = readRecipe({ servings: 4, lines }, TYPICAL);
  if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
  const sets = Array.from({ length: 40 }, (_, at) =>
    [codes[at % codes.length], ...(at >= codes.length ? [codes[(at * 7 + 3) % codes.length]] : [])].map(
      (code) => code ?? '',
    ),
  );
  return { run: () => fewestVersions([reading.recipe], sets) };
}

/** A roll of so many rows as a workbook. */
export const rollBook = (rows: number): Promise<Uint8Array> =>
  writeRollXlsx(
    Array.from({ length: rows }, (_, at) => ({
      name: `Person ${at}`,
      age: String(6 + (at % 9)),
      servings: String(1 + (at % 4)),
      avoids: at % 5 === 0 ? 'milk; egg' : '',
      mode: '',
      group: '',
      household: `House ${Math.floor(at / 2)}`,
      contact: `p${at}@homes.example`,
      address: '',
      plan: '',
    })),
  );
