import { expect, type Page, test } from '@playwright/test';
import { newSession, openSession, signIn } from './people';

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

test.beforeEach(({ page }) => signIn(page));

/** Opens a place's form for changing it. */
async function openPlace(page: Page, name: string) {
  await page.goto('/places');
  const place = page.getByRole('region', { name, exact: true });
  await place.getByText('Change or take away').click();
  return place;
}

test('a place is added, its hours are checked as a session is written, and it is not taken away while used', async ({
  page,
}) => {
  await page.goto('/places');
  const form = page.getByRole('form', { name: 'Add a place' });
  await form.getByLabel('Name').fill('Sail loft');
  await form.getByLabel('Seats').fill('8');
  await form.getByLabel(/Monday from/).fill('18:00');
  await form.getByLabel(/Monday to/).fill('09:00');
  await form.getByRole('button', { name: 'Add place' }).click();
  await expect(form.getByText('It closes before it opens. Change one of the two times.')).toBeVisible();
  for (const weekday of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']) {
    await form.getByLabel(new RegExp(`${weekday} from`)).fill('09:00');
    await form.getByLabel(new RegExp(`${weekday} to`)).fill('18:00');
  }
  await form.getByRole('button', { name: 'Add place' }).click();
  await expect(page.getByRole('region', { name: 'Sail loft', exact: true })).toContainText(
    'Mon to Sun 9:00 am to 6:00 pm',
  );

  const { course } = await newSession(page, 'Kelp week', [], '');
  await page.goto(course);
  const session = page.getByRole('form', { name: 'Add a session' });
  await session.getByLabel('Title').fill('Kelp late');
  await session.getByLabel('Date').fill(inDays(60));
  await session.getByLabel('Place').fill('Sail loft');
  await session.getByLabel('Starts').fill('17:00');
  await expect(session.getByText(/Sail loft is open 9:00 am to 6:00 pm/)).toBeVisible();
  await session.getByLabel('Starts').fill('14:00');
  await expect(session.getByText(/Sail loft is open/)).toBeHidden();
  await session.getByRole('button', { name: 'Add session' }).click();
  await expect(page.getByRole('heading', { name: /Kelp late/ })).toBeVisible();

  const place = await openPlace(page, 'Sail loft');
  await place.getByRole('button', { name: 'Take Sail loft away' }).click();
  await expect(place.getByText(/is used by one session to come, the first is Kelp late/)).toBeVisible();
});

test('two people who move one session: the first move holds, the second is told and keeps what it wanted', async ({
  page,
  context,
}) => {
  const { course } = await newSession(page, 'Smoked week', [], '');
  const other = await context.newPage();
  for (const each of [page, other]) {
    await each.goto(course);
    await each.getByRole('button', { name: 'Move Smoked week one' }).click();
    await expect(each.getByRole('dialog').getByText('Nothing stands against it.')).toBeVisible();
  }
  const moveTo = async (each: Page, days: number) => {
    const dialog = each.getByRole('dialog');
    await dialog.getByLabel('Date').fill(inDays(days));
    await expect(dialog.getByText(/jobs move with it/)).toBeVisible();
    return dialog;
  };
  // Both have looked at the same session before either moves it.
  const [first, second] = [await moveTo(page, 70), await moveTo(other, 71)];
  await first.getByRole('button', { name: 'Move it' }).click();
  await expect(first).toBeHidden();
  await second.getByRole('button', { name: 'Move it' }).click();
  await expect(second.getByText(/was changed by someone else while you were editing/)).toBeVisible();
  // Typed in any manner, it is shown in the programme's own.
  const shown = new Date(inDays(71)).toLocaleDateString('en-US', { dateStyle: 'medium', timeZone: 'UTC' });
  await expect(second.getByLabel('Date')).toHaveValue(shown);
});

test('a session is cancelled and held after all; the countdown and its calendar address follow', async ({ page }) => {
  const { course } = await newSession(page, 'Clam week', ['Berry yogurt cups'], '');
  await page.goto(course);
  await page.getByRole('button', { name: 'Cancel Clam week one' }).click();
  const dialog = page.getByRole('dialog', { name: /Cancel Clam week one/ });
  await expect(dialog.getByText(/open jobs fall away: .*Shop/)).toBeVisible();
  await expect(dialog.getByText(/Not cooked then: Berry yogurt cups/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.getByText('cancelled', { exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Cancel Clam week one' }).click();
  await dialog.getByLabel('Why, for those who ask later').fill('The boiler is out');
  await dialog.getByRole('button', { name: 'Cancel the session' }).click();
  await expect(page.getByText('cancelled', { exact: true })).toBeVisible();
  await expect(page.getByText('The boiler is out')).toBeVisible();
  await page.goto('/?all');
  await expect(page.getByRole('link', { name: /Clam week one/ })).toHaveCount(0);
  await page.goto(course);
  await page.getByRole('button', { name: 'Hold Clam week one' }).click();
  await expect(page.getByRole('button', { name: 'Cancel Clam week one' })).toBeVisible();
  await page.goto('/?all');
  await expect(page.getByRole('link', { name: /Clam week one/ }).first()).toBeVisible();
});

test('a course is repeated in another season with its titles and dishes, and an empty roll', async ({ page }) => {
  const { course } = await newSession(
    page,
    'Rye week',
    ['Griddle flatbreads with white cheese'],
    'name,servings\nNils Tarn,2\n',
  );
  await page.goto(course);
  await page.getByText('Repeat it in another season').click();
  const form = page.getByRole('form', { name: 'Repeat the course' });
  await form.getByLabel('Title', { exact: true }).fill('Rye week again');
  await form.getByLabel('First day').fill(inDays(300));
  await form.getByRole('button', { name: 'Repeat course' }).click();
  await expect(page.getByRole('heading', { name: 'What differs: Rye week again' })).toBeVisible();
  await page.getByRole('link', { name: 'Open the course' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Rye week again', exact: true })).toBeVisible();
  await page.getByRole('link', { name: '1. Rye week one' }).click();
  await expect(page.getByRole('link', { name: 'Griddle flatbreads with white cheese' })).toBeVisible();
  await page.goto('/courses');
  await expect(
    page
      .getByRole('row', { name: /Rye week again/ })
      .getByRole('cell')
      .nth(2),
  ).toHaveText('0');
});

test('the programme’s working hours move every countdown, and a day of rest is kept', async ({ page }) => {
  await openSession(page, 'Lighthouse pasta', '/countdown');
  const shop = page.getByRole('row', { name: /^Shop/ }).getByRole('cell').nth(1);
  const before = await shop.textContent();
  await page.goto('/programme');
  const form = page.getByRole('form', { name: 'Working hours' });
  const close = async (time: string) => {
    for (const weekday of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'])
      await form.getByLabel(`Shops are open: ${weekday} to`).fill(time);
    await form.getByRole('button', { name: 'Save hours' }).click();
    await expect(page.getByText('Saved. Every countdown follows at once.')).toBeVisible();
  };
  await close('10:30');
  await openSession(page, 'Lighthouse pasta', '/countdown');
  await expect(shop).not.toHaveText(before ?? '');
  await page.goto('/programme');
  await close('20:00');
});

test('the week sheet prints black on white, with a box for each job', async ({ page }) => {
  await page.goto('/week-sheet');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  const background = await page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  expect(background).toMatch(/rgb\(255, 255, 255\)|rgba\(0, 0, 0, 0\)|oklch\(1 |white/);
});

test('what is changed of the programme, a session or the crew is put back with one press', async ({ page }) => {
  await signIn(page);
  await page.goto('/programme');
  const children = page.getByLabel('Children to one adult, at the most');
  await children.fill('4');
  await page.getByRole('form', { name: 'Adults in a class' }).getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('It is as it was before.')).toBeVisible();
  await expect(children).toHaveValue('');
  await openSession(page, 'Lighthouse pasta', '');
  const form = page.getByRole('form', { name: 'Date, place and mode' });
  const title = form.getByLabel('Title');
  const was = await title.inputValue();
  await title.fill('Lighthouse pasta, twice');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: /Lighthouse pasta, twice/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('heading', { name: /Lighthouse pasta, twice/ })).toBeHidden();
  await expect(title).toHaveValue(was);
});
