import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { bringRoll, newSession, openSession, signIn } from './people';

test.beforeEach(({ page }) => signIn(page));

test('from a roll to packed kits', async ({ page }) => {
  const { course, session } = await newSession(page, 'Driftwood suppers', ['Griddle flatbreads with white cheese'], '');

  // Roll: one row is refused; saving waits until it is mended.
  const roll =
    'name;age;servings;avoids;mode\nŁucja Wren;7;2;;in person\nBram "the Spoon" Oduya;8;0;;\nCleo Marrow;6;2;milk;in person\n"Teo\nVarga";9;2;latex fruit;\nŁucja  wren;7;1;;\n';
  await bringRoll(page, course, roll);
  await expect(page.getByText('5 rows read as UTF-8, separated by semicolon: 3 ready, 2 refused')).toBeVisible();
  await expect(page.getByText('0 servings is too few. Write a whole number from 1 to 40.')).toBeVisible();
  await expect(page.getByText('is in line 2 of the file')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Save 3/ })).toBeDisabled();
  const refused = page.getByRole('group', { name: 'Line 3' });
  await refused.getByLabel('servings').fill('4');
  await page.getByRole('group', { name: 'Line 7' }).getByLabel('Leave out').check();
  await page.getByRole('button', { name: 'Save 4 to the roll' }).click();
  await expect(page.getByText('4 people are on the roll.')).toBeVisible();

  // Kits: a word nobody knows refuses a kit and the lock, until it has a meaning.
  await page.goto(`${session}/kits`);
  await expect(page.getByRole('heading', { name: '1 kit cannot be made safely yet' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Lock kit sheet' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Say what it means' }).click();
  await expect(page.getByRole('heading', { name: 'What do these words mean?' })).toBeVisible();
  await page.getByText('“latex fruit”').click();
  await expect(page.getByText('Often banana, avocado, kiwi or chestnut: ask which.')).toBeVisible();
  await page.getByText('Other single foods').click();
  await page.getByLabel('banana', { exact: true }).check();
  await page.getByLabel('mango', { exact: true }).check();
  await page.getByRole('button', { name: 'Give this meaning' }).click();
  await expect(page.getByText('avoids banana, mango')).toBeVisible();

  // The sheet: variants across, an alternative where milk is avoided, the working of a number.
  await page.goto(`${session}/kits`);
  const sheet = page.getByRole('table', { name: 'Kit sheet' });
  await expect(sheet.getByRole('columnheader', { name: /made without milk/ })).toBeVisible();
  await expect(sheet.getByText('instead: firm tofu, cubed')).toBeVisible();
  await sheet
    .getByRole('row', { name: /plain wheat flour/ })
    .getByRole('link')
    .first()
    .click();
  const working = page.getByRole('complementary', { name: 'Working' });
  await expect(working.getByText('2 cups plain wheat flour, for 4 servings')).toBeVisible();
  await expect(working.getByText('× 2 ÷ 4 servings')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(working).toHaveCount(0);

  // Out as CSV, then locked.
  await page.getByText('Save as').click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV', exact: true }).click(),
  ]);
  expect(readFileSync(await download.path(), 'utf8')).toContain('1 cup,125,');
  await page.getByRole('button', { name: 'Lock kit sheet' }).click();
  await expect(page.getByText(/Version 1, locked/)).toBeVisible();

  // Shopping and labels.
  await page.goto(`${session}/buying`);
  await expect(page.getByRole('listitem').filter({ hasText: 'plain wheat flour' })).toContainText('1 pack of 1500 g');
  await page.getByRole('button', { name: 'Mark shopping done' }).click();
  await expect(page.getByRole('button', { name: 'Shopping is not done after all' })).toBeVisible();
  const labels = await page.request.get(`${session}/labels.pdf?paper=letter`);
  expect(labels.headers()['content-type']).toBe('application/pdf');
  expect((await labels.body()).subarray(0, 5).toString()).toBe('%PDF-');

  // The bench: by component and by kit, undo, and everything still there after a reload.
  await page.goto(`${session}/packing`);
  await page.getByRole('link', { name: 'Open the bench' }).click();
  await expect(page.getByRole('heading', { name: 'plain wheat flour' })).toBeVisible();
  await page.getByRole('button', { name: 'Kit 1: plain wheat flour not in yet' }).click();
  await expect(page.getByRole('button', { name: 'Kit 1: plain wheat flour in', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Kit 1: plain wheat flour not in yet' })).toBeVisible();
  const next = page.getByRole('button', { name: 'Next →' });
  for (let more = true; more; ) {
    const all = page.getByRole('button', { name: /^All \d+ in$/ });
    while ((await all.count()) > 0) await all.first().click();
    more = await next.isEnabled();
    if (more) await next.click();
  }
  await expect(page.getByText('4 of 4 kits done')).toBeVisible();
  await expect(page.getByText('not saved yet')).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('4 of 4 kits done')).toBeVisible();
  await page.getByRole('button', { name: 'By kit' }).click();
  await expect(page.getByRole('heading', { name: /^Kit \d$/ })).toBeVisible();

  // A late joiner after the lock is a difference to accept; ticks stay where nothing changed.
  await page.goto(`${course}/roll`);
  const add = page.getByRole('form', { name: 'Add a person' });
  await add.getByLabel('Name').fill('Zoë Late-Joiner');
  await add.getByLabel('Servings').fill('3');
  await add.getByRole('button', { name: 'Add to the roll' }).click();
  await expect(page.getByText('Zoë Late-Joiner is on the roll.')).toBeVisible();
  await page.goto(`${session}/kits`);
  await expect(page.getByText('Zoë Late-Joiner: 3 servings')).toBeVisible();
  await page.getByRole('button', { name: 'Accept into version 2' }).click();
  await expect(page.getByText(/Version 2, locked/)).toBeVisible();
  await page.goto(`${session}/packing`);
  await expect(page.getByText('4 of 5 kits packed')).toBeVisible();
});

test('a pasted recipe is read line by line, mended where it is open, and feeds a session', async ({ page }) => {
  await openSession(page, 'Knife skills shown');
  await page.getByRole('link', { name: 'Bring in a recipe file' }).click();
  const recipe = [
    'Pier soup',
    'Serves 4',
    'Ingredients:',
    '• 1 ½ cups grated carrots',
    '1 (15 oz) can black beans, drained',
    '2-3 cloves garlic, minced',
    'salt and pepper to taste',
    '1 cup milk or soy milk',
    '2 tsp tumerik',
    '2 red peppers (tatashe), sliced',
    'Method',
    '1. Simmer 15 minutes.',
  ].join('\n');
  await page.getByLabel('Paste a recipe').fill(recipe);
  await page.getByRole('button', { name: 'Read recipe' }).click();
  await expect(page.getByText('What was understood: 7 ingredient lines, 1 steps')).toBeVisible();
  await expect(page.getByText('of 2 to 3, kits use 3')).toBeVisible();
  await expect(page.getByText('soya drink stands in where milk must be avoided')).toBeVisible();
  const save = page.getByRole('button', { name: 'Save and add to the session' });
  await expect(page.getByText('Which food is “tumerik”?')).toBeVisible();
  await expect(save).toBeDisabled();
  await page.getByRole('button', { name: 'ground turmeric' }).click();
  await page.getByRole('button', { name: '“tatashe” says how it comes' }).click();
  await expect(page.getByText('Every line can be computed with.')).toBeVisible();
  await expect(page.getByLabel('Line 7', { exact: true })).toHaveValue('2 red peppers, sliced (note: tatashe)');
  const garlic = page.getByLabel('Line 3', { exact: true });
  await garlic.fill('1 bucket garlic');
  await expect(page.getByText('1 line is still open.')).toBeVisible();
  await garlic.fill('2 cloves garlic');
  await expect(page.getByText('Every line can be computed with.')).toBeVisible();
  await save.click();
  await expect(page.getByRole('link', { name: 'Pier soup' })).toBeVisible();
});

test('a slip is smelled, repaired, or said to be right, and that is remembered', async ({ page }) => {
  await page.goto('/recipes/import');
  const recipe =
    'Slip cake\nServes 8\nIngredients\n21/2 cups plain flour\n1 cup milk\n1/2 cup salt\nMethod\nMix flour, milk and salt.\nBake at 350 °C for 20 minutes.';
  await page.getByLabel('Paste a recipe').fill(recipe);
  await page.getByRole('button', { name: 'Read recipe' }).click();
  const slips = page.getByRole('list', { name: 'What smells like a slip' });
  await expect(slips.getByRole('listitem')).toHaveCount(3);
  await page.getByRole('button', { name: 'Make it “2 1/2 cups plain flour”' }).click();
  await expect(page.getByText('2½ cups plain wheat flour')).toBeVisible();
  await page.getByRole('button', { name: 'Make it “1/2 tsp salt”' }).click();
  await expect(slips.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Save recipe' }).click();
  await expect(page.getByRole('heading', { name: 'Slip cake' })).toBeVisible();
  await expect(slips.getByText('350 °C is no temperature of an oven')).toBeVisible();
  await page.getByRole('button', { name: /^It is right as it is/ }).click();
  await expect(slips).toBeHidden();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Slip cake' })).toBeVisible();
  await expect(slips).toBeHidden();
});

test('a food is put on the scale and added in place; the recipe goes on with it', async ({ page }) => {
  await page.goto('/reference');
  await page.getByLabel('Food', { exact: true }).fill('garbanzo');
  await page.getByRole('button', { name: 'Find' }).click();
  await page.getByRole('link', { name: 'canned chickpeas' }).click();
  const weigh = page.getByRole('form', { name: 'Weigh canned chickpeas' });
  await weigh.getByLabel('Count').fill('2');
  await weigh.getByLabel('Grams').fill('1000');
  await weigh.getByRole('button', { name: 'Take this weight' }).click();
  await expect(weigh.getByText('weigh again, with the empty bowl taken off').first()).toBeVisible();
  await weigh.getByLabel('Grams').fill('340');
  await weigh.getByRole('button', { name: 'Take this weight' }).click();
  await expect(weigh.getByText('One cup, drained, weighs 170 g; it was 164 g.')).toBeVisible();
  await page.goto('/recipes/import');
  await page.getByLabel('Paste a recipe').fill('Marsh salad\nServes 2\nIngredients\n1 cup samphire\n2 carrots');
  await page.getByRole('button', { name: 'Read recipe' }).click();
  await page.getByText('Add “samphire” to the table').click();
  const form = page.getByRole('form', { name: 'Add samphire' });
  await form.getByText('I read the label').click();
  await form.getByLabel('Keeps, days').fill('3');
  await form.getByLabel('Once opened, days').fill('1');
  await form.getByLabel('Grams').fill('60');
  await form.getByRole('button', { name: 'Add to the table' }).click();
  await expect(page.getByText('1 cup samphire', { exact: true })).toBeVisible();
  await expect(page.getByText('Every line can be computed with.')).toBeVisible();
});

test('a recipe that does not say its servings is estimated, and an unsafe step is mended', async ({ page }) => {
  await page.goto('/recipes/import');
  const recipe =
    'Harbour roast\nIngredients\n800 g chicken thighs\n1 kg carrots, grated\nMethod\nRinse the chicken.\nRoast with carrots.';
  await page.getByLabel('Paste a recipe').fill(recipe);
  await page.getByRole('button', { name: 'Read recipe' }).click();
  await page.getByLabel('Who eats it').selectOption('adults');
  await page.getByRole('button', { name: '5 as a main' }).click();
  await expect(page.getByText('An estimate', { exact: true })).toBeVisible();
  const unsafe = page.getByText('“Rinse the chicken.” is not safe.');
  await expect(unsafe).toBeVisible();
  await expect(page.getByRole('button', { name: /^It is right as it is: “Rinse/ })).toHaveCount(0);
  await page.getByLabel('Steps, one a line').fill('Roast the chicken to 165 °F with the carrots.');
  await expect(unsafe).toBeHidden();
  await page.getByRole('button', { name: 'Save recipe' }).click();
  const estimate = page.getByRole('region', { name: 'Estimated servings' });
  await expect(estimate.getByText('5 servings are an estimate')).toBeVisible();
  await estimate.getByRole('spinbutton', { name: 'Servings' }).fill('6');
  await estimate.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByText('Written for 6 servings')).toBeVisible();
  await expect(estimate).toBeHidden();
});

test('a web page gives the recipe in it; one without says what to do instead', async ({ page }) => {
  await signIn(page);
  await page.goto('/recipes/import');
  const chooser = page.getByLabel('Or choose a file');
  const file = (text: string) => ({ name: 'page.html', mimeType: 'text/html', buffer: Buffer.from(text) });
  await chooser.setInputFiles(file('<!doctype html><title>Soup</title><p>No recipe here.'));
  await expect(page.getByText('This web page holds no recipe that a program can read.')).toBeVisible();
  const node = { '@type': 'Recipe', name: 'Quay cake', recipeIngredient: ['2 cups flour', '1 <b>cup</b> milk'] };
  const graph = JSON.stringify({ '@graph': [{ '@type': 'Person' }, node] });
  await chooser.setInputFiles(file(`<!doctype html><script type="application/ld+json">${graph}</script>`));
  await expect(page.getByLabel('Name').first()).toHaveValue('Quay cake');
  await expect(page.getByText('The text does not say')).toBeVisible();
  await expect(page.getByLabel('Line 2', { exact: true })).toHaveValue('1 cup milk');
});

test('the countdown shows threads and what to do next, each one step from its work', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Thread of Breads from the pan' })).toBeVisible();
  const next = page.getByRole('region', { name: 'Do next' });
  await expect(next.getByText(/Kits: Pots for the freezer/)).toBeVisible();
  await next.getByRole('link', { name: 'Open the kit sheet' }).first().click();
  await expect(page.getByRole('heading', { name: /kit sheet$/ })).toBeVisible();
  const stages = page.getByRole('navigation', { name: 'Stages of this session' });
  // A small class shows only the knots that it needs: nobody teaches, and people are asked to pack.
  await expect(stages.getByRole('link', { name: /Hand out/ })).toBeVisible();
  await expect(stages.getByRole('link', { name: /Class/ })).toHaveCount(0);
  await expect(stages.getByRole('link', { name: /Crew/ })).toBeVisible();
  await stages.getByRole('link', { name: /Buy/ }).click();
  await expect(page.getByRole('heading', { name: /shopping list$/ })).toBeVisible();
});

test('on a slow line, what is pressed right after typing into a table’s search is done', async ({ page }) => {
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Roll of Small Hands Kitchen' }).click();
  await expect(page.getByRole('button', { name: 'Edit Łucja Wren' })).toBeVisible();
  // What a page asks for comes late.
  await page.route(/\/roll\?/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 2000));
    await route.continue();
  });
  await page.getByLabel('Find by name or avoidance').fill('lucja');
  await page.getByRole('button', { name: 'Edit Łucja Wren' }).click();
  await expect(page.getByRole('form', { name: 'Edit Łucja Wren' })).toBeVisible({ timeout: 15_000 });
  await expect(page).toHaveURL(/q=lucja/);
});

test('the roll sorts and filters, and a person is edited, withdrawn and enrolled again', async ({ page }) => {
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Roll of Small Hands Kitchen' }).click();
  await page.getByRole('button', { name: 'Age', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: 'Age' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(page.getByRole('rowheader').first()).toContainText('Cleo Marrow');
  await page.getByLabel('Find by name or avoidance').fill('lucja');
  await expect(page.getByText(/1 of 14 found/)).toBeVisible();
  await page.getByRole('button', { name: 'Edit Łucja Wren' }).click();
  const form = page.getByRole('form', { name: 'Edit Łucja Wren' });
  await form.getByLabel('Servings').fill('1000');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByLabel('Servings')).toHaveAccessibleDescription(/1000 servings is too many/);
  await expect(form.getByLabel('Servings')).toBeFocused();
  await expect(form.getByLabel('Servings')).toHaveValue('1000');
  await form.getByLabel('Servings').fill('1');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Łucja Wren is saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Withdraw Łucja Wren' }).click();
  await expect(page.getByText(/0 of 14 found/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Show' }).selectOption('withdrawn');
  await page.getByRole('button', { name: 'Enrol Łucja Wren again' }).click();
  await expect(page.getByText(/0 of 14 found/)).toBeVisible();
});
