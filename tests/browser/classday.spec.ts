import { expect, type Page, test } from '@playwright/test';
import { openSession, signIn } from './people';

const idOf = (address: string) => /sessions\/([0-9a-f-]{36})/.exec(address)?.[1] ?? '';

/** The class of the demo that is in full swing. */
async function openClass(page: Page, title = 'Omelettes and slaw', path = ''): Promise<string> {
  await signIn(page);
  const sessionId = idOf(await openSession(page, title));
  await page.goto(`/live/${sessionId}${path}`);
  await expect(page.getByRole('heading', { name: title })).toBeVisible();
  return sessionId;
}

test('two tablets show one class: what one calls done the other sees, without a network too', async ({
  page,
  browser,
}) => {
  const sessionId = await openClass(page);
  const other = await browser.newContext({ viewport: { width: 768, height: 1024 } });
  const tablet = await other.newPage();
  await signIn(tablet, 'crew');
  await tablet.goto(`/live/${sessionId}`);
  const late = page.getByRole('region', { name: 'Station 4' });
  await expect(late).toContainText('minutes late');
  const done = late.getByRole('button', { name: /^Done: Wash everything/ });
  await expect(
    tablet.getByRole('region', { name: 'Station 4' }).getByRole('button', { name: /^Done: Wash/ }),
  ).toBeVisible();
  await done.click();
  await expect(
    tablet.getByRole('region', { name: 'Station 4' }).getByRole('button', { name: /^Done: Wash/ }),
  ).toBeHidden();
  // Without a network it goes on, also when the page is opened again; the rest follows.
  await expect
    .poll(() => tablet.evaluate(async () => (await caches.match(location.href)) !== undefined), { timeout: 20_000 })
    .toBe(true);
  await other.setOffline(true);
  const doneOf = (screen: Page) =>
    screen.getByRole('region', { name: 'Station 2' }).getByRole('button', { name: /^Done: / });
  const pressed = (await doneOf(tablet).first().getAttribute('aria-label')) ?? '';
  await expect(doneOf(page).and(page.getByLabel(pressed, { exact: true }))).toBeVisible();
  await doneOf(tablet).first().click();
  await expect(tablet.getByText('1 not sent yet.')).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByText('1 not sent yet.')).toBeVisible();
  await other.setOffline(false);
  await expect(tablet.getByText('1 not sent yet.')).toBeHidden();
  await expect(doneOf(page).and(page.getByLabel(pressed, { exact: true }))).toBeHidden();
  await other.close();
});

test('an omelette that is not hot enough is not done: it is cooked on, and probed again', async ({ page }) => {
  await openClass(page);
  const station = page.getByRole('region', { name: 'Station 1' });
  await expect(station).toContainText('147 °F (63.8 °C) inside is too low for egg dishes');
  const done = station.getByRole('button', { name: /^Done: Pour/ });
  await expect(done).toBeDisabled();
  await station.getByRole('button', { name: /^Probe: Pour/ }).click();
  await page.getByLabel('Typed, in °F').fill('hot');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Write what the thermometer shows')).toBeVisible();
  await page.getByLabel('Typed, in °F').fill('165');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(station).toContainText('165 °F (73.9 °C) inside: safe');
  await done.click();
  await page.getByRole('tab', { name: 'Temperatures' }).click();
  await expect(page.getByText(/165 °F \(73.9 °C\), typed, .*safe/)).toBeVisible();
});

test('behind, the rest is planned again; a timer runs for all; what was tapped by mistake is taken back', async ({
  page,
}) => {
  await openClass(page);
  await page.getByRole('button', { name: 'Plan the rest again' }).click();
  await expect(page.getByText(/^Planned again at minute \d+: ready at/)).toBeVisible();
  await page.getByText(/done; something was tapped by mistake/).click();
  await page
    .getByRole('button', { name: /^Not done: / })
    .first()
    .click();
  await expect(page.getByText(/done; something was tapped by mistake/)).toBeVisible();
  await page.getByRole('tab', { name: 'Closing' }).click();
  const line = page.getByRole('checkbox', { name: /Everything that was hot is off/ });
  await line.check();
  await expect(page.getByText(/^(Marit Solway|this screen), /)).toBeVisible();
});

test('something is not there today: everybody who eats of it is looked at, and the tasks say so', async ({ page }) => {
  const sessionId = await openClass(page);
  await page.getByRole('tab', { name: 'Trouble' }).click();
  const form = page.getByRole('region', { name: 'Something else today' });
  await form.getByLabel('What is not there').selectOption('lemon');
  await form.getByLabel('Instead').selectOption('other');
  await form.getByLabel('Which food').fill('milk');
  await form.getByRole('button', { name: /Look at everybody/ }).click();
  await expect(form.getByRole('alert')).toContainText(/not safe, and nothing was changed|Say how much/);
  await form.getByLabel('What is not there').selectOption('sunflower seeds');
  await form.getByLabel('Instead').selectOption('leave out');
  await form.getByRole('button', { name: /Look at everybody/ }).click();
  await expect(form.getByText('Station 1: without sunflower seeds', { exact: false })).toBeVisible();
  // One tap says what ran short; which kits can be put right stands on a page of its own.
  await page.getByLabel('Which food').first().selectOption('carrot');
  await page.getByRole('button', { name: 'half as much again' }).click();
  await expect(page.getByText('Kept: carrot was short, 50 % more was needed')).toBeVisible();
  await page.goto(`/room/${sessionId}/troubles`);
  await expect(page.getByText(/To top them up: .* in all/).first()).toBeVisible();
});

test('hurt: the family’s plan comes first; what is written is the coordinator’s alone', async ({ page, browser }) => {
  await signIn(page);
  const sessionId = idOf(await openSession(page, 'Omelettes and slaw'));
  const crew = await (await browser.newContext()).newPage();
  await signIn(crew, 'crew');
  await crew.goto(`/room/${sessionId}/hurt`);
  await crew.locator('select[name=enrolmentId]').selectOption({ label: 'Isla Prowse' });
  await crew.getByText('allergic reaction').click();
  await expect(crew.getByText('Hives: antihistamine from her bag', { exact: false })).toBeVisible();
  await expect(crew.getByText('Say “anaphylaxis”', { exact: false })).toBeVisible();
  await crew.getByRole('button', { name: 'Keep it' }).click();
  await expect(crew.getByText('Say what happened and what was done.')).toBeVisible();
  await crew.getByLabel(/What happened, when/).fill('Hives on both arms at 16:40; antihistamine given.');
  await crew.getByRole('button', { name: 'Keep it' }).click();
  await expect(crew.getByText('Coordinators alone can read it', { exact: false })).toBeVisible();
  await crew.goto(`/room/${sessionId}/incidents`);
  await expect(crew.getByText('Hives on both arms')).toBeHidden();
  await page.goto(`/room/${sessionId}/incidents`);
  await expect(page.getByRole('heading', { name: 'Allergic reaction: Isla Prowse' })).toBeVisible();
  await crew.close();
});

test('a class on screen: who is there, what everybody has, questions that are kept, and tasting in a row', async ({
  page,
}) => {
  const sessionId = await openClass(page, 'Curry on screen');
  await page.getByRole('tab', { name: 'On screen' }).click();
  await expect(page.getByText('6 of 9')).toBeVisible();
  await page.getByRole('button', { name: 'Household Hartnoll: kit and equipment at hand' }).click();
  await expect(page.getByText('7 of 9')).toBeVisible();
  await page.getByRole('textbox', { name: /^Answer to: Our tin/ }).fill('With a tin opener.');
  await page.getByRole('button', { name: 'Answered' }).first().click();
  await expect(page.getByText('2 answered')).toBeVisible();
  await page.goto(`/room/${sessionId}/on-screen`);
  await page.getByLabel('Paste the list of names, or the chat').fill('From Estherby to Everyone: hello\nGalaxy S9');
  await page.getByRole('button', { name: 'See who is there' }).click();
  await expect(page.getByText('1 of the roll are there.')).toBeVisible();
  await expect(page.getByText('“Galaxy S9”')).toBeVisible();
  await page.getByRole('button', { name: 'Note them as there' }).click();
  await expect(page.getByText('1 person noted as there.')).toBeVisible();
  await page.goto(`/room/${sessionId}/tasting`);
  await page.getByRole('button', { name: /more please/ }).click();
  await expect(page.getByText('Thank you. Who is next?')).toBeVisible();
});

test('the run sheet prints a card for each station, with its picture and what it measures', async ({ page }) => {
  await signIn(page);
  const sessionId = idOf(await openSession(page, 'Omelettes and slaw'));
  await page.goto(`/room/${sessionId}/run-sheet`);
  await expect(page.getByText(/minutes of cooking in 50 that are left for it/)).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^Station 1 from above: Fynn Okoro-Hale and Sanna Birch with/ }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Station cards' }).click();
  const card = page.getByRole('region', { name: 'Station 2' });
  await expect(card).toContainText('oat drink instead of milk');
  await expect(card).toContainText('Made without milk');
  await page.emulateMedia({ media: 'print' });
  await expect(card).toBeVisible();
});
