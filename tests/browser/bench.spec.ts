import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { newSession, signIn } from './people';

const ROLL = 'name,servings,avoids\nAda,1,\nBram,1,\nCleo,1,\nDario,1,\nEdie,1,\nFarid,1,\n';

async function lockedBench(page: Page, title: string, roll = ROLL): Promise<string> {
  await signIn(page);
  const { session } = await newSession(page, title, ['Slipway slaw'], roll);
  await page.goto(`${session}/kits`);
  await page.getByRole('button', { name: 'Lock kit sheet' }).click();
  await expect(page.getByText(/Version 1, locked/)).toBeVisible();
  return session.replace('/sessions', '/bench');
}

const place = (page: Page, kit: number, state: 'in' | 'not in yet') =>
  page.getByRole('button', { name: new RegExp(`^Kit ${kit}: .* ${state === 'in' ? '(?<!not )in' : state}$`) });

const live = (page: Page) => expect(page.getByText('live', { exact: true })).toBeVisible();

test('two screens see each other’s ticks and undos without being asked', async ({ page, context }) => {
  const bench = await lockedBench(page, 'Two screens');
  await page.goto(bench);
  const other = await context.newPage();
  await other.goto(bench);
  await live(page);
  await live(other);
  await place(page, 1, 'not in yet').click();
  await expect(place(other, 1, 'in')).toBeVisible();
  await place(other, 2, 'not in yet').click();
  await expect(place(page, 2, 'in')).toBeVisible();
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(place(page, 2, 'not in yet')).toBeVisible();
});

/** Says what Ada avoids, at the desk of the session whose bench this is. */
async function adaAvoids(desk: Page, bench: string, avoids: string): Promise<void> {
  await desk.goto(bench.replace('/bench', '/sessions'));
  await desk.getByRole('link', { name: /^Roll/ }).click();
  await desk.getByRole('button', { name: 'Edit Ada' }).click();
  const form = desk.getByRole('form', { name: 'Edit Ada' });
  await form.getByLabel('Avoids').fill(avoids);
  await form.getByRole('button', { name: 'Save' }).click();
}

test('a page at the door that does not know yet of a call-back is told, and hands nothing out', async ({
  page,
  context,
}) => {
  const roll = 'name,servings,avoids,mode\nAda,1,,take-home\nBram,1,,take-home\n';
  const bench = await lockedBench(page, 'At the door', roll);
  await page.goto(`${bench.replace('/bench', '/room')}/attendance`);
  const desk = await context.newPage();
  await adaAvoids(desk, bench, 'milk; mustard; egg');
  await desk.goto(bench);
  await expect(desk.getByRole('heading', { name: 'Stop: kit 1 is called back' })).toBeVisible();
  await page.getByRole('button', { name: 'Ada: collected', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'The kit of Ada is called back' })).toBeVisible();
  const anyway = page.getByRole('button', { name: 'Ada: they have it all the same' });
  await expect(anyway).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('button', { name: 'Bram: collected', exact: true }).click();
  await expect(page.getByRole('status')).toContainText('1 collected; 1 still open');
  await anyway.click();
  await expect(page.getByRole('status')).toContainText('2 collected.');
});

test('a need that changes after packing calls the kit back, loudly, on every screen', async ({ page, context }) => {
  const bench = await lockedBench(page, 'Called back');
  await page.goto(bench);
  await place(page, 1, 'not in yet').click();
  await live(page);
  const desk = await context.newPage();
  await adaAvoids(desk, bench, 'milk; mustard; egg');
  await expect(page.getByRole('heading', { name: 'Stop: kit 1 is called back' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Kit 1: .* is called back$/ })).toBeDisabled();
  await adaAvoids(desk, bench, '');
  await expect(page.getByRole('heading', { name: 'Stop: kit 1 is called back' })).toHaveCount(0);
  await expect(place(page, 1, 'in')).toBeVisible();
});

test('the instruments: a weight is read, a scanned label opens its kit, labels come out of the printer', async ({
  page,
}) => {
  const bench = await lockedBench(page, 'Instruments');
  const kits = (await (await page.request.get(`/api/v1${bench.replace('/bench', '/sessions')}/kit-sheet`)).json()).kits;
  await page.goto('/devices');
  await page.getByLabel('Grams on the scale').fill('118');
  await page.getByRole('button', { name: 'Put it on' }).click();
  await page.getByLabel('Code before the scanner').fill(kits[2].id);
  await page.getByRole('button', { name: 'Hold it before the scanner' }).click();
  await expect(page.getByRole('region', { name: 'Code scanner' })).toContainText(kits[2].id);
  await page.goto(bench);
  await page.getByRole('button', { name: 'Weigh' }).click();
  await expect(page.getByText(/^118 g, aim .+ for kit 1: too (?:much|little)$/)).toBeVisible();
  await page.getByRole('button', { name: 'Scan a code' }).click();
  await expect(page.getByRole('heading', { name: 'Kit 3' })).toBeVisible();
  // A real scanner types like a keyboard.
  await page.keyboard.type(kits[4].id);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Kit 5' })).toBeVisible();

  await page.goto(`${bench.replace('/bench', '/sessions')}/packing`);
  await page.getByRole('button', { name: 'Send to the label printer' }).click();
  await page.getByRole('link', { name: 'look at the tray' }).click({ timeout: 20_000 });
  const tray = page.getByRole('listitem').filter({ hasText: 'Instruments one, version 1' });
  await expect(tray).toContainText('1 page');
  const address = await tray.getByRole('link', { name: /^Look at/ }).getAttribute('href');
  expect((await (await page.request.get(address ?? '')).body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a kit that one product alone makes safe: its label is read, it is named on the lists, and the bench asks for it', async ({
  page,
}) => {
  await signIn(page);
  const roll = 'name,servings,avoids\nAda,2,\nSaul,2,sulphites\n';
  const { session } = await newSession(page, 'One product', ['Keelson bean stew'], roll);
  await page.goto(`${session}/kits`);
  await page.getByText('Label of the canned white beans', { exact: true }).click();
  const form = page.getByRole('form', { name: 'Label of the canned white beans' });
  await form.getByLabel('Product, as its pack names it').fill('Beans no. 7');
  await form.getByRole('button', { name: 'Record label' }).click();
  await expect(page.getByText('label of “Beans no. 7” recorded, names no allergen')).toBeVisible();
  await page.getByRole('button', { name: 'Lock kit sheet' }).click();
  await expect(page.getByText(/Version 1, locked/)).toBeVisible();
  await page.goto(`${session}/buying`);
  await expect(page.getByText('only “Beans no. 7”')).toBeVisible();
  await page.goto(session.replace('/sessions', '/bench'));
  await live(page);
  const question = page.getByText('Is the pack in your hand “Beans no. 7”?');
  for (let step = 0; step < 20 && !(await question.isVisible()); step++)
    await page.getByRole('button', { name: 'Next' }).click();
  await expect(place(page, 1, 'not in yet')).toBeDisabled();
  await page.getByRole('button', { name: 'Yes, it is this one' }).click();
  await place(page, 1, 'not in yet').click();
  await expect(place(page, 1, 'in')).toBeVisible();
});

test('a lost connection keeps the ticks on the device, says so, and saves each once', async ({ page, context }) => {
  const bench = await lockedBench(page, 'Lost connection');
  await page.goto(bench);
  await context.setOffline(true);
  await place(page, 1, 'not in yet').click();
  await place(page, 2, 'not in yet').click();
  await expect(page.getByRole('alert').filter({ hasText: '2 not saved yet' })).toBeVisible();
  await expect(page.getByLabel('Connection')).toHaveText('offline, 2 kept here');
  await context.setOffline(false);
  await live(page);
  await expect(page.getByRole('alert').filter({ hasText: 'not saved yet' })).toHaveCount(0);
  await page.reload();
  await expect(place(page, 1, 'in')).toBeVisible();
  await expect(place(page, 2, 'in')).toBeVisible();
  const events = await (await page.request.get(`/api${bench}/ticks?since=0`)).json();
  expect(events.events).toHaveLength(2);
});

test('a database killed in the middle of packing loses no acknowledged tick, and packing goes on', async ({ page }) => {
  test.setTimeout(120_000);
  const bench = await lockedBench(page, 'Killed database');
  await page.goto(bench);
  await expect(place(page, 1, 'not in yet')).toBeVisible();
  const acknowledged = new Set<string>();
  page.on('response', async (response) => {
    const request = response.request();
    if (request.method() !== 'POST' || !response.ok()) return;
    for (const tick of JSON.parse(request.postData() ?? '{}').ticks ?? []) acknowledged.add(tick.id);
  });
  const pid = () => Number(readFileSync(process.env.DATABASE_PID_FILE ?? '', 'utf8').trim());
  for (let round = 0; round < 3; round++) {
    await place(page, 1 + round * 2, 'not in yet').click();
    process.kill(pid(), 'SIGKILL');
    await place(page, 2 + round * 2, 'not in yet').click();
    await expect(page.getByRole('alert').filter({ hasText: 'not saved yet' })).toHaveCount(0, { timeout: 40_000 });
    await expect.poll(async () => (await page.request.get('/api/health')).ok(), { timeout: 40_000 }).toBe(true);
  }
  const { events } = await (await page.request.get(`/api${bench}/ticks?since=0`)).json();
  const saved = events.map(({ id }: { id: string }) => id);
  expect(new Set(saved).size).toBe(saved.length);
  for (const id of acknowledged) expect(saved).toContain(id);
  expect(events.map(({ seq }: { seq: number }) => seq)).toEqual([1, 2, 3, 4, 5, 6]);
  await page.reload();
  // The bench opens at the first component that is not in every kit: what was packed is one step back.
  await page.getByRole('button', { name: '← Back' }).click();
  for (let kit = 1; kit <= 6; kit++) await expect(place(page, kit, 'in')).toBeVisible();
});

test('the bench is worked without a mouse, and fits a phone and a small tablet', async ({ page }) => {
  const bench = await lockedBench(page, 'By keyboard');
  await page.goto(bench);
  await live(page);
  const heading = page.getByRole('heading', { level: 2 }).first();
  const first = await heading.textContent();
  await page.keyboard.press('ArrowRight');
  await expect(heading).not.toHaveText(first ?? '');
  await page.keyboard.press('ArrowLeft');
  await expect(heading).toHaveText(first ?? '');
  await place(page, 1, 'not in yet').focus();
  await page.keyboard.press('Enter');
  await expect(place(page, 1, 'in')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(place(page, 1, 'not in yet')).toBeVisible();
  for (const width of [390, 768]) {
    await page.setViewportSize({ width, height: 900 });
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(overflow, `${width} px`).toBeLessThanOrEqual(0);
  }
});
