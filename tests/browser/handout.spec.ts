import { expect, type Page, test } from '@playwright/test';
import { openSession, signIn } from './people';

const idOf = (address: string) => /sessions\/([0-9a-f-]{36})/.exec(address)?.[1] ?? '';

/** The table of the demo’s hand-out of today. */
async function table(page: Page): Promise<string> {
  await signIn(page);
  const address = `/table/${idOf(await openSession(page, 'Soup bags'))}`;
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Hand out: Soup bags' })).toBeVisible();
  return address;
}

test('two phones hand out at one table: each sees what the other did, and who has theirs is not handed a second', async ({
  page,
  browser,
}) => {
  const address = await table(page);
  const other = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await signIn(other);
  await other.goto(address);
  await page.getByRole('searchbox').fill('dovedale');
  await expect(page.getByText('Say the name, nothing else.')).toBeVisible();
  await page.getByRole('button', { name: 'Household Dovedale', exact: true }).click();
  await expect(page.getByRole('button', { name: /^2 A Household Dovedale.*handed out/ })).toBeVisible();
  await expect(other.getByRole('button', { name: /Household Dovedale.*handed out/ })).toBeVisible();
  // A slip is taken back, on both.
  await other.getByRole('button', { name: /Household Dovedale/ }).click();
  await other.getByRole('button', { name: /^Take back/ }).click();
  await expect(page.getByRole('button', { name: /Household Dovedale.*cold part/ })).toBeVisible();
  await other.close();
});

test('a phone without a network goes on handing out, and tells when it has one again', async ({ page, context }) => {
  await table(page);
  await context.setOffline(true);
  await page.getByRole('searchbox').fill('foxglove');
  await page.getByLabel(/Somebody else takes kit/).fill('A neighbour');
  await page.getByRole('button', { name: 'took it' }).click();
  await expect(page.getByRole('button', { name: /Foxglove-Ray.*to A neighbour/ })).toBeVisible();
  await expect(page.getByText('1 not sent yet.')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('1 not sent yet.')).toBeHidden();
  await page.reload();
  await expect(page.getByRole('button', { name: /Foxglove-Ray.*to A neighbour/ })).toBeVisible();
});

test('a driver goes from door to door on a page of their own, without a network too', async ({ page, browser }) => {
  await signIn(page);
  await page.goto('/crew');
  await page.getByRole('link', { name: 'Edda Rowan' }).click();
  await page.getByRole('button', { name: 'Show the link' }).click();
  const link = new URL((await page.locator('code').first().textContent()) ?? '').pathname;
  const away = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await away.newPage();
  await phone.goto(link);
  await phone.getByRole('link', { name: 'Your round to the doors today' }).click();
  await expect(phone.getByRole('heading', { name: /^To the doors/ })).toBeVisible();
  // Said by the phone's own clock, and therefore once the page is ready.
  await expect(phone.getByText(/minutes left for what is cold/)).toBeVisible();
  const next = phone.getByRole('region', { name: 'Next door' });
  const first = (await next.getByRole('heading').textContent()) ?? '';
  await away.setOffline(true);
  await next.getByRole('button', { name: `Handed to ${first}` }).click();
  await expect(next.getByRole('heading', { name: first })).toBeHidden();
  await expect(phone.getByText('1 not sent yet.')).toBeVisible();
  await away.setOffline(false);
  await expect(phone.getByText('1 not sent yet.')).toBeHidden();
  await openSession(page, 'Curry on screen', '/doors');
  await expect(page.getByText(/3 of 5 doors done/)).toBeVisible();
  await away.close();
});

test('rounds are changed by hand and judged while they are changed; a family’s hours are kept', async ({ page }) => {
  await openDoors(page);
  const round = page.getByRole('region', { name: 'Round of Wilf Sandar' });
  const doors = round.getByRole('listitem');
  const before = await doors.first().locator('b').textContent();
  await doors
    .first()
    .getByRole('button', { name: /later$/ })
    .click();
  await expect(doors.nth(1)).toContainText(before ?? '');
  await page.getByRole('button', { name: 'Keep this order' }).click();
  await expect(page.getByText('The order is kept.')).toBeVisible();
  await page.reload();
  await expect(doors.nth(1)).toContainText(before ?? '');
  const form = page.getByRole('form', { name: 'Door of Household Inchbold' });
  await form.getByLabel('Point').fill('here');
  await form.getByRole('button', { name: /^Keep/ }).click();
  await expect(form.getByText('Write it as 44.1032, -68.3341')).toBeVisible();
  await form.getByLabel('Point').fill('43°57′N 67°13′W');
  await form.getByRole('button', { name: /^Keep/ }).click();
  await expect(form.getByText('Kept.')).toBeVisible();
});

async function openDoors(page: Page): Promise<void> {
  await signIn(page);
  await openSession(page, 'Curry on screen', '/doors');
  await expect(page.getByRole('heading', { name: 'Doors and rounds' })).toBeVisible();
}

test('a family says on its page that it needs the kit later, and who hands out sees it', async ({ page, browser }) => {
  await signIn(page);
  const session = (await openSession(page, 'Soup bags')).replace(/\/$/, '');
  await page.goto(`${session}/handout`);
  await page.getByRole('button', { name: 'Write to the families' }).click();
  await expect(page.getByText(/families were written to/)).toBeVisible();
  await page.goto('/devices');
  const body = await page
    .getByText(/Hello Household Grindley,[\s\S]*\/kit\//)
    .first()
    .textContent();
  const link = /\/kit\/\S+/.exec(body ?? '')?.[0] ?? '';
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(link);
  await expect(phone.getByRole('heading', { name: 'Your kit: Soup bags' })).toBeVisible();
  const later = phone.getByRole('form', { name: 'We need it later' });
  await later.getByRole('button', { name: 'We need it later' }).click();
  await expect(later.getByText('When, or where, would it suit you?').last()).toBeVisible();
  await later.getByLabel('When, or where, would it suit you?').fill('after seven');
  await later.getByRole('button', { name: 'We need it later' }).click();
  await expect(phone.getByText('You said: later. “after seven”')).toBeVisible();
  await phone.getByRole('button', { name: 'Send us the recipe' }).click();
  await expect(phone.getByText('It is on its way to you.')).toBeVisible();
  await page.goto(`${session}/handout`);
  await expect(page.getByText('Household Grindley: needs it later. “after seven”')).toBeVisible();
  await phone.close();
});

test('what cools is watched: a temperature is noted, and it is kept only once it was seen cold', async ({ page }) => {
  await signIn(page);
  await page.goto(`/made/${idOf(await openSession(page, 'Parcels together'))}`);
  const rice = page.getByRole('region', { name: 'Rice for the swap-in cools' });
  await rice.getByRole('button', { name: 'It is over' }).click();
  await expect(rice.getByText(/not seen cold enough yet/)).toBeVisible();
  await rice.getByLabel('Thermometer, °F').fill('41');
  await rice.getByRole('button', { name: 'Note it' }).click();
  await expect(rice.getByText('41 °F (5 °C)')).toBeVisible();
  await expect(rice.getByText('Cooled in time.')).toBeVisible();
  await rice.getByRole('button', { name: 'It is over' }).click();
  await expect(page.getByRole('region', { name: 'Made and kept' })).toContainText('Rice for the swap-in');
  await page.goto('/temperatures');
  await expect(page.getByRole('row', { name: /Rice for the swap-in/ })).toContainText('kept');
});

test('a prep day is planned for the hands there are, and ticked on every screen', async ({ page, browser }) => {
  await signIn(page);
  await openSession(page, 'Breads from the pan', '/packing');
  await page.getByRole('link', { name: 'Prep', exact: true }).click();
  await page.getByRole('link', { name: 'Plan for the hands there are' }).click();
  await page.getByLabel('Pairs of hands').fill('4');
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/with 4 pairs of hands/)).toBeVisible();
  const other = await (await browser.newContext()).newPage();
  await signIn(other);
  await other.goto(page.url());
  const done = page.getByRole('button', { name: /^Done: / }).first();
  const what = (await done.getAttribute('aria-label'))?.replace('Done: ', '') ?? '';
  await done.click();
  await expect(page.getByText(/^1 of \d+ motions done/)).toBeVisible();
  await expect(other.getByRole('button', { name: `Done. Not yet after all: ${what}` }).first()).toBeVisible();
  await other.close();
});

test('a kit made without something is looked into by a second pair of eyes', async ({ page }) => {
  await signIn(page);
  await page.goto((await openSession(page, 'Breads from the pan')).replace('/sessions', '/bench'));
  await page.getByRole('button', { name: 'By kit' }).click();
  await expect(page.getByText(/^made without/).first()).toBeVisible();
  const components = page.getByRole('button', { pressed: false }).filter({ hasText: /g$|oz|Tbsp|tsp|cup|pot/ });
  while ((await components.count()) > 0) await components.first().click();
  const eyes = page.getByRole('region', { name: 'A second pair of eyes' });
  await expect(eyes).toBeVisible();
  await eyes.getByLabel('Who looks').fill('E. R.');
  await eyes
    .getByRole('button', { name: /looked into/ })
    .first()
    .click();
  await expect(eyes.getByRole('button', { name: /looked into/ })).toHaveCount(0);
});
