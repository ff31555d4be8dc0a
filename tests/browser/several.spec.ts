import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { newSession, signIn, signInAfresh } from './people';

const ROLL = 'name,servings,avoids\nAda,1,\nBram,1,\n';

test('who belongs to two programmes goes on in the other; a bench that stays open keeps its ticks until its own is back', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const { session } = await newSession(page, 'Two houses', ['Slipway slaw'], ROLL);
  await page.goto(`${session}/kits`);
  await page.getByRole('button', { name: 'Lock kit sheet' }).click();
  await expect(page.getByText(/Version 1, locked/)).toBeVisible();

  const own = await browser.newContext();
  const bench = await own.newPage();
  await signInAfresh(bench, 'instructor');
  await bench.goto(session.replace('/sessions', '/bench'));
  await expect(bench.getByText('live', { exact: true })).toBeVisible();
  const desk = await own.newPage();
  await desk.goto('/account');
  const programmes = desk.getByRole('region', { name: 'Your programmes' });
  await expect(programmes.getByText('The Boatshed House, Orrin Quay, instructor')).toBeVisible();
  await programmes.getByRole('button', { name: 'Go on here' }).click();
  await expect(desk.getByRole('heading', { name: 'Countdown' })).toBeVisible();
  await expect(desk.getByRole('link', { name: 'Saltmarsh Supper Club' })).toBeVisible();
  // Of the first programme nothing is there.
  await desk.goto(session);
  await expect(desk.getByRole('heading', { name: 'Nothing is here' })).toBeVisible();

  const first = (state: string) => bench.getByRole('button', { name: new RegExp(`^Kit 1: .* ${state}$`) }).first();
  await first('not in yet').click();
  await expect(bench.getByText(/1 (tick|not)/).first()).toBeVisible();
  await desk.goto('/account');
  await desk.getByRole('region', { name: 'Your programmes' }).getByRole('button', { name: 'Go on here' }).click();
  await expect(desk.getByRole('link', { name: 'The Boatshed House, Orrin Quay' })).toBeVisible();
  await page.goto(session.replace('/sessions', '/bench'));
  await expect(page.getByRole('button', { name: /^Kit 1: .* (?<!not )in$/ }).first()).toBeVisible();
  await own.close();
});

test('a city sees counts and money of its programmes, saves them, and gets no further', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await signInAfresh(page, 'city');
  await expect(page.getByRole('heading', { name: 'Orrin Quay Schools' })).toBeVisible();
  const row = page.getByRole('row', { name: /Millrace Kitchen/ });
  await expect(row).toContainText('fewer than 5');
  await expect(page.getByRole('listitem').filter({ hasText: 'Millrace Kitchen' })).toContainText('Nothing is planned');
  await page.getByText('Save as').click();
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV', exact: true }).click();
  const text = readFileSync(await (await saved).path(), 'utf8');
  expect(text.split('\n')[0]).toContain('programme,sessions held');
  expect(text).not.toMatch(/Skene|Oxley|Tarn/);
  for (const address of ['/', '/courses', '/families', '/reports']) {
    await page.goto(address);
    await expect(page.getByRole('heading', { name: 'Orrin Quay Schools' })).toBeVisible();
  }
  await page.goto('/operator');
  await expect(page.getByRole('heading', { name: 'Nothing is here' })).toBeVisible();
  await context.close();
});

test('a coordinator sees who looks over the programme', async ({ page }) => {
  await signIn(page);
  await page.goto('/people');
  await expect(page.getByRole('region', { name: 'Who looks over the programme' })).toContainText('Ines Calloway');
});
