// What a family has to mind with a dish, as sentences: only what this dish needs, in the order in which it is cooked.

import type { RecipeCaution } from './cautions';

const listed = (foods: readonly string[]): string =>
  foods.length < 2 ? (foods[0] ?? 'it') : `${foods.slice(0, -1).join(', ')} and ${foods.at(-1)}`;

const cap = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/**
 * Each hazard of the table of cautions that a dish can bring into a home, told with the foods that bring it; in reading order: what
 * is looked at first, what is done by the board, at the stove, for whom it is changed, and afterwards. What they rest on: the same
 * sources as the table's rows.
 */
const SENTENCES: readonly (readonly [hazard: string, say: (foods: readonly string[]) => string])[] = [
  [
    'swollen, leaking, rusted or sharply dented cans and broken seals',
    () => 'Do not open a can or pack that is swollen, leaking, rusted or sharply dented.',
  ],
  [
    'green or sprouting potatoes and bitter courgettes',
    (foods) => `Do not use ${listed(foods)} that ${foods.length > 1 ? 'are' : 'is'} green, sprouting or bitter.`,
  ],
  [
    'raw poultry rinsed under the tap',
    (foods) => `Do not rinse ${listed(foods)}: splashes spread bacteria. Cooking it through makes it safe.`,
  ],
  ['raw meat juices', (foods) => `Use a board and knife of their own for ${listed(foods)}, and wash hands afterwards.`],
  [
    'dried kidney beans',
    () =>
      'Soak dried kidney beans for at least 5 hours, pour the water away, and boil them hard for 10 minutes (30 in the US) before anything else; never put them into a slow cooker raw.',
  ],
  ['sharp knives', () => 'Children cut with a claw grip, on a board that does not slip, with an adult beside them.'],
  ['graters and peelers', () => 'Stop grating before the end piece.'],
  ['stones and hard squash', (foods) => `An adult cuts ${listed(foods)}.`],
  ['chilli peppers', (foods) => `After ${listed(foods)}, wash hands at once and keep them from the eyes.`],
  ['raw flour, dough and batter', () => 'Nobody tastes raw dough or batter.'],
  ['tasting', () => 'Take a clean spoon for each taste.'],
  [
    'ovens, hobs and hot oil',
    () => 'An adult works at the oven, the hob and with hot oil; never put water on burning oil.',
  ],
  [
    'hot liquid in a closed blender',
    () => 'Let hot liquid cool before blending; fill a third and keep the lid’s vent open. An adult does it.',
  ],
  [
    'open fire and barbecue',
    () => 'Cook over fire outdoors only, upwind of it, hair tied, with water at hand for wood.',
  ],
  ['burns', () => 'Cool a burn under running water for 20 minutes.'],
  ['honey and foods made with it', (foods) => `No ${listed(foods)} for a child under one year: it can carry botulism.`],
  [
    'whole grapes, cherry tomatoes, olives and large berries',
    (foods) => `For children under 5, cut ${listed(foods)} lengthways into quarters, without stones.`,
  ],
  [
    'whole and chopped nuts and lumps of nut butter',
    (foods) => `For children under 5, ${listed(foods)} ${foods.length > 1 ? 'are' : 'is'} ground fine, or spread thin.`,
  ],
  [
    'sausages, hard cheese in chunks, raw apple, raw carrot, popcorn, marshmallows, hard sweets and fish bones',
    (foods) =>
      `For children under 5, cut ${listed(foods)} small, grate or cook until soft; they sit, and somebody watches.`,
  ],
  ['raw or runny egg', () => 'Cook egg through for children and for anybody who is pregnant, older or ill.'],
  [
    'mould-ripened cheese, unpasteurised milk or juice, smoked fish, deli meat, liver and high-mercury fish',
    (foods) =>
      `For anybody who is pregnant, older or ill, leave out ${foods.length > 0 ? listed(foods) : 'what is unpasteurised'}, or replace it.`,
  ],
  ['raw sprouts', (foods) => `Cook ${listed(foods)} for children and for anybody who is pregnant, older or ill.`],
  [
    'cut tomatoes, melon and leafy greens',
    (foods) => `Once cut, ${listed(foods)} ${foods.length > 1 ? 'go' : 'goes'} into the fridge, at or below 5 °C.`,
  ],
  [
    'cooked rice, pasta, potatoes and pulses',
    (foods) => `Cool what is left of cooked ${listed(foods)} fast, and keep it cold.`,
  ],
  ['chopped garlic or herbs in oil', () => 'Garlic or herbs in oil keep at most 4 days, dated, at or below 5 °C.'],
];

/**
 * The cautions of a dish as sentences.
 *
 * @param cautions of the dish, each with the foods that brought it
 * @example
 * // Of honey: cautionSentences(cautionsOf(['honey'], [])) gives ['No honey for a child under one year: it can carry botulism.']
 */
export function cautionSentences(cautions: readonly RecipeCaution[]): string[] {
  const brought = new Map(cautions.map((each) => [each.hazard, each]));
  return SENTENCES.flatMap(([hazard, say]) => {
    const own = brought.get(hazard);
    return own ? [cap(say(own.foods ?? []))] : [];
  });
}

/** The hazards that are told in a sentence. */
export const TOLD: ReadonlySet<string> = new Set(SENTENCES.map(([hazard]) => hazard));
