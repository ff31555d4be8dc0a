import { expect, type Page, test } from '@playwright/test';
import { signIn } from './people';

/** The trip that somebody of the demo is on, as a phone sees it. */
async function openTrip(page: Page): Promise<string> {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/trips');
  await page
    .getByRole('link', { name: /^Open the list/ })
    .first()
    .click();
  await page.waitForURL(/\/trips\/[0-9a-f-]{36}$/);
  return page.url();
}

const state = (page: Page, text: RegExp) => expect(page.getByRole('status').first()).toHaveText(text);

test('a trip: two phones, one of them without a network for a while, then the till, the check-in and the shelf', async ({
  page,
  browser,
}) => {
  await signIn(page, 'crew');
  const address = await openTrip(page);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const context = await browser.newContext({ baseURL: new URL(address).origin });
  const other = await context.newPage();
  await signIn(other);
  await other.goto(address);
  const all = await page.getByRole('button', { name: /^Taken: / }).count();
  expect(all).toBeGreaterThan(1);

  // Ticked without a network: it is kept, and said so; the other phone hears of it when the network is back.
  await page.context().setOffline(true);
  const first = page.getByRole('button', { name: /^Taken: / }).first();
  const name = (await first.getAttribute('aria-label')) ?? '';
  await first.click();
  await expect(page.getByText(/1 not sent yet/)).toBeVisible();
  await expect(other.getByRole('button', { name, exact: true })).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByText(/not sent yet/)).toHaveCount(0);
  await expect(other.getByRole('button', { name, exact: true })).toHaveCount(0);

  // Another pack: what it means is said as it is typed, and without asking anybody.
  await page.getByRole('button', { name: 'Something else' }).first().click();
  const swap = page.getByRole('group', { name: 'Another pack in its place' });
  await swap.getByLabel('As its pack calls it').fill('Dressed with butter');
  await swap.getByLabel('Grams').fill('400');
  await swap.getByLabel('Price').fill('2.10');
  await swap.getByLabel('I read its label; it names').check();
  await expect(swap.getByText(/right for all kits/).first()).toBeVisible();
  await swap.getByLabel('milk', { exact: true }).check();
  await expect(swap.getByText(/not for kits .*holds milk/).first()).toBeVisible();
  await expect(swap.getByRole('button', { name: 'Take this instead' })).toBeDisabled();
  await page.getByRole('button', { name: 'It is not there' }).click();
  await expect(other.getByText('Not there', { exact: true })).toBeVisible();
  for (let left = all - 2; left > 0; left--)
    await page
      .getByRole('button', { name: /^Taken: / })
      .first()
      .click();
  await state(page, /^(\d+) of \1/);
  await expect(page.getByText(/not sent yet/)).toHaveCount(0);

  await page.getByLabel('Total of the receipt').fill('31,40');
  await page.getByLabel('Who paid').fill('Tobin');
  await page.getByRole('button', { name: 'Paid', exact: true }).click();
  await expect(page.getByText('31.40 paid by Tobin.')).toBeVisible();

  // Checked in: what has no day is asked for at its field, and nothing is saved before.
  await page.getByRole('link', { name: 'Check in what it brought' }).click();
  const lines = page.getByRole('form', { name: 'Check in' }).locator('fieldset');
  const line = lines.first();
  const kept = (await lines.last().locator('legend').textContent()) ?? '';
  await line.getByLabel(/^Refused/).fill(await line.getByLabel(/^Accepted/).inputValue());
  await line.getByLabel(/^Accepted/).fill('0');
  await page.getByRole('button', { name: 'Put it on the shelves' }).click();
  await expect(page.getByText(/say why it is refused/).first()).toBeVisible();
  await line.getByLabel('Why refused').selectOption('opened or damaged');
  for (const day of await page.getByLabel('Last day on it').all())
    if ((await day.inputValue()) === '') await day.fill('2030-01-05');
  await page.getByRole('button', { name: 'Put it on the shelves' }).click();
  await expect(page.getByRole('heading', { name: 'It is all checked in' })).toBeVisible();
  await page.goto('/shelves');
  await expect(page.getByText(kept, { exact: true }).first()).toBeVisible();
});

test('a plan says why, is planned again around what one wants, and a gift with a dented seam is not taken', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/buying');
  await expect(page.getByText('Proven: nothing cheaper meets every need.')).toBeVisible();
  await expect(page.getByText(/instead of .* less/).first()).toBeVisible();
  const leave = page.getByRole('button', { name: 'Leave this visit out' }).last();
  await leave.click();
  await expect(page.getByText(/^Allow .* again$/)).toBeVisible();

  // An open line of a dish, tried against the whole plan.
  await page.goto('/buying/choices');
  const take = page.getByRole('button', { name: /^Take .* for Gangway green rice$/ }).first();
  const food = (await take.textContent())?.trim().replace('Take ', '') ?? '';
  await take.click();
  await expect(page.getByText(`Now: ${food}.`)).toBeVisible();

  await page.goto('/shelves/gift');
  for (const check of ['It is sealed', 'It has its label', 'It is in date', 'Its pack is whole', 'It is not home-made'])
    await page.getByLabel(check).check();
  await page.getByLabel('It is a tin').check();
  for (const check of ['Neither end bulges', 'No rust', 'No leak']) await page.getByLabel(check).check();
  await page.getByLabel('Food', { exact: true }).fill('canned chickpeas');
  await page.getByLabel('As its pack calls it').fill('Chickpeas of a neighbour');
  await page.getByLabel('Grams each').fill('400');
  await page.getByLabel('Last day').fill('2030-01-05');
  await page.getByLabel('I read the label').check();
  await page.getByRole('button', { name: 'Take it, or refuse it' }).click();
  await expect(page.getByText('Do not take it: the tin is dented on a seam. The reason is kept.')).toBeVisible();
});

test('prices come in as a file: bad lines are named and nothing is saved until they are mended or left out', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/buying/prices');
  const file =
    'food,product,grams,shop,price\nleek,Leeks of the quay,600,Ropewalk market,1.80\nleek,Nothing,0,Ropewalk market,1\nunobtainium,X,5,Ropewalk market,1\n';
  const form = page.getByRole('form', { name: 'Bring prices in from a file' });
  await form
    .getByLabel('Price file')
    .setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  await form.getByRole('button', { name: 'Bring prices in' }).click();
  await expect(form.getByText('2 of 3 lines cannot be used. Nothing was saved')).toBeVisible();
  await expect(form.getByText(/line 3/)).toBeVisible();
  await form
    .getByLabel('Price file')
    .setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  await form.getByLabel('Leave out lines that cannot be used').check();
  await form.getByRole('button', { name: 'Bring prices in' }).click();
  await expect(form.getByText('1 prices are in, 1 products are new; 2 lines were left out.')).toBeVisible();
  await expect(page.getByRole('table', { name: 'Prices' }).getByText('Leeks of the quay')).toBeVisible();
});
