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
  ['recipe-import', '/recipes/import'],
  ['roster-table', '/crew/roster/table'],
];

const RECIPE = `Harbour chowder
Serves 6
Ingredients
2 Tbsp butter or olive oil
1 large onion, finely chopped
3-4 potatoes (about 600 g), diced
1 (15-oz) can sweetcorn, drained
11/2 cups milk
2 tsp tumeric
1/4 cup salt
Method
Soften the onion in the butter.
Add potatoes, sweetcorn and milk, simmer 20 minutes.
Season with salt and turmeric.
`;

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
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill('marit@boatshed.example');
  await page.getByLabel('Password').fill('tide-and-thyme');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(`${web.address}/`);
  mkdirSync(OUT, { recursive: true });
  for (const [name, view] of VIEWS) {
    await page.setViewportSize(view.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 });
    await page.goto(await addressOf(page, view));
    if (name === 'recipe-import') {
      await page.getByLabel('Paste a recipe').fill(RECIPE);
      await page.getByRole('button', { name: 'Read recipe' }).click();
      await page.getByRole('list', { name: 'What smells like a slip' }).waitFor();
      await page.getByRole('heading', { name: /^What was understood/ }).scrollIntoViewIfNeeded();
      await page.mouse.wheel(0, 330);
    }
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
} finally {
  await browser?.close();
  await web?.stop();
  await worker?.stop();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
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
