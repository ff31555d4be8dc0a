import type { PlannedStep } from '../recipes/steps/step-plan';
import { type DutyKind, isHot } from './duties';

/** What somebody wears and brings for a duty: the usual things of a teaching kitchen. */
const FOOD = ['Hair tied back, sleeves short or rolled up, nails short, no rings.', 'A clean apron.'];
const KITCHEN = [...FOOD, 'Closed shoes that do not slip.'];

const BRING: Readonly<Record<DutyKind, readonly string[]>> = {
  lead: [...KITCHEN, 'The lead’s sheet, printed.'],
  assistant: KITCHEN,
  knives: KITCHEN,
  heat: [...KITCHEN, 'Long sleeves of cotton if you have them: no fleece near a flame.'],
  fire: [...KITCHEN, 'Clothes of cotton or wool, and gloves that bear heat.'],
  'raw meat': KITCHEN,
  chat: ['A headset, and a charger.'],
  shop: ['Cool bags with ice packs, your driving licence, the list on your telephone.'],
  receive: ['A probe thermometer, and the delivery note to compare with.'],
  cook: [...FOOD, 'Closed shoes.'],
  pack: FOOD,
  drive: ['Cool boxes with ice packs, your driving licence, a charged telephone.'],
  'set up': ['Closed shoes.'],
  'wash up': ['Closed shoes.'],
  other: [],
};

const DO: Readonly<Record<DutyKind, string>> = {
  lead: 'You lead the class, and decide when something is not safe.',
  assistant: 'You go from table to table, and have an eye on the children near you.',
  knives: 'You stay where children cut: one hand’s task at a time, blades put down flat.',
  heat: 'You stay at the heat while it is on, handles turned in, and let nobody reach over it.',
  fire: 'You stay at the fire, and do nothing else, until it is out.',
  'raw meat': 'You handle what is raw, on its own board, and nothing else until you have washed your hands.',
  chat: 'You let people in, note who is there, read the chat, and tell the lead what is asked.',
  shop: 'You buy what the list says; a pack in hand is checked against what families avoid.',
  receive: 'You check what comes: temperature, dates, what was ordered; cold food is put away first.',
  cook: 'You make ready what has to soak, marinate, cook or chill before; cold within two hours, with its time written down.',
  pack: 'You pack at the bench, made-without kits first, and hand none out that is not closed.',
  drive: 'You bring the kits to the doors, cold food in cool boxes, each to the family it is for.',
  'set up': 'You lay out the tables before the class.',
  'wash up': 'You wash up and clear after the class; the floor is dry before you go.',
  other: '',
};

/** What somebody with a duty is told beforehand. */
export interface Briefing {
  readonly what: string;
  readonly bring: readonly string[];
}

/**
 * What a duty is, in a sentence, and what to wear and bring.
 *
 * @example
 * briefingOf('set up').bring //=> ['Closed shoes.']
 */
export const briefingOf = (kind: DutyKind): Briefing => ({ what: DO[kind], bring: BRING[kind] });

/** A step of a dish, as far as it says who is wanted at it. */
export type BriefStep = Pick<PlannedStep, 'text' | 'heat' | 'tools'>;

/** Of the steps of a class, those at which a duty is wanted. */
export function stepsFor(kind: DutyKind, steps: readonly BriefStep[]): string[] {
  const own = steps.filter(({ heat, tools }) => {
    if (kind === 'lead' || kind === 'assistant') return true;
    if (kind === 'knives') return tools.includes('knife');
    return (kind === 'heat' || kind === 'fire') && isHot(heat);
  });
  return own.map(({ text }) => text);
}
