// npm run screenshots: one picture of each main view, from a fresh demo, into docs/screenshots.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { launchChromium } from './chromium.mjs';
import { startDatabase } from './database.mjs';
import { startWeb, startWorker } from './supervise.mjs';
import { ensureBuild, ensureDebianPackage, ensurePackages, freePort, ROOT, run, say } from './system.mjs';

const OUT = path.join(ROOT, 'docs', 'screenshots');

/** Name, how to get there, and what else to do before the picture is taken. */
const VIEWS = [
  ['countdown', '/'],
  ['calendar', '/calendar'],
  ['roll', { course: 'Galley on Screen', stage: '/roll' }],
  ['kit-sheet', { session: 'Breads from the pan', stage: '/kits' }],
  ['prep-plan', { session: 'Breads from the pan', plan: true }],
  ['report', { course: 'Autumn Sprats', report: true }],
  ['buying', '/buying'],
  ['trip-phone', { trip: true, phone: true }],
  ['lessons', '/lessons'],
  ['bench-phone', { session: 'Breads from the pan', bench: true, phone: true }],
  ['hand-out-phone', { session: 'Soup bags', at: '/table', phone: true }],
  ['doors', { session: 'Curry on screen', stage: '/doors' }],
  ['run-sheet', { session: 'Omelettes and slaw', room: '/run-sheet' }],
  ['class', { session: 'Omelettes and slaw', at: '/live' }],
  ['own-page-phone', { own: 'Runa Castell', phone: true }],
  ['recipe-steps', { recipe: 'Slipknot seed rolls', stage: '/steps?hands=2' }],
  ['roster-table', '/crew/roster/table'],
];

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-pictures-'));
ensurePackages();
ensureDebianPackage('pdftoppm', 'poppler-utils');
const database = await startDatabase({
  folder,
  keys: path.join(folder, 'keys'),
  databases: ['pictures'],
  durable: false,
  quiet: true,
});
const env = { DATABASE_URL: database.urls.pictures, SESSION_SECRET: database.sessionSecret };
let web;
let worker;
let browser;
try {
  run(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts', '--demo'], { env: { ...process.env, ...env } });
  ensureBuild();
  web = await startWeb({ port: await freePort(), env });
  worker = await startWorker({ env });
  browser = await launchChromium();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: web.address });
  await signIn(page, 'marit@boatshed.example', 'tide-and-thyme');
  mkdirSync(OUT, { recursive: true });
  for (const [name, view] of VIEWS) {
    await page.setViewportSize(view.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 });
    await page.goto(await addressOf(page, view));
    await page.waitForTimeout(1500);
    await page.screenshot({ path: path.join(OUT, `${name}.png`) });
    say(`${name}.png`);
  }
  const session = await addressOf(page, { session: 'Lighthouse pasta', stage: '' });
  const pdf = path.join(folder, 'labels.pdf');
  const { writeFileSync } = await import('node:fs');
  writeFileSync(pdf, await (await page.request.get(`${session}/labels.pdf?paper=letter`)).body());
  run('pdftoppm', ['-r', '85', '-png', '-singlefile', pdf, path.join(OUT, 'labels')]);
  say('labels.png');
  await page.context().clearCookies();
  await page.setViewportSize({ width: 1280, height: 800 });
  await signIn(page, 'ines@orrinquayschools.example', 'counts-and-coins');
  await page.getByRole('heading', { name: 'Worth a question' }).waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: path.join(OUT, 'city.png') });
  say('city.png');
} finally {
  await browser?.close();
  await web?.stop();
  await worker?.stop();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
}

async function signIn(page, email, password) {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((address) => address.pathname !== '/sign-in');
}

async function addressOf(page, view) {
  if (typeof view === 'string') return view;
  const find = async (from, name) => {
    await page.goto(from);
    return page.getByRole('link', { name }).first().getAttribute('href');
  };
  if (view.own) {
    await page.goto(await find('/crew', view.own));
    await page.getByRole('button', { name: 'Show the link' }).click();
    return new URL((await page.locator('code').first().textContent()) ?? '').pathname;
  }
  if (view.trip) return find('/trips', /^Open the list/);
  if (view.recipe) return `${await find('/recipes', view.recipe)}${view.stage ?? ''}`;
  if (view.report) return (await find('/courses', view.course)).replace('/courses/', '/reports?courseId=');
  if (view.course) return `${await find('/courses', view.course)}${view.stage}`;
  const session = await find('/?all', view.session);
  if (view.plan) return `${await find(`${session}/packing`, 'Prep')}/plan?hands=4`;
  if (view.at) return session.replace('/sessions', view.at);
  if (view.room) return `${session.replace('/sessions', '/room')}${view.room}`;
  return view.bench ? session.replace('/sessions', '/bench') : `${session}${view.stage}`;
}
