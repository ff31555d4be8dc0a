import { expect, test } from '@playwright/test';
import { zipSync } from 'fflate';
import { newSession, signIn } from './people';

const encode = (text: string) => new TextEncoder().encode(text);

test('several recipes come in together: each is looked at, saved, and the one that cannot be used is named', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/recipes/import');
  const archive = zipSync({
    'pier.txt': encode(
      'Pier beans\nServes 4\nIngredients\n1 can (400 g) white beans\n2 carrots, grated\nMethod\nMix the beans and carrots.',
    ),
    'table.csv': encode('recipe,servings,amount,unit,ingredient,step\nQuay oats,2,1,cup,rolled oats,Stir the oats.\n'),
    'photo.png': new Uint8Array([0x89, 0x50, 0, 0, 1]),
  });
  await page.getByLabel('Or choose a file').setInputFiles({
    name: 'recipes.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(archive),
  });
  await expect(page.getByRole('heading', { name: /3 recipes in it/ })).toBeVisible();
  await expect(page.getByText(/not a text file/)).toBeVisible();
  await page.getByRole('button', { name: 'Look at Quay oats' }).click();
  await page.getByRole('button', { name: 'Save recipe' }).click();
  await expect(page.getByText('Quay oats is saved.')).toBeVisible();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Look at Pier beans' }).click();
  await expect(page.getByLabel('Line 1', { exact: true })).toHaveValue('1 can (400 g) white beans');
  await page.goto('/recipes');
  await expect(page.getByRole('link', { name: 'Quay oats' })).toBeVisible();
});

test('a recipe is edited: what its words do not say stays, the difference is told, a variation knows its parent', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/recipes');
  await page.getByRole('link', { name: 'Tide oat squares' }).click();
  await page.getByRole('link', { name: 'Edit', exact: true }).click();
  const butter = page
    .getByRole('listitem')
    .filter({ has: page.getByText(/butter/) })
    .first();
  const line = butter.getByRole('textbox').first();
  const before = await line.inputValue();
  await line.fill('1/2 cup butter');
  await expect(butter.getByText('½ cup butter').first()).toBeVisible();
  await butter.getByText('Scaling, measuring, buying, replacing').click();
  await butter.getByLabel('It is measured').selectOption('tight');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByRole('heading', { name: 'Versions' })).toBeVisible();
  await expect(page.getByText(/½ cup butter, was/)).toBeVisible();
  await expect(page.getByText('butter: measured tight, was measured normal')).toBeVisible();
  await page.getByRole('link', { name: 'Edit', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tide oat squares with pear');
  await page.getByRole('button', { name: 'Save as a variation of its own' }).click();
  await expect(page.getByText('A variation of Tide oat squares.')).toBeVisible();
  // Back as it was, for whoever cooks it next.
  await page.getByRole('link', { name: 'Tide oat squares', exact: true }).click();
  await expect(page.getByText('Variations: Tide oat squares with pear')).toBeVisible();
  await page.getByRole('link', { name: 'Edit', exact: true }).click();
  const again = page
    .getByRole('listitem')
    .filter({ has: page.getByText(/butter/) })
    .first();
  await again.getByRole('textbox').first().fill(before);
  await expect(again.getByText(before).first()).toBeVisible();
  await page.getByRole('button', { name: 'Save as version 3' }).click();
  await expect(page.getByText('Version 3')).toBeVisible();
});

test('on a slow line, what is shown is what is saved; labels of somebody else’s products are asked about', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/recipes/import');
  const name = `Quay porridge ${Date.now()}`;
  const lines = [
    { ingredient: 'milk', amount: '1', unit: 'cup' },
    { ingredient: 'rolled oats', amount: '1', unit: 'cup' },
    { ingredient: 'mayonnaise', amount: '1', unit: 'Tbsp', label: ['EGG', 'MUSTARD'] },
  ];
  const file = {
    '@context': 'https://schema.org',
    '@type': 'Recipe',
    name,
    recipeYield: '4',
    recipeIngredient: ['1 cup milk', '1 cup rolled oats', '1 Tbsp mayonnaise'],
    'logistra:lines': lines,
    recipeInstructions: 'Stir.',
  };
  await page.getByLabel('Or choose a file').setInputFiles({
    name: 'porridge.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
  const save = page.getByRole('button', { name: 'Save recipe' });
  await expect(page.getByText('Its file states what labels say: mayonnaise: EGG, MUSTARD.')).toBeVisible();
  await expect(save).toBeDisabled();
  await page.getByRole('button', { name: 'Ours are the same products' }).click();
  await expect(page.getByText('Labels of its products: mayonnaise: EGG, MUSTARD.')).toBeVisible();
  await page.getByRole('button', { name: 'Leave the labels of line 3 out' }).click();
  await expect(page.getByText('Labels of its products')).toHaveCount(0);
  // Answers come back late, the first one last.
  let asked = 0;
  await page.route('**/recipes/import', async (route) => {
    if (route.request().method() === 'POST') await new Promise((resolve) => setTimeout(resolve, asked++ ? 700 : 2500));
    await route.continue();
  });
  await page.getByLabel('Line 1', { exact: true }).fill('3 cups milk');
  await page.waitForTimeout(500);
  await page.getByLabel('Line 2', { exact: true }).fill('2 cups rolled oats');
  await expect(save).toBeDisabled();
  await expect(page.getByText('Every line can be computed with.')).toBeVisible({ timeout: 15_000 });
  await expect(page.getByLabel('Line 1', { exact: true })).toHaveValue('3 cups milk');
  await save.click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  await expect(page.getByText('3 cups milk')).toBeVisible();
  await expect(page.getByText('2 cups rolled oats')).toBeVisible();
  await expect(page.getByText('label recorded')).toHaveCount(0);
});

test('steps are laid into the shortest time, settled by hand, and never wait for each other in a circle', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/recipes');
  await page.getByRole('link', { name: 'Gangway green rice' }).click();
  await page.getByRole('link', { name: 'Plan its steps' }).click();
  const heading = page.getByRole('heading', { name: /minutes with one pair of hands/ });
  const minutes = Number(/\d+/.exec((await heading.textContent()) ?? '')?.[0]);
  await expect(page.getByText('No order is shorter.')).toBeVisible();
  await page.getByText('Settle it').nth(1).click();
  const step = page.getByRole('form', { name: 'Step 2' });
  await step.getByLabel('Then minutes alone').fill('32');
  await step.getByRole('button', { name: 'Settle step 2' }).click();
  await expect(page.getByRole('heading', { name: `${minutes + 20} minutes with one pair of hands` })).toBeVisible();
  await page.getByText('Settle it').first().click();
  const first = page.getByRole('form', { name: 'Step 1' });
  await first.getByRole('group', { name: 'After these steps' }).getByLabel('2', { exact: true }).check();
  await first.getByRole('button', { name: 'Settle step 1' }).click();
  await expect(first.getByText(/wait for each other: take one of them out/)).toBeVisible();
});

test('dishes are proposed for a course with reasons, chosen, and held against the class', async ({ page }) => {
  await signIn(page);
  const { course } = await newSession(
    page,
    'Dune week',
    [],
    'name,age,servings,avoids\nOda Brink,7,1,milk\nPer Holm,8,1,\n',
  );
  await page.goto(course);
  await page.getByRole('link', { name: 'Choose dishes' }).click();
  await expect(page.getByRole('heading', { name: 'What the course covers' })).toBeVisible();
  await page.getByLabel('In stock or given').fill('chickpeas, carrots and 3 cucumbers');
  await page.getByRole('button', { name: 'Rank again' }).click();
  await expect(page.getByText(/Understood: .*carrot/)).toBeVisible();
  await expect(page.getByText(/[Uu]ses what is at hand/).first()).toBeVisible();
  await page.getByText('The same in numbers').click();
  await expect(page.getByRole('row', { name: /vegetable \(plate group\)/ })).toBeVisible();
  const proposal = page.getByRole('button', { name: /^Choose Tideline wraps for/ });
  await proposal.click();
  await expect(page.getByText('Chosen: Tideline wraps.')).toBeVisible();
  await page.getByRole('link', { name: /Dune week one/ }).click();
  await expect(page.getByText(/things? fits?/).first()).toBeVisible();
});

test('a product’s price tells what a serving costs; keeping days are made stricter, never laxer', async ({ page }) => {
  await signIn(page);
  await page.goto('/reference?q=brown+lentils&food=brown+lentils');
  await page.getByText('Add a product', { exact: true }).click();
  const product = page.getByRole('form', { name: 'Add a product' });
  await product.getByLabel('Name, as you call it').fill('1 kg bag, wholesaler');
  await product.getByLabel('Grams in the pack').fill('1000');
  await product.getByLabel('Price of the pack').fill('cheap');
  await product.getByRole('button', { name: 'Add product' }).click();
  await expect(product.getByText('Write the price as 2.49.')).toBeVisible();
  await product.getByLabel('Price of the pack').fill('2,80');
  await product.getByRole('button', { name: 'Add product' }).click();
  await expect(page.getByText(/\$2\.80 \(\$2\.80 a kg\) · label not read/)).toBeVisible();
  await page.goto('/recipes');
  await page.getByRole('link', { name: 'Harbour lentil pot' }).click();
  await expect(page.getByText(/A serving: costs \$\d+\.\d\d/)).toBeVisible();

  await page.goto('/reference?q=brown+lentils&food=brown+lentils');
  await page.getByText('Keep it for fewer days here').click();
  const keeping = page.getByRole('form', { name: 'Keep it for fewer days' });
  await keeping.getByLabel('Once opened, days').fill('3000');
  await keeping.getByRole('button', { name: 'Save' }).click();
  await expect(keeping.getByText(/At most \d+ days, which the table says/)).toBeVisible();
  await keeping.getByLabel('Once opened, days').fill('90');
  await keeping.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /^brown lentils/ })).toContainText('opened 90 d');
  await page.getByRole('button', { name: 'Take 1 kg bag, wholesaler away' }).click();
  await expect(page.getByRole('button', { name: 'Take 1 kg bag, wholesaler away' })).toHaveCount(0);
});

test('of a range the coordinator says which end kits use; a cooked amount is bought dry and says so', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/recipes/import');
  await page
    .getByLabel('Paste a recipe')
    .fill(
      'Dune bowl\nServes 4\nIngredients\n2-3 carrots, sliced\n2 cups cooked rice\nMethod\nMix the carrots and rice.',
    );
  await page.getByRole('button', { name: 'Read recipe' }).click();
  await expect(page.getByText(/bought dry, 115 g: 316 g cooked/)).toBeVisible();
  await expect(page.getByRole('button', { name: '3', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: '2', exact: true }).click();
  await expect(page.getByRole('button', { name: '2', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Save recipe' }).click();
  await expect(page.getByText('2 to 3 written, kits use 2')).toBeVisible();
  await expect(page.getByText('written “2 cups cooked rice”')).toBeVisible();
});
