import { expect, test } from '@playwright/test';
import ExcelJS from 'exceljs';
import { newSession, openPast, openSession, signIn } from './people';

/** A workbook as a coordinator might have it: other words for the columns, a formula, a second sheet. */
async function workbook(): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Families');
  sheet.addRow(['Kiddo', 'Years', 'Plates', 'Allergies']);
  sheet.addRow(['Piper Sandling', { formula: '4+5', result: 9 }, 1, 'egg']);
  sheet.addRow(['Rowan Sandling', 7, 2, '']);
  book.addWorksheet('Last year');
  return Buffer.from((await book.xlsx.writeBuffer()) as ArrayBuffer);
}

const file = async () => ({
  name: 'roll.xlsx',
  mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  buffer: await workbook(),
});

test('a workbook is matched by hand once and updated the next time; whoever finds no room waits and is offered a place', async ({
  page,
}) => {
  await signIn(page);
  const { course } = await newSession(page, 'Tide tables', [], '');
  await page.goto(`${course}/roll/import`);
  await page.getByLabel('File with the roll').setInputFiles(await file());
  await page.getByLabel('“Kiddo” is').selectOption('name');
  await page.getByLabel('“Years” is').selectOption('age');
  await page.getByLabel('“Plates” is').selectOption('servings');
  await page.getByRole('button', { name: 'Read it so' }).click();
  await expect(page.getByText('1 cell is a formula')).toBeVisible();
  await expect(page.getByText('not: “Last year”')).toBeVisible();
  await page.getByRole('button', { name: 'Save 2 to the roll' }).click();
  await expect(page.getByText('2 people are on the roll.')).toBeVisible();

  // The same file again: its words are known now, and its people are updated instead of doubled.
  await page.goto(`${course}/roll/import`);
  await page.getByLabel('File with the roll').setInputFiles(await file());
  await page.getByRole('button', { name: 'Update all 2' }).click();
  await expect(page.getByText('Updates that change no kit: 2, Piper Sandling, Rowan Sandling.')).toBeVisible();
  await page.getByRole('button', { name: 'Save 2 to the roll' }).click();
  await expect(page.getByText('2 updated.')).toBeVisible();

  await page.goto(`${course}/roll`);
  const form = page.getByRole('form', { name: 'Add a person' });
  await form.getByLabel('Name', { exact: true }).fill('Wilf Ternly');
  await form.getByLabel('Contact').fill('wilf@homes.example');
  await form.getByLabel('Comes as').selectOption('waitlisted');
  await form.getByRole('button', { name: 'Add to the roll' }).click();
  await expect(page.getByText('1 waits, first come: Wilf Ternly')).toBeVisible();
  await page.getByText('Give the place to Wilf Ternly').click();
  await expect(page.getByRole('textbox', { name: 'Message' })).toHaveValue(/It is yours/);
  await page.getByRole('button', { name: 'Enrol Wilf Ternly' }).click();
  await expect(page.getByText('3 enrolled')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByText('Save as').click();
  await page.getByRole('link', { name: 'Workbook (XLSX)' }).click();
  expect((await download).suggestedFilename()).toMatch(/\.xlsx$/);
});

test('what is made beside the kits and who is away reach the sheet; its differences are refused, then it is unlocked', async ({
  page,
}) => {
  await signIn(page);
  const roll = 'name,servings,avoids\nMarlo Kelp,2,\nNessa Kelp,2,milk\nOdd Brine,2,\n';
  const { session } = await newSession(page, 'Ebb and flow', ['Harbour lentil pot'], roll);
  await page.goto(session);
  const extras = page.getByRole('region', { name: 'Beside the kits' });
  await extras.getByLabel('Portions for the crew').fill('3');
  await extras.getByLabel('Kits in reserve').fill('1');
  await extras.getByLabel('Swap-in of Harbour lentil pot, servings').fill('8');
  await extras.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('They are bought, packed and labelled')).toBeVisible();
  const away = page.getByRole('region', { name: 'Away this time' });
  await away.getByLabel('Who').selectOption({ label: 'Odd Brine' });
  await away.getByRole('button', { name: 'Save' }).click();
  await expect(away.getByText('does not come: no kit')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(away.getByText('does not come: no kit')).toHaveCount(0);
  await away.getByLabel('Who').selectOption({ label: 'Odd Brine' });
  await away.getByRole('button', { name: 'Save' }).click();
  await expect(away.getByText('does not come: no kit')).toBeVisible();
  await expect(page.getByRole('region', { name: 'How many will come' })).toContainText('Of 2 on the roll');

  await page.goto(`${session}/kits`);
  await expect(page.getByText('swap-in batch, feeding 8')).toBeVisible();
  await expect(page.getByText('for the crew, feeding 3')).toBeVisible();
  await expect(page.getByText('Reserve 1')).toBeVisible();
  await expect(page.getByText('Odd Brine')).toHaveCount(0);
  await page.getByRole('button', { name: 'Lock kit sheet' }).click();
  await expect(page.getByText('Version 1, locked')).toBeVisible();

  await page.goto(session);
  await away.getByRole('button', { name: 'Odd Brine comes as usual' }).click();
  await expect(away.getByText('does not come: no kit')).toHaveCount(0);
  await page.goto(`${session}/kits`);
  await page.getByText('Refuse', { exact: true }).click();
  const refuse = page.getByRole('form', { name: 'Refuse the differences' });
  await refuse.getByLabel('Reason').fill('the shop is closed');
  await refuse.getByRole('button', { name: 'Refuse the differences' }).click();
  await expect(page.getByText('1 difference was refused: the shop is closed.')).toBeVisible();
  await page.getByText('Unlock it').click();
  const unlock = page.getByRole('form', { name: 'Unlock the kit sheet' });
  await unlock.getByLabel('Reason').fill('another dish');
  await unlock.getByRole('button', { name: 'Unlock version 1' }).click();
  await expect(page.getByText('Version 1 was unlocked: another dish.')).toBeVisible();

  // Somebody whose duty is in the room notes who came, on a phone.
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${session.replace('/sessions', '/room')}/attendance`);
  await page.getByRole('button', { name: 'Marlo Kelp: came' }).click();
  await expect(page.getByRole('button', { name: 'Marlo Kelp: came' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('status')).toContainText('1 came; 2 still open');
});

test('supplies go with the first kit, a late joiner catches up, and a family’s own shelf is not packed twice', async ({
  page,
}) => {
  await signIn(page);
  await openSession(page, 'Stew and salad', '/kits');
  const sheet = page.getByRole('table', { name: /Kit sheet/ }).first();
  await expect(sheet.getByText('joined late: with catch-up')).toBeVisible();
  await expect(sheet.getByRole('row', { name: /^olive oil, jar for the course/ })).toContainText('catch-up');
  await expect(sheet.getByRole('row', { name: /in the box they receive/ }).first()).toContainText('onion, chopped');
  await expect(page.getByRole('row', { name: /^ice pack/ })).toContainText('1 per cold kit');
  await expect(page.getByText('Within the budget of $14.00 a kit.')).toBeVisible();

  // A further jar is refused while it names no food, then goes with every kit.
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Fathom Suppers' }).first().click();
  await page.getByRole('link', { name: 'Supplies' }).click();
  const jar = page.getByRole('form', { name: 'Add a jar' });
  await jar.getByLabel('Food').fill('moon dust');
  await jar.getByLabel('Grams in one').fill('100');
  await jar.getByRole('button', { name: 'Add jar' }).click();
  await expect(jar.getByRole('alert')).toContainText('A jar holds a food of the reference table');
  await jar.getByLabel('Food').fill('Salt');
  await jar.getByLabel('Grams in one').fill('250');
  await jar.getByRole('button', { name: 'Add jar' }).click();
  await expect(page.getByText('salt, jar of 250 g')).toBeVisible();
  await openSession(page, 'Stew and salad', '/kits');
  await expect(sheet.getByRole('row', { name: /^salt, jar for the course/ })).toContainText('1 whole pack of 250 g');

  // What a family has is written down once, and refused where it names nothing known.
  await page.goto('/families?q=dunlin');
  await page.getByRole('link', { name: 'Household Dunlin', exact: true }).click();
  const home = page.getByRole('form', { name: 'At home' });
  await home.getByLabel('Staples they agreed to use').fill('moon dust');
  await home.getByRole('button', { name: 'Save' }).click();
  await expect(home.getByRole('alert')).toContainText('moon dust');
  await home.getByLabel('Staples they agreed to use').fill('honey');
  await home.getByLabel('A box they receive anyway').fill('carrot, 1 kg');
  await home.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Kits that are not locked follow at once.')).toBeVisible();
  await openSession(page, 'Stew and salad', '/kits');
  await expect(page.getByText('own honey').first()).toBeVisible();

  // On a long sheet a family is looked for.
  await page.getByLabel(/^Find among/).fill('dunlin');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await expect(page.getByText(/Only what was found for “dunlin”: 1 kind of kit of/)).toBeVisible();
  await expect(page.getByRole('table', { name: /^Kit sheet/ })).toContainText('own honey');
});

test('what is there makes so many kits; the prep list and the PDF say the same as the sheet', async ({ page }) => {
  await signIn(page);
  const path = await openSession(page, 'Stew and salad', '/kits/stock');
  await page.getByLabel('cooked ham').fill('300 g');
  await page.getByLabel('grapes').fill('lots');
  await page.getByRole('button', { name: 'How many kits does it make?' }).click();
  await expect(page.getByText('"lots" is no amount: write 750 g, 2 kg or 3.')).toBeVisible();
  await expect(page.getByRole('heading', { name: /\d+ of \d+ kits/ })).toBeVisible();
  await expect(
    page.getByText(/cooked ham runs out first: it alone makes \d+\. \$\d+\.\d\d rescues the rest\./),
  ).toBeVisible();
  const pdf = await page.request.get(`${path}/kits.pdf`);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a kit that nobody fetched is decided, and given only to whoever can eat it', async ({ page }) => {
  await signIn(page);
  await openPast(page, 'Fathom Suppers', 'Stew night', '/not-fetched');
  await expect(page.getByRole('status')).toContainText('1 of 1 still to be decided, on the day itself.');
  await expect(page.getByText(/Never restocked: mushroom, sliced/)).toBeVisible();
  const form = page.getByRole('form', { name: /What becomes of kit/ });
  await expect(form.getByLabel('What becomes of it').getByRole('option', { name: 'given away' })).toHaveCount(0);
  await form.getByLabel('What becomes of it').selectOption('taken apart');
  await form.getByRole('button', { name: 'Decide' }).click();
  await expect(page.getByText('Decided: taken apart.')).toBeVisible();
});

test('several people are changed at once and as they were again; what was typed and not sent is kept', async ({
  page,
}) => {
  await signIn(page);
  const { course } = await newSession(page, 'Several at once', [], 'name,servings\nAda,1\nBo,1\nCy,1\n');
  await page.goto(`${course}/roll`);
  await page.waitForLoadState('networkidle');
  const servings = page.getByRole('row', { name: /^Select Ada|Ada/ }).getByRole('cell', { name: '2', exact: true });
  await page.getByLabel('Select all that are found').check();
  await page.getByLabel('Servings of those selected').selectOption('2');
  await expect(page.getByText('3 people: feeds 2.')).toBeVisible();
  await expect(servings).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(servings).toBeHidden();

  const name = page.getByRole('form', { name: 'Add a person' }).getByLabel('Name');
  await name.fill('Half typ');
  await page.waitForTimeout(600);
  await page.getByRole('link', { name: 'Recipes' }).click();
  await page.waitForURL(/recipes/);
  await page.goBack();
  await expect(page.getByText('What you had typed before you left is here again.')).toBeVisible();
  await expect(name).toHaveValue('Half typ');
  await page.getByRole('button', { name: 'Start afresh' }).click();
  await expect(name).toHaveValue('');
});

test('on a slow line, what is chosen and typed before a page is alive is kept, and heard', async ({ page }) => {
  await signIn(page);
  let alive = () => {};
  const waits = new Promise<void>((go) => {
    alive = go;
  });
  await page.route('**/_next/static/**/*.js', (route) => waits.then(() => route.continue()));
  await page.goto('/recipes', { waitUntil: 'commit' });
  const without = page.getByRole('combobox', { name: 'Without' });
  const find = page.getByRole('searchbox').or(page.getByLabel('Find by name or food'));
  await without.selectOption('milk');
  await find.first().fill('slaw');
  const found = page.getByRole('table', { name: 'Recipes' }).locator('tbody tr');
  const all = await found.count();
  alive();
  await expect.poll(() => found.count()).toBeLessThan(all);
  await expect(without).toHaveValue('milk');
  await expect(find.first()).toHaveValue('slaw');
  // What comes after it takes nothing of it back.
  await page.getByRole('combobox', { name: 'Heat' }).selectOption('none');
  await expect(page).toHaveURL(/free=milk.*heat=none|heat=none.*free=milk/);
  await expect(without).toHaveValue('milk');
  await page.goto('/programme', { waitUntil: 'commit' });
  const clock = page.getByLabel('Clock');
  await clock.selectOption({ index: 0 });
  const chosen = await clock.inputValue();
  await page.waitForLoadState('networkidle');
  await expect(clock).toHaveValue(chosen);
});

test('recipes are found by season, need, heat and minutes, and the address says it', async ({ page }) => {
  await signIn(page);
  await page.goto('/recipes');
  await page.waitForLoadState('networkidle');
  const found = page.getByRole('table', { name: 'Recipes' }).locator('tbody tr');
  const all = await found.count();
  await page.getByRole('combobox', { name: 'Without' }).selectOption('milk');
  await page.getByRole('combobox', { name: 'Heat' }).selectOption('none');
  await expect.poll(() => found.count()).toBeLessThan(all);
  await expect(page).toHaveURL(/free=milk.*heat=none|heat=none.*free=milk/);
  for (const row of await found.all()) {
    await expect(row).not.toContainText('milk');
    await expect(row).toContainText('none');
  }
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Heat' })).toHaveValue('none');
  await page.getByRole('button', { name: 'Minutes' }).click();
  await expect(page).toHaveURL(/sort=minutes/);
});
