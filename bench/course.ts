import type { Participant } from '@/core/kits/sheet/participant';
import { kitSheet } from '@/core/kits/sheet/sheet';
import { newMemory } from '@/core/memory';
import { readRecipe, type WrittenLine, type WrittenRecipe } from '@/core/recipes/recipe/recipe';
import { TYPICAL } from '@/core/reference/reference';
import { understandNeed } from '@/core/safety/avoidances';

interface Size {
  readonly sessions: number;
  readonly participants: number;
  readonly lines: number;
  /** Different pairs of servings and avoidances on the roll. */
  readonly profiles: number;
}

/** Plain data as it comes from the database: written recipes, and rows of a roll. */
export interface CourseInput {
  readonly recipes: readonly WrittenRecipe[];
  readonly roll: readonly {
    readonly id: string;
    readonly name: string;
    readonly servings: number;
    readonly needs: readonly string[];
  }[];
}

const SCALINGS = ['linear', 'linear', 'linear', 'whole', 'damped'] as const;
const PRECISIONS = ['normal', 'tight', 'loose'] as const;
const NEEDS: readonly (readonly string[])[] = [
  [],
  ['milk'],
  ['egg'],
  ['nuts'],
  ['sesame'],
  ['wheat'],
  ['soy'],
  ['fish'],
  ['celery'],
  ['mustard'],
  ['milk', 'egg'],
  ['nuts', 'sesame'],
  ['wheat', 'milk'],
  ['vegan'],
];

/** A course of a given size, the same on every run, and the calculation of all its kit sheets from plain data. */
export function course({ sessions, participants, lines, profiles }: Size): {
  input: CourseInput;
  compute(input: CourseInput): unknown;
} {
  const measures = TYPICAL.measures.filter((fact) => fact.measure !== 'slice');
  const line = (session: number, n: number): WrittenLine => {
    const fact = measures[(session * 37 + n * 11) % measures.length] as (typeof measures)[number];
    return {
      ingredient: fact.ingredient,
      preparation: fact.preparation,
      amount: `${1 + ((session + n * 3) % 9)}/${1 + ((n + session) % 4)}`,
      unit: fact.measure,
      scaling: SCALINGS[n % SCALINGS.length],
      precision: PRECISIONS[(n + session) % PRECISIONS.length],
      spare: '1/20',
      pack_grams: '500',
      alternatives: [{ ingredient: 'olive oil', amount: '2', unit: 'Tbsp' }, { omit: true }],
    };
  };
  const input: CourseInput = {
    recipes: Array.from({ length: sessions }, (_, session) => ({
      servings: 4,
      lines: Array.from({ length: lines }, (__, n) => line(session, n)),
    })),
    roll: Array.from({ length: participants }, (_, n) => {
      const profile = n % profiles;
      return {
        id: `p${n}`,
        name: `Person ${n}`,
        servings: 1 + (profile % 3) * 2,
        needs: NEEDS[Math.floor(profile / 3) % NEEDS.length] ?? [],
      };
    }),
  };
  return { input, compute };
}

const memory = newMemory();

function compute({ recipes, roll }: CourseInput): unknown {
  const none = new Map<string, readonly string[]>();
  const participants = roll.map(
    ({ needs, ...person }): Participant => ({ ...person, needs: needs.map((need) => understandNeed(need, none)) }),
  );
  return recipes.map((written) => {
    const reading = readRecipe(written, TYPICAL, undefined, memory);
    if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
    return kitSheet([reading.recipe], participants, 'us', { memory });
  });
}
