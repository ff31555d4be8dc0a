'use server';

import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import type { RollCells } from '@/core/roll/roll-row';
import { giveMeaning } from '@/services/programme/programme';
import { addPerson, editPerson, saveRoll, setStatus } from '@/services/roll/roll';
import type { FormState } from '@/ui/action-form';

const cellsOf = (data: FormData): RollCells => {
  const { name = '', age = '', servings = '', avoids = '', mode = '', ...family } = fields(data);
  const { household = '', contact = '', address = '', plan = '' } = family;
  return { name, age, servings, avoids, mode, household, contact, address, plan };
};

export async function add(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(async () => {
    const cells = cellsOf(data);
    await call(addPerson, { courseId, cells });
    return `${cells.name.trim()} is on the roll.`;
  });
}

export async function edit(
  enrolmentId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(async () => {
    await call(editPerson, { enrolmentId, version, cells: cellsOf(data) });
    return 'Saved.';
  });
}

export async function setPersonStatus(
  enrolmentId: string,
  version: number,
  status: 'enrolled' | 'withdrawn',
): Promise<FormState> {
  return attempt(async () => {
    await call(setStatus, { enrolmentId, version, status });
    return undefined;
  });
}

export async function giveWord(wish: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(async () => {
    await call(giveMeaning, { wish, codes: data.getAll('codes').map(String), foods: data.getAll('foods').map(String) });
    return undefined;
  });
}

export async function saveImport(
  courseId: string,
  rows: readonly { line: number; cells: RollCells; leaveOut?: boolean; shape?: string }[],
): Promise<FormState> {
  return attempt(async () => {
    const { saved } = await call(saveRoll, { courseId, rows: rows as never });
    return `${saved} ${saved === 1 ? 'person is' : 'people are'} on the roll.`;
  });
}
