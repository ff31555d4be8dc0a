'use server';

import { randomUUID } from 'node:crypto';
import { attempt, fields } from '@/app/form';
import { setKitRules, viewKitRules } from '@/services/kits/rules';
import type { FormState } from '@/ui/action-form';
import { call } from '../../../../../access';

type Rules = Awaited<ReturnType<typeof viewKitRules>>['rules'];

/** Saves the rules of a course with one change; refused when somebody else changed the course meanwhile. */
async function save(courseId: string, version: number, change: (rules: Rules) => unknown): Promise<void> {
  const { rules } = await call(viewKitRules, { courseId });
  await call(setKitRules, { courseId, version, rules: change(rules) } as never);
}

/** What a form leaves empty is not given. */
const given = (sent: Record<string, string>) =>
  Object.fromEntries(Object.entries(sent).filter(([, value]) => value.trim() !== ''));

export async function saveClass(
  courseId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setKitRules, async () => {
    const { cutsFrom, goesHome } = given(fields(data));
    await save(courseId, version, ({ supplies, consumables }) => ({
      supplies,
      consumables,
      cutsFrom,
      goesHome: goesHome === 'on',
    }));
    return 'Saved. Sheets that are not locked follow at once.';
  });
}

export async function addSupply(
  courseId: string,
  version: number,
  kind: 'jar' | 'issue once',
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setKitRules, async () => {
    const supply = { ...given(fields(data)), id: randomUUID(), kind };
    await save(courseId, version, (rules) => ({ ...rules, supplies: [...rules.supplies, supply] }));
    return 'Added. It goes with the first kit of each family, and late joiners catch up.';
  });
}

export async function addConsumable(
  courseId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setKitRules, async () => {
    const consumable = { ...given(fields(data)), id: randomUUID() };
    await save(courseId, version, (rules) => ({ ...rules, consumables: [...rules.consumables, consumable] }));
    return 'Added.';
  });
}

export async function takeAway(courseId: string, version: number, id: string): Promise<FormState> {
  return attempt(setKitRules, async () => {
    await save(courseId, version, (rules) => ({
      ...rules,
      supplies: rules.supplies.filter((supply) => supply.id !== id),
      consumables: rules.consumables.filter((consumable) => consumable.id !== id),
    }));
    return 'Taken away.';
  });
}
