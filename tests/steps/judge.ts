// What is read from a step against what a person wrote down for it.
import { planSteps } from '@/core/recipes/steps/step-reader';
import type { Reference } from '@/core/reference/reference';

/** A step: minutes of hands where it names them ("~" where it does not), minutes alone, heat, tools, least age, doneness. */
export type LabelledStep = readonly [
  text: string,
  on: string,
  off: number,
  heat: string,
  tools: readonly string[],
  age: number,
  done: string,
];

/** Tools that are counted or dangerous: one too many is wrong as well. */
const COUNTED = ['knife', 'peeler', 'grater', 'whisk', 'sieve', 'pan', 'pot', 'rolling pin', 'blender', 'thermometer'];

/** What is wrong with the reading of a step, fact by fact; and whether a child may do what it should not. */
export function judgeStep([text, on, off, heat, tools, age, done]: LabelledStep, reference: Reference) {
  const [step] = planSteps({ steps: [text], ingredients: [] }, reference);
  if (!step) throw new Error('One step gives one plan.');
  const own: readonly string[] = step.tools;
  const wrong = [
    ...(on === '~'
      ? step.handsOn <= 25
        ? []
        : [`hands ${step.handsOn}`]
      : step.handsOn === Number(on)
        ? []
        : [`hands ${step.handsOn}, not ${on}`]),
    ...(step.handsOff === off ? [] : [`alone ${step.handsOff}, not ${off}`]),
    ...(step.heat === heat ? [] : [`heat ${step.heat}, not ${heat}`]),
    ...(tools.every((tool) => own.includes(tool)) &&
    own.every((tool) => !COUNTED.includes(tool) || tools.includes(tool) || (tool === 'pot' && heat === 'hob'))
      ? []
      : [`tools ${own.join('+')}, not ${tools.join('+')}`]),
    ...(step.fromAge === age ? [] : [`age ${step.fromAge}, not ${age}`]),
    ...((done === '' ? step.done === '' : step.done.includes(done)) ? [] : [`done “${step.done}”, not “${done}”`]),
  ];
  return { text, wrong, facts: 6, isTooYoung: step.fromAge < age };
}
