import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { z } from 'zod';
import * as api from '../../src/contracts/api';
import { signIn } from './people';

test.beforeEach(({ page }) => signIn(page));

const V1 = '/api/v1';
const csv = { 'content-type': 'text/csv' };

async function get<T extends z.ZodType>(page: Page, path: string, shape: T): Promise<z.output<T>> {
  const answer = await page.request.get(V1 + path);
  expect(answer.status(), path).toBe(200);
  return shape.parse(await answer.json());
}

async function post<T extends z.ZodType>(page: Page, path: string, data: unknown, shape: T): Promise<z.output<T>> {
  const answer = await page.request.post(V1 + path, { data });
  expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true);
  return shape.parse(await answer.json());
}

test('from a roll to labels by token, without a browser', async ({ page, playwright, baseURL }) => {
  await page.goto('/people');
  const form = page.getByRole('form', { name: 'Make a token' });
  await form.getByLabel('What it is for').fill('till');
  await form.getByLabel('Role of the token').selectOption('coordinator');
  await form.getByRole('button', { name: 'Make token' }).click();
  const shown = page.getByRole('status').filter({ hasText: 'Keep it now, it is not shown again:' });
  const token = (await shown.locator('code').textContent()) ?? '';
  await page.reload();
  expect(await page.content()).not.toContain(token);

  const till = await playwright.request.newContext({ baseURL, extraHTTPHeaders: { authorization: `Bearer ${token}` } });
  const send = async (path: string, options: object) => (await till.post(V1 + path, options)).json();
  const recipe = await send('/recipes?labels=keep', {
    data: readFileSync('demo/recipes/slipway-slaw.json', 'utf8').replace('Slipway slaw', 'Slaw by token'),
    headers: { 'content-type': 'application/ld+json' },
  });
  const course = await send('/courses', { data: { title: 'By token' } });
  const session = await send(`/courses/${course.id}/sessions`, {
    data: { title: 'One', date: '2027-03-01', startsAt: '16:00', minutes: 60, place: 'Net loft', mode: 'take-home' },
  });
  await send(`/sessions/${session.id}/dishes`, { data: { recipeId: recipe.id } });
  const roll = 'name,servings,avoids\nAda,2,\nBram,0,\nCleo,4,egg\n';
  const refused = await till.post(`${V1}/courses/${course.id}/roll`, { data: roll, headers: csv });
  expect(refused.status()).toBe(422);
  expect((await refused.json()).problems).toMatchObject([{ where: 'line 3, servings' }]);
  expect(await send(`/courses/${course.id}/roll?leave-out=3`, { data: roll, headers: csv })).toEqual({
    saved: 2,
    updated: 0,
    waiting: 0,
  });
  const sheet = await (await till.get(`${V1}/sessions/${session.id}/kit-sheet`)).json();
  const { revision } = await send(`/sessions/${session.id}/kit-sheet/lock`, { data: { basis: sheet.basis } });
  expect(revision).toBe(1);
  const locked = api.kitSheetDocument.parse(await (await till.get(`${V1}/sessions/${session.id}/kit-sheet`)).json());
  const [kit] = locked.kits;
  const [component] = locked.variants.find(({ letter }) => letter === kit?.variant)?.components ?? [];
  const tick = { id: crypto.randomUUID(), kitId: kit?.id, component: component?.key, action: 'packed' };
  for (const added of [1, 0])
    expect(await send(`/sessions/${session.id}/ticks`, { data: { ticks: [tick] } })).toEqual({ added, revision: 1 });
  const labels = await till.get(`${V1}/sessions/${session.id}/labels?paper=letter`);
  expect((await labels.body()).subarray(0, 5).toString()).toBe('%PDF-');
  // Who locked it is told by the token's name.
  await page.goto(`/sessions/${session.id}/kits`);
  await expect(page.getByText(/by till/)).toBeVisible();
  await till.dispose();
});

test('every list comes a page at a time, and every answer in its documented shape', async ({ page }) => {
  const pages = api.pageOf(api.courseEntry);
  const first = await get(page, '/courses?limit=2', pages);
  expect(first.items).toHaveLength(2);
  const all: string[] = first.items.map(({ id }) => id);
  for (let next = first.next; next; ) {
    const more = pages.parse(await (await page.request.get(next)).json());
    all.push(...more.items.map(({ id }) => id));
    next = more.next;
  }
  expect(new Set(all).size).toBe(all.length);
  expect((await get(page, '/courses?limit=200', pages)).items.map(({ id }) => id)).toEqual(all);
  const [course] = first.items;
  await get(page, '/recipes', api.pageOf(api.recipeEntry));
  await get(page, `/courses/${course?.id}`, api.courseEntry);
  const roll = await get(page, `/courses/${course?.id}/roll?limit=200`, api.pageOf(api.rollPerson));
  expect(roll.items.length).toBeGreaterThan(3);
  const sessions = await get(page, `/courses/${course?.id}/sessions`, api.pageOf(api.sessionEntry));
  const [session] = sessions.items;
  await get(page, `/sessions/${session?.id}/kit-sheet`, api.kitSheetDocument);
  await get(page, `/sessions/${session?.id}/shopping-list`, api.shoppingListDocument);
  await get(page, `/sessions/${session?.id}/ticks`, api.packEvents);
  const { expect: _expected, ...lentils } = JSON.parse(readFileSync('tests/cases/lentil-pot.json', 'utf8'));
  await post(page, '/compute/kits', lentils, z.strictObject(api.caseResult.shape));
  const asCsv = await page.request.get(`${V1}/courses/${course?.id}/roll`, { headers: { accept: 'text/csv' } });
  expect(await asCsv.text()).toContain('name,age,servings,avoids,mode,group,household,contact,address,plan');
});

test('a key makes a write happen once', async ({ page }) => {
  const headers = { 'idempotency-key': crypto.randomUUID() };
  const answers = await Promise.all(
    Array.from({ length: 6 }, () => page.request.post(`${V1}/courses`, { data: { title: 'Once only' }, headers })),
  );
  const ids = new Set(await Promise.all(answers.map(async (answer) => (await answer.json()).id)));
  expect(ids.size).toBe(1);
  const other = await page.request.post(`${V1}/courses`, { data: { title: 'Another' }, headers });
  expect(other.status()).toBe(422);
  const { items } = await get(page, '/courses?limit=200', api.pageOf(api.courseEntry));
  expect(items.filter(({ title }) => title === 'Once only')).toHaveLength(1);
});

test('errors name the place and the remedy, as problem+json', async ({ page }) => {
  const { id } = await post(page, '/courses', { title: 'Errors' }, api.created);
  const bad = await page.request.post(`${V1}/courses/${id}/sessions`, { data: { title: '', date: '2026-02-30' } });
  expect(bad.headers()['content-type']).toContain('application/problem+json');
  const document = api.problemDocument.parse(await bad.json());
  expect(document.problems?.map(({ where }) => where)).toEqual(
    expect.arrayContaining(['title', 'date', 'startsAt', 'minutes', 'place', 'mode']),
  );
  for (const [method, path, status] of [
    ['get', '/nowhere', 404],
    ['put', '/courses', 405],
    ['get', '/courses/not-an-id', 422],
    ['get', `/courses/${crypto.randomUUID()}`, 404],
    ['get', '/courses?limit=0', 422],
    ['get', `/sessions/${crypto.randomUUID()}/ticks?since=-1`, 422],
  ] as const) {
    const answer = await page.request[method](V1 + path);
    expect(answer.status(), path).toBe(status);
    expect(api.problemDocument.parse(await answer.json()).title.length).toBeGreaterThan(10);
  }
});

test('the document lists every operation, with the schemas that check them', async ({ page, playwright, baseURL }) => {
  const anybody = await playwright.request.newContext({ baseURL });
  const document = await (await anybody.get(`${V1}/openapi.json`)).json();
  await anybody.dispose();
  expect(document.openapi).toBe('3.1.0');
  const operations = Object.entries<Record<string, { operationId: string; requestBody?: { content: object } }>>(
    document.paths,
  ).flatMap(([path, methods]) => Object.entries(methods).map(([method, what]) => ({ path, method, ...what })));
  expect(operations.length).toBe(28);
  expect(new Set(operations.map(({ operationId }) => operationId)).size).toBe(28);
  const session = document.paths['/courses/{courseId}/sessions'].post.requestBody.content['application/json'].schema;
  expect(session.properties.minutes).toMatchObject({ type: 'integer', minimum: 15, maximum: 720 });
  // Every operation is there: none answers that there is no such address.
  for (const { path, method, requestBody } of operations) {
    const [type = 'application/json'] = Object.keys(requestBody?.content ?? {});
    const address = V1 + path.replace(/\{\w+\}/g, crypto.randomUUID());
    const answer = await page.request.fetch(address, {
      method: method.toUpperCase(),
      ...(method === 'get' ? {} : { data: '{}', headers: { 'content-type': type } }),
    });
    expect([200, 404, 422], `${method} ${path}: ${answer.status()}`).toContain(answer.status());
    if (answer.status() === 404) expect((await answer.json()).title).not.toContain('no such address');
  }
});
