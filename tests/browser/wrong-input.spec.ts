import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { bringRoll, newSession, openSession, signIn } from './people';

test.describe('signed in', () => {
  test.beforeEach(({ page }) => signIn(page));

  test('files that are no roll are refused with what to do, and the server goes on', async ({ page }) => {
    const { course } = await newSession(page, 'Wrong files', [], '');
    const alert = page.locator('main').getByRole('alert');
    const cases: [Buffer | string, string][] = [
      ['', 'The file is empty'],
      [Buffer.from([0x50, 0x4b, 3, 4, 0, 0]), 'This workbook is broken'],
      [Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0]), 'protected by a password'],
      ['who,what\na,b\n', 'No heading says where the names are'],
      ['name,servings\n"Ada,1\n', 'Line 2: a quotation mark'],
    ];
    for (const [file, message] of cases) {
      await bringRoll(page, course, file);
      await expect(alert).toContainText(message);
    }
    const huge = path.join(mkdtempSync(path.join(tmpdir(), 'roll-')), 'huge.csv');
    writeFileSync(huge, Buffer.alloc(51 * 1024 * 1024, 65));
    await page.getByLabel('File with the roll').setInputFiles(huge);
    await expect(alert).toContainText('has 51 MB; a roll has at most 2 MB');
    rmSync(path.dirname(huge), { recursive: true });
    const direct = await page.request.post(`/api/roll/preview?course=${course.split('/').at(-1)}`, {
      data: Buffer.alloc(3 * 1024 * 1024, 65),
    });
    expect(direct.status()).toBe(422);
    expect(await direct.json()).toMatchObject({ status: 422, title: expect.stringContaining('larger than 2 MB') });
    expect((await page.request.get('/api/health')).ok()).toBe(true);
  });

  test('Windows-1252, script in names and formulas stay what they are', async ({ page }) => {
    const roll = Buffer.concat([
      Buffer.from('name;servings\n=cmd();1\nZo'),
      Buffer.from([0xeb]),
      Buffer.from(' Marlow;1\n<img src=x onerror=alert(1)>;1\n'),
    ]);
    const { course, session } = await newSession(page, 'Odd names', ['Slipway slaw'], '');
    await bringRoll(page, course, roll);
    await expect(page.getByText('3 rows read as Windows-1252, separated by semicolon: 3 ready')).toBeVisible();
    await page.getByRole('button', { name: 'Save 3 to the roll' }).click();
    await page.getByRole('link', { name: 'Open the roll' }).click();
    await expect(page.getByRole('rowheader', { name: 'Zoë Marlow' })).toBeVisible();
    await expect(page.getByRole('rowheader', { name: '<img src=x onerror=alert(1)>' })).toBeVisible();
    expect(await (await page.request.get(`${session}/kits.csv`)).text()).toContain("'=cmd()");
  });

  test('a stale edit is told, and keeps what was typed', async ({ page, context }) => {
    const { session } = await newSession(page, 'Two editors', [], '');
    await page.goto(session);
    const other = await context.newPage();
    await other.goto(session);
    const save = async (tab: Page, place: string) => {
      const form = tab.getByRole('form', { name: 'Date, place and mode' });
      await form.getByRole('combobox', { name: 'Place' }).fill(place);
      await form.getByRole('button', { name: 'Save' }).click();
      return form;
    };
    await save(page, 'Net loft upstairs');
    // Only when the first is saved is the second stale.
    await expect(page.getByText('· Net loft upstairs ·')).toBeVisible();
    const form = await save(other, 'Harbour hall');
    await expect(form.getByRole('alert')).toContainText('was changed by someone else');
    await expect(form.getByRole('combobox', { name: 'Place' })).toHaveValue('Harbour hall');
    await page.reload();
    await expect(page.getByRole('combobox', { name: 'Place' })).toHaveValue('Net loft upstairs');
  });

  test('addresses that lead nowhere say so', async ({ page }) => {
    for (const address of [
      '/sessions/nonsense',
      '/courses/01936f00-0000-7000-8000-000000000000',
      '/recipes/%00',
      '/bench/x',
    ]) {
      const response = await page.goto(address);
      expect(response?.status()).toBeLessThan(500);
      await expect(page.getByRole('heading', { name: 'Nothing is here' })).toBeVisible();
    }
  });

  test('the calculation answers the shape of the case, and names what it cannot use', async ({ page }) => {
    const { expect: expected, ...input } = JSON.parse(readFileSync('tests/cases/lentil-pot.json', 'utf8'));
    const post = (data: unknown, query = '') => page.request.post(`/api/v1/compute/kits${query}`, { data });
    expect(await (await post(input)).json()).toEqual(expected);
    const withWorking = await (await post(input, '?working=1')).json();
    expect(withWorking.variants[0].components[0].working.from[0].because).toContain('scoops');
    const bad = await post({
      ...input,
      kits: [
        { count: 1, servings: 0 },
        { count: 1, servings: 1001, avoids: ['KIWI'] },
      ],
    });
    expect(bad.status()).toBe(422);
    expect(bad.headers()['content-type']).toContain('application/problem+json');
    expect((await bad.json()).problems.map(({ where }: { where: string }) => where)).toEqual([
      'kits[0].servings',
      'kits[1].servings',
    ]);
    const broken = await page.request.post('/api/v1/compute/kits', {
      data: Buffer.from('{"recipe":'),
      headers: { 'content-type': 'application/json' },
    });
    expect(broken.status()).toBe(422);
    const large = await post({ ...input, name: 'x'.repeat(2_000_000) });
    expect((await large.json()).title).toContain('larger than 1 MB');
  });
});

test('nobody sees anything without signing in, and another site’s page can do nothing', async ({
  page,
  playwright,
  baseURL,
}) => {
  for (const address of [
    '/',
    '/courses',
    '/recipes',
    '/programme',
    '/duties',
    '/bench/01936f00-0000-7000-8000-000000000000',
  ]) {
    await page.goto(address);
    await expect(page).toHaveURL(/sign-in/);
  }
  expect((await page.request.post('/api/v1/compute/kits', { data: {} })).status()).toBe(401);
  expect(
    (
      await page.request.post('/api/v1/compute/kits', { data: {}, headers: { authorization: 'Bearer wrong' } })
    ).status(),
  ).toBe(401);
  await page.getByLabel('E-mail').fill('marit@boatshed.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('do not fit together')).toBeVisible();
  await signIn(page);
  const foreign = await page.request.post('/api/v1/compute/kits', {
    data: {},
    headers: { origin: 'https://elsewhere.example' },
  });
  expect(foreign.status()).toBe(403);
  const cookie = (await page.context().cookies()).find(({ name }) => name === 'logistra');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  const anonymous = await playwright.request.newContext({ baseURL });
  expect((await anonymous.get('/sessions/01936f00-0000-7000-8000-000000000000/kits.csv')).status()).toBe(401);
  await anonymous.dispose();
});

test('crew meets the bench, and none of the desk', async ({ page, browser }) => {
  await signIn(page, 'crew');
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Bench and class' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Courses' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Pack Breads from the pan' }).click();
  await expect(page.getByText('made without milk').first()).toBeVisible();
  expect(await page.content()).not.toContain('Cleo Marrow');
  const desk = await browser.newPage();
  await signIn(desk);
  const session = await openSession(desk, 'Breads from the pan');
  await desk.close();
  for (const address of [`${session}/kits`, `${session}/buying`, '/courses', '/programme']) {
    await page.goto(address);
    await expect(page.getByText('Cleo Marrow')).toHaveCount(0);
    await expect(page.getByRole('heading', { name: 'This is not among your duties' })).toBeVisible();
  }
  expect((await page.request.get(`${session}/kits.csv`)).status()).toBe(403);
  expect((await page.request.get(`${session}/labels.pdf`)).status()).toBe(403);
});
