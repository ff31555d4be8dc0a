import { expect, test } from '@playwright/test';
import { signIn } from './people';

test('somebody joins the crew, and is off all duties while they are sick', async ({ page }) => {
  await signIn(page);
  await page.goto('/crew');
  await page.getByRole('link', { name: 'Add somebody' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Zed Fulmar');
  const skills = page.getByRole('group', { name: 'Skills and checks' });
  await skills.getByLabel('lead', { exact: true }).check();
  await page.getByLabel('When they have time').fill('weekends after 10 am\nwhenever');
  await page.getByRole('button', { name: 'Add to the crew' }).click();
  // Named where it stands; what was written is still there.
  await expect(page.getByText('“whenever” is no time that can be read.')).toBeVisible();
  await expect(skills.getByLabel('lead', { exact: true })).toBeChecked();
  await page.getByLabel('When they have time').fill('weekends after 10 am; not on 24 Dec 2030');
  await page.getByRole('button', { name: 'Add to the crew' }).click();
  const row = page.getByRole('row', { name: /Zed Fulmar/ });
  await expect(row).toContainText('Sat-Sun 10:00 am-10:00 pm');
  await expect(row).toContainText('not on Dec 24, 2030');

  await page.getByRole('link', { name: 'Zed Fulmar' }).click();
  await page.getByRole('button', { name: 'Note as sick' }).click();
  await expect(page.getByRole('button', { name: 'Well again' })).toBeVisible();
  // It was somebody else: taken back, and noted once more.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Not sick.')).toBeVisible();
  await page.getByRole('button', { name: 'Note as sick' }).click();
  await expect(page.getByRole('button', { name: 'Well again' })).toBeVisible();
  await page.goto('/crew');
  await expect(row).toContainText('off all duties until');
});

test('a crew comes in as a file: bad lines are named, and nothing is saved until they are mended or left out', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/crew');
  const file = 'name,adult,skills,free\nYve Dunlin,yes,driving until 2029-01-31,Mon-Fri 9-13\nXan Knot,perhaps,,\n';
  const form = page.getByRole('form', { name: 'Bring a crew in from a file' });
  await form
    .getByLabel('Crew file')
    .setInputFiles({ name: 'crew.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  await form.getByRole('button', { name: 'Bring the crew in' }).click();
  await expect(page.getByText('“perhaps” is neither yes nor no')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Yve Dunlin' })).toHaveCount(0);
  await form.getByLabel('Leave out lines that cannot be used').check();
  await form.getByRole('button', { name: 'Bring the crew in' }).click();
  await expect(page.getByText('1 person is of the crew now; 1 lines were left out.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Yve Dunlin/ })).toContainText('Mon-Fri 9:00 am-1:00 pm');
  const out = await page.request.get('/crew.csv');
  expect(await out.text()).toContain('Yve Dunlin,,,yes,driving until 2029-01-31,Mon-Fri 09:00-13:00');
});

test('somebody dropped out: the class is stopped, another is asked, says yes on a page of their own, and it goes on', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/crew/roster');
  await expect(page.getByRole('alert').filter({ hasText: 'Breads from the pan: Below its adults' })).toBeVisible();
  const breads = page.getByRole('region', { name: /Breads from the pan/ });
  await breads.getByRole('link', { name: 'Stand at the heat' }).first().click();
  await expect(page.getByText('has to be at work')).toBeVisible();
  const ask = page.getByRole('form', { name: 'Ask to step in' });
  await ask.getByLabel('Runa Castell', { exact: true }).check();
  await ask.getByLabel('A word from you (may be left empty)').fill('Only you can.');
  await ask.getByRole('button', { name: 'Ask them' }).click();
  await expect(page.getByText('asked, no answer yet')).toBeVisible();
  const place = page.url();

  await page.goto('/crew');
  await page.getByRole('link', { name: 'Runa Castell' }).click();
  await page.getByRole('button', { name: 'Show the link' }).click();
  const link = (await page.locator('code').first().textContent()) ?? '';
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(new URL(link).pathname);
  await expect(phone.getByRole('heading', { name: 'Hello Runa Castell' })).toBeVisible();
  const duty = phone.getByRole('listitem').filter({ has: phone.getByRole('heading', { name: 'Stand at the heat' }) });
  await expect(duty.getByText('Can you do it?')).toBeVisible();
  await duty.getByRole('button', { name: 'Yes, I will' }).click();
  await expect(duty.getByText('You said yes.')).toBeVisible();
  await expect(duty.getByText('Hair tied back')).toBeVisible();
  const calendar = await phone.request.get(`${new URL(link).pathname}/calendar.ics`);
  expect(await calendar.text()).toContain('SUMMARY:Stand at the heat');

  await page.goto(place);
  await expect(page.getByText('said yes')).toBeVisible();
  await page.goto('/');
  await expect(page.getByText('Breads from the pan').first()).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'Breads from the pan' })).toHaveCount(0);

  await page.goto('/crew');
  await page.getByRole('link', { name: 'Runa Castell' }).click();
  await page.getByRole('button', { name: 'End the link' }).click();
  await expect(page.getByText('The link works no longer.')).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('heading', { name: 'This page has ended' })).toBeVisible();
});

test('a table of people against duties is changed by keys, and says why where it cannot be', async ({ page }) => {
  await signIn(page);
  await page.goto('/crew/roster/table');
  const grid = page.getByRole('grid', { name: 'People against duties' });
  await grid.focus();
  const said = page.getByRole('status').first();
  await page.keyboard.press('ArrowDown');
  await expect(said).toContainText('Edda Rowan');
  // As far to the right as the first class.
  for (let step = 0; step < 8 && !(await said.textContent())?.includes('Lead the class'); step++)
    await page.keyboard.press('ArrowRight');
  await expect(said).toContainText('Edda Rowan, Lead the class');
  await page.keyboard.press('Enter');
  await expect(said).toContainText(/Edda Rowan lacks: lead|has all its people/);
  // Ruled out, and allowed again.
  await page.keyboard.press('n');
  await expect(said).toContainText('not Edda Rowan');
  await page.keyboard.press('n');
  await expect(said).toContainText('may be planned for Lead the class again');
  await page.keyboard.press('End');
  await expect(grid.getByRole('gridcell', { selected: true })).toBeInViewport();
});

test('the crew is tapped in and out at the door, and their hours are stated', async ({ page }) => {
  await signIn(page);
  await page.goto('/crew/hours');
  await expect(page.getByRole('region', { name: 'Wilf Sandar' })).toContainText('1.5 hours');
  const csv = await page.request.get('/crew/hours.csv');
  expect(await csv.text()).toContain('Wilf Sandar');
  const pdf = await page.request.get('/crew/hours.pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.goto('/crew/roster');
  await page.getByRole('link', { name: 'Small Hands Kitchen: Breads from the pan' }).click();
  await expect(page.getByRole('heading', { name: 'Breads from the pan: crew' })).toBeVisible();
  await page.getByRole('link', { name: 'At the door', exact: true }).click();
  const joss = page.getByRole('button', { name: /^Joss Arden/ });
  await joss.click();
  await expect(joss).toContainText('here since');
});
