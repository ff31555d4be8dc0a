import { expect, type Page, test } from '@playwright/test';
import { openSession, signIn } from './people';

const closeOf = async (page: Page, title: string) => {
  const address = (await openSession(page, title)).replace('/sessions', '/room');
  return `${address}/close`;
};

test('a session is closed out on a phone in parts, by two at once, and opened again with a reason', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const address = await closeOf(page, 'Omelettes and slaw');
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await signIn(phone, 'crew');
  await phone.goto(address);
  await page.goto(address);
  await expect(phone.getByLabel('What is known already')).toContainText('carrot ran short, 25 % more was needed');
  await phone.waitForLoadState('networkidle');
  await phone.getByLabel('Left of white cabbage').selectOption('half');
  const sent = phone.waitForRequest((request) => request.method() === 'POST');
  await phone.getByRole('button', { name: 'Note what was left' }).click();
  // What is chosen is what is sent, and what is sent is what is there.
  expect((await sent).postData()).toMatch(/left 6"\s+50\s/);
  // Exactly: an incident of the class is “noted.” too, and was there before.
  await expect(phone.getByText('Noted.', { exact: true })).toBeVisible();
  await phone.reload();
  await expect(phone.getByLabel('Left of white cabbage')).toHaveValue('50');
  await phone.getByRole('button', { name: 'Close this session' }).click();
  await expect(phone.getByText('Closed. What is noted from now on counts too.')).toBeVisible();
  await page.getByRole('button', { name: 'Close this session' }).click();
  await expect(page.getByText('It was closed already')).toBeVisible();
  await page.reload();
  await page.getByLabel('Why it is opened again').fill('a bowl was found in the fridge');
  await page.getByRole('button', { name: 'Open it again' }).click();
  await expect(page.getByText('Opened again: a bowl was found in the fridge')).toBeVisible();
  await phone.context().close();
});

test('what a course teaches is taken into a recipe, and what was taken shows what came of it', async ({ page }) => {
  await signIn(page);
  await page.goto('/lessons');
  await expect(page.getByRole('region', { name: 'Taken, and what came of it' })).toContainText(
    'Beacon oven wedges: plain yogurt, 70 %',
  );
  const lesson = page.getByRole('region', { name: 'more spare potato: Beacon oven wedges' });
  await expect(lesson).toContainText('3 of 24 were bad');
  await lesson.getByLabel('Per cent spare').fill('20');
  await lesson.getByRole('button', { name: 'Take it into the recipe' }).click();
  await expect(lesson).toBeHidden();
  await expect(page.getByRole('region', { name: 'Taken, and what came of it' })).toContainText('potato, 20 % spare');
});

test('a course is looked back at, reported on down to its sessions, saved as files, and repeated', async ({ page }) => {
  await signIn(page);
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Autumn Sprats', exact: true }).click();
  await page.getByRole('link', { name: 'Look back' }).click();
  await expect(page.getByRole('region', { name: 'Keep' })).toContainText('Beacon oven wedges: 18 would have more');
  await page.getByRole('link', { name: 'Its report' }).click();
  await expect(page.getByRole('heading', { name: 'Report: Autumn Sprats' })).toBeVisible();
  await expect(page.locator('main')).not.toContainText('Wren');
  await page.getByLabel('For').selectOption('Skerry Neighbourhood Fund');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByText('What your grant made possible')).toBeVisible();
  await expect(page.getByText('Young people reached')).toBeVisible();
  await page.getByText('Save as').click();
  for (const name of ['PDF', 'Workbook (XLSX)', 'CSV']) {
    const saved = page.waitForEvent('download');
    await page.getByRole('link', { name, exact: true }).click();
    expect((await saved).suggestedFilename()).toMatch(/^Autumn-? ?Sprats\.(pdf|xlsx|csv)$/);
  }
  await page.getByRole('link', { name: /the working of Attendance/ }).click();
  await expect(page.getByRole('row', { name: /Mugs and crumble/ })).toContainText('7');
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Autumn Sprats', exact: true }).click();
  await page.getByText('Repeat it in another season').click();
  const form = page.getByRole('form', { name: 'Repeat the course' });
  await form.getByLabel('Title').fill('Spring Sprats');
  const day = new Date(Date.now() + 90 * 86_400_000).toISOString().slice(0, 10);
  await form.getByLabel('First day').fill(day);
  await form.getByRole('button', { name: 'Repeat course' }).click();
  await expect(page.getByRole('heading', { name: 'What differs: Spring Sprats' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Dates' })).toContainText('Wedges and crumble');
  await expect(page.getByRole('region', { name: 'Recipes' })).toContainText('The roll starts empty.');
});
