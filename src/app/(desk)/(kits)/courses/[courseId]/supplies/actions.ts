'use server';

import { randomUUID } from 'node:crypto';
import { call } from '@/app/access';
import { attempt, fields, given } from '@/app/form';
import type { InputOf } from '@/services/gate/gate';
import { setKitRules, viewKitRules } from '@/services/kits/rules';
import type { FormState } from '@/ui/form/form-state';

type Rules = Awaited<ReturnType<typeof viewKitRules>>['rules'];

/** Saves the rules of a course with one change; refused when somebody else changed the course meanwhile. @returns the way back */
async function save(
  courseId: string,
  version: number,
  change: (rules: Rules) => InputOf<typeof setKitRules>['rules'],
): Promise<() => Promise<FormState>> {
  const { rules } = await call(viewKitRules, { courseId });
  await call(setKitRules, { courseId, version, rules: change(rules) });
  return putRulesBack.bind(null, courseId, version + 1, rules);
}

/** The rules of a course are as before; refused when somebody changed the course since. */
export async function putRulesBack(courseId: string, version: number, rules: Rules): Promise<FormState> {
  return attempt(setKitRules, async () => {
    await call(setKitRules, { courseId, version, rules });
    return 'As before.';
  });
}

export async function saveClass(
  courseId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setKitRules, async () => {
    const { cutsFrom, goesHome } = given(fields(data));
    const undo = await save(courseId, version, ({ supplies, consumables }) => ({
      supplies,
      consumables,
      cutsFrom,
      goesHome: goesHome === 'on',
    }));
    return { message: 'Saved. Sheets that are not locked follow at once.', undo };
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
    const { name = '', ...supply } = given(fields(data));
    await save(courseId, version, (rules) => ({
      ...rules,
      supplies: [...rules.supplies, { ...supply, name, id: randomUUID(), kind }],
    }));
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
    const { name = '', per = '', ...consumable } = given(fields(data));
    await save(courseId, version, (rules) => ({
      ...rules,
      consumables: [...rules.consumables, { ...consumable, name, per, id: randomUUID() }],
    }));
    return 'Added.';
  });
}

export async function takeAway(courseId: string, version: number, id: string): Promise<FormState> {
  return attempt(setKitRules, async () => {
    const undo = await save(courseId, version, (rules) => ({
      ...rules,
      supplies: rules.supplies.filter((supply) => supply.id !== id),
      consumables: rules.consumables.filter((consumable) => consumable.id !== id),
    }));
    return { message: 'Taken away.', undo };
  });
}
