// Somebody who has never seen it, from an empty programme to a locked kit sheet, with every click and field counted.
import { createHash, randomUUID } from 'node:crypto';
import { expect, type Locator, type Page, test } from '@playwright/test';
import mysql from 'mysql2/promise';

/** So many at the most, for a kit sheet of fourteen people with three recipes and eight sessions. */
const MOST = { clicks: 120, fields: 90 };

/** An empty programme beside the demo's. @returns the path of its first coordinator's invitation */
async function emptyProgramme(): Promise<string> {
  const db = await mysql.createConnection(process.env.DATABASE_URL ?? '');
  const [id, secret] = [randomUUID(), randomUUID()];
  await db.query(
    `INSERT INTO programme (id, name, measure_system, safety_profile, time_zone, retention_months, work_hours, reserve_costs, column_words,
       containers, manner, adult_ratios, class_words, roads, second_step, version)
     VALUES (?, 'Kite Street Kitchen', 'us', 'us', 'Europe/London', 24, '{}', '{}', '{}', '[]', NULL, '{}', '{}', '{}', 0, 1)`,
    [id],
  );
  await db.query(
    `INSERT INTO access_link (id, programme_id, purpose, email, role, token_hash, created_at, expires_at)
     VALUES (?, ?, 'invite', '', 'coordinator', ?, NOW(3), NOW(3) + INTERVAL 1 DAY)`,
    [randomUUID(), id, createHash('sha256').update(secret).digest('hex')],
  );
  await db.end();
  return `/invite/${secret}`;
}

const RECIPES = [
  `Rainbow fried rice
Serves 4
2 cups cooked rice
1 carrot, grated
1 red pepper, diced
2 tbsp soy sauce
1 tbsp olive oil

Grate the carrot and dice the pepper.
Fry the vegetables for 5 minutes.
Stir in the rice and soy sauce until hot, 4 minutes.`,
  `Apple oat crumble
Serves 6
4 apples, sliced
100 g rolled oats
80 g plain flour
60 g olive oil
50 g brown sugar

Slice the apples into a dish.
Rub the oil into the flour, stir in oats and sugar.
Bake at 190 C for 30 minutes.`,
  `Chickpea salad
Serves 4
1 can (400 g) chickpeas, drained
1 cucumber, diced
200 g cherry tomatoes, halved
2 tbsp olive oil

Drain the chickpeas.
Dice the cucumber and halve the tomatoes.
Stir everything together.`,
];

const NAMES =
  'Ada Lind,Bo Marsh,Cy Ferro,Di Osei,Eli Brandt,Fay Nunn,Gus Tarn,Hana Koll,Ivo Strand,Jo Pell,Kit Rowe,Lia Moss,Max Dorn,Nia Crewe';
const ROLL = `Name\tAge\tAllergies\n${NAMES.split(',')
  .map((name, at) => `${name}\t${7 + (at % 4)}\t${at === 2 ? 'milk' : ''}`)
  .join('\n')}`;

/** Does as a person does, and counts it: with the mouse, or with keys alone. */
function hands(page: Page, byKeys: boolean) {
  const count = { clicks: 0, fields: 0 };
  const press = async (target: Locator) => {
    count.clicks++;
    await expect(target).toBeEnabled();
    if (!byKeys) return target.click();
    await target.focus();
    await page.keyboard.press((await target.getAttribute('type')) === 'checkbox' ? 'Space' : 'Enter');
  };
  const write = async (target: Locator, text: string) => {
    count.fields++;
    if (!byKeys) return target.fill(text);
    await target.focus();
    await page.keyboard.press('ControlOrMeta+A');
    await page.keyboard.insertText(text);
  };
  const choose = async (target: Locator, label: string) => {
    count.fields++;
    if (byKeys) {
      await target.focus();
      await page.keyboard.type(label);
      if ((await target.locator('option:checked').textContent()) === label) return;
    }
    await target.selectOption({ label });
  };
  return { count, press, write, choose };
}

for (const byKeys of [false, true])
  test(`an empty programme leads to its first locked kit sheet${byKeys ? ', by keys alone' : ''}`, async ({ page }) => {
    const { count, press, write, choose } = hands(page, byKeys);
    const button = (name: string | RegExp) => page.getByRole('button', { name });
    const link = (name: string | RegExp) => page.getByRole('link', { name }).first();
    const email = `nele-${byKeys ? 'keys' : 'mouse'}@kite.example`;
    await page.goto(await emptyProgramme());
    await page.waitForLoadState('networkidle');
    await write(page.getByLabel(/name/i).first(), 'Nele Quist');
    await write(page.getByLabel('E-mail'), email);
    await write(page.getByLabel(/^Password/).first(), 'seven-lanterns-float');
    await press(page.getByRole('button').last());
    await expect(page.getByText('0 of 8 done')).toBeVisible();

    await page.waitForLoadState('networkidle');
    await choose(page.getByLabel('Country', { exact: true }), 'United Kingdom');
    await press(button('See what it proposes'));
    await expect(page.getByLabel('Currency')).toHaveValue('GBP');
    await page.waitForLoadState('networkidle');
    await press(button('Set it up so'));
    await expect(page.getByText('2 of 8 done')).toBeVisible();

    await press(link('Add a place'));
    const place = page.getByRole('form', { name: 'Add a place' });
    await write(place.getByLabel('Name'), 'Loft kitchen');
    await write(place.getByLabel('Seats'), '16');
    await press(place.getByRole('button', { name: 'Add place' }));
    await expect(page.getByText('16 seats')).toBeVisible();

    await press(link('Countdown'));
    await press(link('Add a course'));
    const course = page.getByRole('form', { name: 'Add a course' });
    await write(course.getByLabel('Title'), 'Kite juniors');
    await press(course.getByRole('button', { name: 'Add course' }));
    await expect(page.getByText('Kite juniors is added.')).toBeVisible();

    await press(link('Countdown'));
    await press(link('Plan the sessions'));
    await page.waitForURL(/season/);
    await page.waitForLoadState('networkidle');
    await press(button(/Add 8 sessions/));
    await expect(page.getByText('8. Kite juniors 8')).toBeVisible();

    for (const text of RECIPES) {
      await press(link('Recipes'));
      await press(link('Bring in a recipe'));
      await page.waitForURL(/import/);
      await page.waitForLoadState('networkidle');
      await write(page.getByLabel('Paste a recipe'), text);
      await press(button('Read recipe'));
      await press(button('Save recipe'));
      await page.waitForURL(/recipes\/[0-9a-f-]{36}/);
    }

    await press(link('Programme'));
    await press(link('Setting up'));
    await press(link('Bring in the roll'));
    await page.waitForURL(/import/);
    await page.waitForLoadState('networkidle');
    await write(page.getByLabel('Or paste it'), ROLL);
    await press(button('Read what I pasted'));
    await press(button('Set for all 14'));
    await press(button('Save 14 to the roll'));
    await expect(page.getByText('14 people are on the roll.')).toBeVisible();

    await press(link('Programme'));
    await press(link('Setting up'));
    await expect(page.getByText('7 of 8 done')).toBeVisible();
    await press(link('Go to the first session'));
    for (const title of ['Apple oat crumble', 'Chickpea salad', 'Rainbow fried rice']) {
      await page.waitForLoadState('networkidle');
      await choose(page.getByLabel('Add a dish'), title);
      await press(button('Add dish'));
      await expect(page.getByRole('main').getByRole('link', { name: title }).first()).toBeVisible();
    }
    await press(page.getByRole('navigation', { name: 'Stages of this session' }).getByRole('link', { name: /Kits/ }));
    await page.waitForURL(/kits/);
    await page.waitForLoadState('networkidle');
    await press(button(/^Lock/).first());
    await expect(page.getByText(/locked/i).first()).toBeVisible();
    console.log(
      `An empty programme to a locked kit sheet${byKeys ? ' by keys' : ''}: ${count.clicks} clicks, ${count.fields} fields`,
    );
    expect(count.clicks).toBeLessThanOrEqual(MOST.clicks);
    expect(count.fields).toBeLessThanOrEqual(MOST.fields);
  });
