import { expect, test } from '@playwright/test';
import { signIn } from './people';

test('somebody joins the crew, is sick, and the roster says what is empty and what would fill it', async ({ page }) => {
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
  await expect(row).toContainText('Sat-Sun 10:00-22:00');
  await expect(row).toContainText('not on 2030-12-24');

  await page.getByRole('link', { name: 'Zed Fulmar' }).click();
  await page.getByRole('button', { name: 'Note as sick' }).click();
  await expect(page.getByRole('button', { name: 'Well again' })).toBeVisible();
  await page.goto('/crew');
  await expect(row).toContainText('off all duties until');

  await page.goto('/crew/roster');
  await page.getByText('Why, and what would fill it').first().click();
  await expect(page.getByText(/has no time then|lacks a skill, or it has ended/).first()).toBeVisible();
  await expect(page.getByText('A proposal: nobody is asked by it yet.')).toBeVisible();
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
  await expect(page.getByRole('row', { name: /Yve Dunlin/ })).toContainText('Mon-Fri 09:00-13:00');
  const out = await page.request.get('/crew.csv');
  expect(await out.text()).toContain('Yve Dunlin,,,yes,driving until 2029-01-31,Mon-Fri 09:00-13:00');
});
