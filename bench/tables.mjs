// Long tables in the running program: a roll of 500 people and 300 recipes, as pages, and as somebody types into their search.
import { randomUUID } from 'node:crypto';
import mysql from 'mysql2/promise';
import { launchChromium } from '../scripts/chromium.mjs';

const PEOPLE = 500;
const RECIPES = 300;

async function fill({ api, url }) {
  const { id } = await api('POST', '/courses', { title: 'A long roll' });
  const needs = ['', 'milk', 'egg', 'nuts; sesame'];
  const rows = Array.from({ length: PEOPLE }, (_, n) => `Person ${n} Of${n % 83},${6 + (n % 9)},1,${needs[n % 4]}`);
  await api('POST', `/courses/${id}/roll`, `name,age,servings,avoids\n${rows.join('\n')}\n`, 'text/csv');
  // Straight into the database: so many at once are more than a person may send.
  const db = await mysql.createConnection(url);
  const [recipes] = await db.query('SELECT * FROM recipe');
  const rowsOf = Array.from({ length: RECIPES - recipes.length }, (_, n) => {
    const row = { ...recipes[n % recipes.length], id: randomUUID(), title: `Dish ${n}`, parent_id: null };
    return Object.values(row).map((value) =>
      value !== null && typeof value === 'object' && !(value instanceof Date) ? JSON.stringify(value) : value,
    );
  });
  await db.query(`INSERT INTO recipe (${Object.keys(recipes[0]).join(', ')}) VALUES ?`, [rowsOf]);
  await db.end();
  return id;
}

/** From each letter typed to the moment after what it changed was drawn. */
async function typing(address, cookie, path, label, words) {
  const browser = await launchChromium();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies(
    cookie
      .split('; ')
      .map((each) => ({ name: each.split('=')[0], value: each.slice(each.indexOf('=') + 1), url: address })),
  );
  const page = await context.newPage();
  await page.goto(address + path, { waitUntil: 'networkidle' });
  const spent = [];
  for (const word of words) {
    await page.getByLabel(label).fill('');
    // As long as a person takes to begin another word.
    await page.waitForTimeout(500);
    for (const letter of word) {
      const took = page.evaluate(
        () =>
          new Promise((resolve) => {
            document.addEventListener(
              'input',
              () => {
                const start = performance.now();
                requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start)));
              },
              { once: true, capture: true },
            );
          }),
      );
      await page.getByLabel(label).pressSequentially(letter);
      spent.push(await took);
    }
  }
  await browser.close();
  return spent;
}

export async function longTables(running, cookie, { say, timed, read }) {
  const courseId = await fill(running);
  const pages = [
    [`/courses/${courseId}/roll`, `Roll of ${PEOPLE} people`, 'goal: p95 at most 100 ms'],
    ['/recipes', `List of ${RECIPES} recipes`, 'goal: p95 at most 100 ms'],
  ];
  for (const [path, title, goal] of pages) {
    for (let n = 0; n < 20; n++) await read(path);
    const spent = [];
    for (let n = 0; n < 100; n++) spent.push(await timed(() => read(path)));
    say(title, spent, goal);
  }
  const search = (path, label, words) => typing(running.address, cookie, path, label, words);
  const keys = 'goal: a letter answered within 50 ms';
  say(
    'A letter typed into the search of the roll',
    await search(`/courses/${courseId}/roll`, 'Find by name or avoidance', [
      'person 41',
      'of7',
      'sesame',
      'person 123',
      'nuts',
      'of82',
    ]),
    keys,
  );
  say(
    'A letter typed into the search of the recipes',
    await search('/recipes', 'Find by name or food', ['dish 12', 'yogurt', 'oats', 'carrot', 'dish 201', 'lemon']),
    keys,
  );
}
