import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { addCourse, listCourses } from '../plan/courses';
import { onceOnly } from './idempotency';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const add = (key: string, title: string, request = title) => addCourse(onceOnly(context, key, request), { title });
const titled = async (title: string) => (await listCourses(context, {})).filter((course) => course.title === title);

describe('a request with a key', () => {
  it('sent again changes nothing and is answered the same, also ten times at once', async () => {
    const key = v7();
    const ids = await Promise.all(Array.from({ length: 10 }, () => add(key, 'Knots and knives', 'a'.repeat(64))));
    expect(new Set(ids).size).toBe(1);
    expect(await add(key, 'Knots and knives', 'a'.repeat(64))).toBe(ids[0]);
    expect(await titled('Knots and knives')).toHaveLength(1);
  });

  it('of another content is refused', async () => {
    const key = v7();
    await add(key, 'One', 'b'.repeat(64));
    await expect(add(key, 'Two', 'c'.repeat(64))).rejects.toMatchObject({ problems: [{ where: 'Idempotency-Key' }] });
    expect(await titled('Two')).toEqual([]);
  });

  it('that failed may be sent again with the same key', async () => {
    const key = v7();
    await expect(add(key, '', 'd'.repeat(64))).rejects.toMatchObject({ kind: 'invalid' });
    await add(key, 'Three', 'd'.repeat(64));
    expect(await titled('Three')).toHaveLength(1);
  });
});
