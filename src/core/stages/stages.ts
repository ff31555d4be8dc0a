import { buying } from './buying';
import { classday } from './classday';
import { closeout } from './closeout';
import { crew } from './crew';
import { handout } from './handout';
import { kits } from './kits';
import { packing } from './packing';
import { plan } from './plan';
import { recipes } from './recipes';
import { roll } from './roll';
import type { JobTemplate, Stage } from './stage';

/** The ten stages of a session, in working order. A new one is its file here, a room on each floor it needs, and its line. */
export const STAGES = [plan, recipes, roll, kits, buying, crew, packing, handout, classday, closeout] as const;

export type StageKey = (typeof STAGES)[number]['key'];

export const STAGE_KEYS: readonly StageKey[] = STAGES.map(({ key }) => key);

const BY_KEY = new Map<string, Stage<StageKey>>(STAGES.map((stage) => [stage.key, stage]));

/** @throws when there is no such stage */
export function stageOf(key: string): Stage<StageKey> {
  const stage = BY_KEY.get(key);
  if (!stage) throw new Error(`There is no stage “${key}”.`);
  return stage;
}

/** The usual jobs of all stages, in working order, each with its stage. */
export const JOBS: readonly (JobTemplate & { readonly stage: StageKey })[] = STAGES.flatMap(({ key, jobs }) =>
  jobs.map((job) => ({ ...job, stage: key })),
);

/**
 * Where a stage's work on a session is done: its page, or its jobs on the countdown page.
 *
 * @example
 * stageHref('kits', { id: 's1', courseId: 'c1' }) //=> '/sessions/s1/kits'
 */
export const stageHref = (key: StageKey, session: { readonly id: string; readonly courseId: string }): string =>
  stageOf(key).page?.(session) ?? `/sessions/${session.id}/countdown#${key}`;
