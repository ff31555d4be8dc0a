import { expect, type Page, test } from '@playwright/test';
import { bringRoll, newSession, openSession, signIn } from './people';

/** A civil date some days from today, as a date field takes it. */
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

async function newCourse(page: Page, title: string): Promise<void> {
  await page.goto('/courses');
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Add course' }).click();
  await page.getByRole('link', { name: title, exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

const calendarFile = (events: string) => ({
  name: 'harbour.ics',
  mimeType: 'text/calendar',
  buffer: Buffer.from(`BEGIN:VCALENDAR\r\nVERSION:2.0\r\nX-WR-CALNAME:Harbour works\r\n${events}\r\nEND:VCALENDAR\r\n`),
});

test('a season is drawn as one types, and laid down around what an .ics file closes', async ({ page }) => {
  await signIn(page);
  const closed = inDays(207);
  await page.goto('/closures/import');
  const day = closed.replaceAll('-', '');
  const event = `BEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Crane\\, all day\r\nDTSTART;VALUE=DATE:${day}\r\nEND:VEVENT`;
  await page.getByLabel('Calendar file').setInputFiles(calendarFile(`${event}\r\nthis is no line`));
  await expect(page.getByText('is not a line of a calendar')).toBeVisible();
  await expect(page.getByLabel('Name of the calendar')).toHaveValue('Harbour works');
  await page.getByRole('button', { name: 'Bring in 1 closures' }).click();
  await expect(page.getByText('1 closures are brought in as Harbour works.')).toBeVisible();

  await newCourse(page, 'Chowders');
  await page.getByRole('link', { name: 'Plan a season' }).click();
  await expect(page.getByRole('heading', { name: /^8 sessions/ })).toBeVisible();
  await page.getByLabel('It meets').selectOption('daily');
  for (const weekday of ['Mon', 'Tue', 'Wed', 'Fri', 'Sat', 'Sun'])
    await page.getByLabel(weekday, { exact: true }).check();
  await page.getByLabel('First day').fill(inDays(205));
  await page.getByLabel('Or so many days').fill('4');
  await page.getByLabel('Place').fill('Slip café');
  await expect(page.getByRole('heading', { name: /^4 sessions/ })).toBeVisible();
  await expect(page.getByText(/Harbour works: Crane, all day; moved to/)).toBeVisible();
  await page.getByLabel('Last day').fill(inDays(204));
  await expect(page.getByText('The season ends before it starts.')).toBeVisible();
  await page.getByLabel('Last day').fill('');
  await page
    .getByRole('textbox', { name: /^Title of/ })
    .first()
    .fill('Clams');
  await page.getByRole('button', { name: 'Add 4 sessions' }).click();
  await expect(page.getByRole('link', { name: '1. Clams' })).toBeVisible();
  await expect(page.getByRole('link', { name: '4. Chowders 4' })).toBeVisible();
  await expect(page.getByText(/Instead of .*Harbour works: Crane, all day/)).toBeVisible();
});

test('a session is moved by dragging and by keyboard: what moves with it is shown first, and undo brings it back', async ({
  page,
}) => {
  await signIn(page);
  await newCourse(page, 'Pickles');
  await page.getByLabel('Title').first().fill('Beets in a jar');
  await page.getByLabel('Date').first().fill(inDays(100));
  await page.getByLabel('Place').first().fill('Slip café');
  await page.getByRole('button', { name: 'Add session' }).click();
  await expect(page.getByRole('heading', { name: /Beets in a jar/ })).toBeVisible();
  const day = (days: number) =>
    page.getByRole('listitem', {
      // As the demo's programme says its dates.
      name: new Intl.DateTimeFormat('en-US', {
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        year: 'numeric',
      }).format(new Date(`${inDays(days)}T12:00:00`)),
    });
  await page.goto(`/calendar?from=${inDays(100)}`);
  await day(100).getByText('Pickles').hover();
  await page.mouse.down();
  const target = await day(108).boundingBox();
  if (!target) throw new Error('The day is not on the calendar.');
  await page.mouse.move(target.x + 20, target.y + 20, { steps: 8 });
  await page.mouse.up();
  const dialog = page.getByRole('dialog', { name: 'Move Beets in a jar' });
  await expect(dialog.getByText(/jobs move with it/)).toBeVisible();
  await expect(dialog.getByText('Nothing stands against it.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Move it' }).click();
  await expect(day(108).getByText('Beets in a jar')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(day(100).getByText('Beets in a jar')).toBeVisible();

  await page.getByRole('button', { name: 'Move Beets in a jar' }).focus();
  await page.keyboard.press('Enter');
  await dialog.getByLabel('Date').fill(inDays(101));
  await expect(dialog.getByText('Nothing stands against it.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Move it' }).focus();
  await page.keyboard.press('Enter');
  await expect(day(101).getByText('Beets in a jar')).toBeVisible();
});

test('two classes in one kitchen are told on the course, and settled by a way out that was tried', async ({ page }) => {
  await signIn(page);
  await page.goto('/courses');
  await page.getByRole('link', { name: 'Supper Bags', exact: true }).click();
  await expect(page.getByText('Boatshed kitchen is taken by Fritters and slaw')).toBeVisible();
  await page.getByRole('button', { name: 'Take Harbour hall' }).click();
  await expect(page.getByText('Boatshed kitchen is taken by Fritters and slaw')).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Boatshed kitchen is taken by Fritters and slaw')).toBeVisible();
});

test('a course is given to a second group: one roll, kits told apart by group, one shopping trip', async ({ page }) => {
  await signIn(page);
  const { course, session } = await newSession(page, 'Twice told', ['Tide oat squares'], '');
  await page.goto(course);
  await page.getByText('Groups', { exact: true }).click();
  const form = page.getByRole('form', { name: 'Add a group' });
  await form.getByLabel('The group that meets now').fill('Early birds');
  await form.getByLabel('The second group').fill('Late owls');
  await form.getByLabel('Days after').fill('1');
  await form.getByLabel('Place').fill('Net loft');
  await form.getByRole('button', { name: 'Add group' }).click();
  await expect(page.getByText('Added, with 1 session to come.')).toBeVisible();
  await bringRoll(page, course, 'name,servings,group\nAda,1,early birds\nBo,1,Late owls\nCy,1,Night owls\n');
  await expect(page.getByText('Write one of: Early birds, Late owls.')).toBeVisible();
  await page.getByRole('textbox', { name: /group/i }).fill('Late owls');
  await page.getByRole('button', { name: 'Save 3 to the roll' }).click();
  await expect(page.getByText(/(?:people are|person is) on the roll\./)).toBeVisible();
  await page.goto(`${session}/kits`);
  await expect(page.getByText('Late owls: 2 kits')).toBeVisible();
  await page.goto(`${session}/countdown`);
  await expect(page.getByRole('row', { name: /Pack: Early birds/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Pack: Late owls/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Shop|due later Shop/ })).toHaveCount(1);
});

test('bad weather takes a session under a roof in one step; a session is split, and both are taken back', async ({
  page,
}) => {
  await signIn(page);
  await openSession(page, 'Lentils over the fire');
  await page.getByRole('button', { name: 'Bad weather: take it to Boatshed kitchen' }).click();
  await expect(page.getByRole('combobox', { name: 'Place' })).toHaveValue('Boatshed kitchen');
  const { session } = await newSession(page, 'Parted', ['Tide oat squares', 'Slipway slaw'], '');
  await page.goto(session);
  await page.getByText('Split this session').click();
  const form = page.getByRole('form', { name: 'Split this session' });
  await form.getByLabel('Slipway slaw').check();
  await form.getByLabel('Date').fill(inDays(9));
  await form.getByRole('button', { name: 'Split session' }).click();
  await expect(page.getByRole('heading', { name: /second part/ })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Slipway slaw' })).toBeVisible();
  await page.goto('/calendar');
  for (const said of ['Split Parted one', 'Bad weather']) {
    await expect(page.getByText(said).first()).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText(`Taken back: ${said}`)).toBeVisible();
    await page.reload();
  }
  await page.goto(session);
  await expect(page.getByRole('link', { name: 'Slipway slaw' })).toBeVisible();
});

test('a course finds its place in the week, and is laid down there', async ({ page }) => {
  await signIn(page);
  await newCourse(page, 'Dumplings');
  await page.getByRole('link', { name: 'Find a place in the week' }).click();
  await page.getByLabel('People').fill('12');
  await page.getByLabel('Over by').fill('15:30');
  await page.getByRole('button', { name: 'Find places' }).click();
  await expect(page.getByText('The class does not fit between these hours.')).toBeVisible();
  await page.getByLabel('Over by').fill('19:00');
  await page.getByRole('button', { name: 'Find places' }).click();
  const best = page.getByRole('region', { name: 'Place 1' });
  await expect(best.getByText('no conflict')).toBeVisible();
  const place =
    /at \d{1,2}:\d\d (?:am|pm), ([^,]+)/.exec((await best.getByRole('heading').textContent()) ?? '')?.[1] ?? '';
  await best.getByRole('link', { name: 'Plan the season here' }).click();
  await expect(page.getByRole('combobox', { name: 'Place' })).toHaveValue(place.trim());
  await expect(page.getByRole('button', { name: /^Add \d+ sessions$/ })).toBeEnabled();
});

test('a session that can no longer be ready says what would save it; its jobs are taken up, marked and printed', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/');
  await expect(
    page.getByRole('heading', { name: /Pots for the freezer.*can no longer be ready in time/ }),
  ).toBeVisible();
  await openSession(page, 'Lentils for the week', '/countdown');
  await page.getByRole('button', { name: 'Add Cook ahead, soak or marinate' }).click();
  await expect(page.getByRole('row', { name: /Cook ahead, soak or marinate/ })).toBeVisible();
  await page.getByLabel('What is to be done').fill('Fetch the van');
  await page.getByRole('button', { name: 'Add job' }).click();
  const row = page.getByRole('row', { name: /Fetch the van/ });
  await row.getByRole('button', { name: 'Mark done: Fetch the van' }).click();
  await expect(row.getByRole('button', { name: 'Not done: Fetch the van' })).toBeVisible();
  await page.goto('/week-sheet');
  await expect(page.getByText('Breads from the pan').first()).toBeVisible();
});

test('a calendar address is read without signing in, and answers no more once it is ended', async ({
  page,
  request,
}) => {
  await signIn(page);
  await page.goto('/calendar-addresses');
  await page.getByRole('button', { name: 'Make address' }).click();
  const said = await page.getByRole('status').filter({ hasText: 'Copy the address now' }).textContent();
  const path = /\/feeds\/[\w-]+\.ics/.exec(said ?? '')?.[0] ?? '';
  const feed = await request.get(path);
  expect(feed.headers()['content-type']).toContain('text/calendar');
  expect(await feed.text()).toContain('Breads from the pan');
  await page.getByRole('button', { name: 'End the address of the whole programme' }).click();
  await expect(page.getByText('None. Make one')).toBeVisible();
  expect((await request.get(path)).status()).toBe(404);
});
