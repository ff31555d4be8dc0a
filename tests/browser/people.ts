import { readFileSync } from 'node:fs';
import { type BrowserContext, expect, type Page } from '@playwright/test';

const demo = JSON.parse(readFileSync('demo/programme.json', 'utf8')) as {
  members: { email: string; password: string; role: string }[];
};

const city = JSON.parse(readFileSync('demo/city.json', 'utf8')) as {
  overseers: { email: string; password: string; of: string }[];
};

/** Cookies of those who signed in before in this run. */
const signedIn = new Map<string, Awaited<ReturnType<BrowserContext['cookies']>>>();

/** Signs in as one of the demo's people; a second time with the cookie of the first. */
export async function signIn(page: Page, role: 'coordinator' | 'instructor' | 'crew' = 'coordinator'): Promise<void> {
  const known = signedIn.get(role);
  if (known) return page.context().addCookies(known);
  await signInAfresh(page, role);
  signedIn.set(role, await page.context().cookies());
}

/** Signs in as one of the demo's people, or as who looks over its city or the installation, with a sign-in of the page's own. */
export async function signInAfresh(page: Page, who: string): Promise<void> {
  const person = [...demo.members, ...city.overseers].find((each) => ('role' in each ? each.role : each.of) === who);
  await page.context().clearCookies();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(person?.email ?? '');
  await page.getByLabel('Password').fill(person?.password ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).not.toHaveURL(/sign-in/);
}

/** Where the sessions of the demo are. */
const sessions = new Map<string, string>();

/** Opens a stage of a demo session, found on the countdown. */
export async function openSession(page: Page, title: string, stage = ''): Promise<string> {
  let href = sessions.get(title);
  if (!href) {
    await page.goto('/?all');
    href = (await page.getByRole('link', { name: title }).first().getAttribute('href')) ?? '';
    sessions.set(title, href);
  }
  await page.goto(`${href}${stage}`);
  return href;
}

/** Opens a page of a session that is over: only its course still names it. */
export async function openPast(page: Page, course: string, title: string, stage: string): Promise<void> {
  await page.goto('/courses');
  await page.getByRole('link', { name: course, exact: true }).first().click();
  await page.getByRole('link', { name: title }).first().click();
  await page.waitForURL(/\/sessions\//);
  await page.goto(`${page.url()}${stage}`);
}

/** A course of its own with one session and one dish, for a test that changes things. */
export async function newSession(
  page: Page,
  title: string,
  dishes: string[],
  roll: string,
): Promise<{ course: string; session: string }> {
  await page.goto('/courses');
  const form = page.getByRole('form', { name: 'Add a course' });
  await form.getByLabel('Title').fill(title);
  await form.getByRole('button', { name: 'Add course' }).click();
  await page.getByRole('link', { name: title, exact: true }).click();
  await expect(page.getByRole('heading', { name: title })).toBeVisible();
  const course = new URL(page.url()).pathname;
  const session = page.getByRole('form', { name: 'Add a session' });
  await session.getByLabel('Title').fill(`${title} one`);
  const date = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
  await session.getByLabel('Date').fill(date);
  await session.getByLabel('Place').fill('Net loft');
  await session.getByRole('button', { name: 'Add session' }).click();
  await expect(page).toHaveURL(/sessions/);
  const address = new URL(page.url()).pathname;
  for (const dish of dishes) {
    await page.getByLabel('Add a dish').selectOption({ label: dish });
    await page.getByRole('button', { name: 'Add dish' }).click();
    await expect(page.getByRole('link', { name: dish })).toBeVisible();
  }
  if (roll) {
    await bringRoll(page, course, roll);
    await page.getByRole('button', { name: /^Save \d+ to the roll/ }).click();
    await expect(page.getByText(/(?:people are|person is) on the roll\./)).toBeVisible();
  }
  return { course, session: address };
}

/** Chooses a roll file on the import page. */
export async function bringRoll(page: Page, course: string, text: string | Buffer, name = 'roll.csv'): Promise<void> {
  await page.goto(`${course}/roll/import`);
  await page.getByLabel('File with the roll').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
}
