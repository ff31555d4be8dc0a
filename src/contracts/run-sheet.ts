import { z } from 'zod';

const id = z.string().min(1).max(120);
const minutes = z.number().int('Whole minutes.').min(0, 'Not less than nothing.').max(2880, 'At most two days.');
const counts = z.record(id, z.number().int('Whole numbers only.').min(0).max(1000)).optional();

/** Tasks of a class, hands, heat and tools, as `POST /compute/run-sheet` takes them. */
export const runSheetCase = z
  .object({
    kind: z.literal('run-sheet').optional(),
    hands: z
      .array(z.object({ id, age: z.number().int().min(0).max(130) }))
      .max(60, 'At most 60 pairs of hands.')
      .optional(),
    heat: counts,
    tools: counts,
    tasks: z
      .array(
        z.object({
          id,
          dish: id.optional(),
          on: minutes,
          off: minutes,
          heat: id.optional(),
          celsius: z.number().int().min(-50).max(600).optional(),
          tools: z.array(id).max(20).optional(),
          age: z.number().int().min(0).max(130).optional(),
          after: z.array(id).max(60).optional(),
          wait: minutes.optional(),
        }),
      )
      .max(80, 'At most 80 tasks.')
      .optional(),
    seconds: z.number().min(0.1).max(60, 'At most 60 seconds.').optional(),
  })
  .superRefine(({ hands = [], tasks = [] }, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (new Set(hands.map((pair) => pair.id)).size < hands.length) say(['hands'], 'Two pairs have the same id.');
    const known = new Set(tasks.map((task) => task.id));
    if (known.size < tasks.length) say(['tasks'], 'Two tasks have the same id.');
    for (const [at, task] of tasks.entries())
      for (const before of task.after ?? [])
        if (!known.has(before)) say(['tasks', at, 'after'], `There is no task “${before}”.`);
  })
  .meta({ id: 'RunSheetCase', description: 'Tasks of a class, hands, heat and tools: see docs/api.md' });

const whole = z.number().int();

/** What is answered: every task with its start, or what cannot be done. */
export const runSheetAnswer = z
  .union([
    z.object({
      minutes: whole,
      spread: whole,
      proven: z.object({ minutes: z.boolean(), spread: z.boolean() }),
      bound: z.object({ minutes: whole, spread: whole }).partial().optional(),
      tasks: z.array(z.object({ task: z.string(), start: whole, hands: z.string().optional() })),
    }),
    z.object({ impossible: z.array(z.string()) }),
  ])
  .meta({ id: 'RunSheet' });
