// Figures of the running program: page, ticks (the bench under load), labels, start. Each beside its goal; one alone by
// its name: node bench/server.mjs ticks
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';

import { launchChromium } from '../scripts/chromium.mjs';
import { stolen } from '../scripts/host.mjs';
import { ROOT } from '../scripts/system.mjs';
import { classOf20Screens } from './class.mjs';
import { lookingBack } from './closeout.mjs';
import { ownPage } from './crew.mjs';
import { handOutOf500 } from './handout.mjs';
import { lockedSession, startRunning, ticksOf } from './running.mjs';
import { hourOffline, shelvesOf5000 } from './shelves.mjs';
import { longTables } from './tables.mjs';

const at = (sorted, part) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0;

function say(title, spent, goal) {
  const sorted = [...spent].sort((a, b) => a - b);
  const ms = (part) => `${at(sorted, part).toFixed(1)} ms`;
  console.log(
    `${title}\n  median ${ms(0.5)}, p95 ${ms(0.95)}, p99 ${ms(0.99)}, ${sorted.length} requests\n  ${goal}\n`,
  );
}

/** Milliseconds of a fixed piece of work: a virtual machine that is slowed down shows it here, and nowhere else. */
function pace() {
  const start = performance.now();
  let sum = 0;
  for (let n = 0; n < 1e8; n++) sum += n % 7;
  return sum > 0 ? performance.now() - start : 0;
}

/** Says beside the figures how much of the machine was missing while they were taken: without it they mean little. */
async function beside(work) {
  const before = stolen();
  const first = pace();
  const result = await work();
  const after = stolen();
  const share = (after.stolen - before.stolen) / Math.max(1, after.all - before.all);
  console.log(
    `  (the host gave ${Math.round(share * 100)} % of the processor time to others meanwhile; a fixed loop took ${first.toFixed(0)} ms before and ${pace().toFixed(0)} ms after)\n`,
  );
  return result;
}

/** A cookie of a signed-in coordinator, as a browser gets it from the sign-in form. */
async function signIn(address) {
  const browser = await launchChromium();
  const page = await browser.newPage();
  await page.goto(`${address}/sign-in`);
  await page.getByLabel('E-mail').fill('marit@boatshed.example');
  await page.getByLabel('Password').fill('tide-and-thyme');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((url) => url.pathname === '/');
  const cookies = await page.context().cookies();
  await browser.close();
  return cookies.map(({ name, value }) => `${name}=${value}`).join('; ');
}

async function timed(work) {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** One page, read to its end. */
const reader = (address, headers) => async (path) => {
  const response = await fetch(address + path, { headers });
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return (await response.arrayBuffer()).byteLength;
};

async function pageOf500(running, read) {
  const { sessionId } = await lockedSession(running, 500);
  for (let n = 0; n < 30; n++) await read(`/sessions/${sessionId}/kits`);
  const spent = [];
  for (let n = 0; n < 200; n++) spent.push(await timed(() => read(`/sessions/${sessionId}/kits`)));
  say('Kit sheet page with 500 participants', spent, 'goal: p95 at most 100 ms over 200 requests');
  return sessionId;
}

/** Two hundred sessions in the coming two weeks, each with a dish and a roll of eight. */
async function countdownOf200(running, read) {
  const { api } = running;
  const { items } = await api('GET', '/recipes');
  for (let course = 0; course < 20; course++) {
    const { id } = await api('POST', '/courses', { title: `Course ${course}` });
    const rows = Array.from({ length: 8 }, (_, n) => `Person ${n},1,${n === 3 ? 'milk' : ''}`);
    await api('POST', `/courses/${id}/roll`, `name,servings,avoids\n${rows.join('\n')}\n`, 'text/csv');
    for (let n = 0; n < 10; n++) {
      const day = 2 + ((course + n) % 12);
      const session = await api('POST', `/courses/${id}/sessions`, {
        title: `Session ${n}`,
        date: new Date(Date.now() + day * 86_400_000).toISOString().slice(0, 10),
        startsAt: `${String(9 + n).padStart(2, '0')}:00`,
        minutes: 60,
        place: `Room ${course}`,
        mode: n % 2 ? 'take-home' : 'in person',
      });
      await api('POST', `/sessions/${session.id}/dishes`, { recipeId: items[(course + n) % items.length].id });
    }
  }
  for (let n = 0; n < 15; n++) await read('/');
  const spent = [];
  for (let n = 0; n < 100; n++) spent.push(await timed(() => read('/')));
  say('Countdown page with 200 sessions', spent, 'goal: p95 at most 120 ms over 100 requests');
}

async function benchUnderLoad(running, { screens = 20, perSecond = 10, seconds = 30, warmUp = 3 } = {}) {
  const { sessionId, sheet } = await lockedSession(running, 200, 'Busy bench');
  const all = ticksOf(sheet);
  const path = `/sessions/${sessionId}/ticks`;
  // Every screen listens too, as it does at a real bench.
  const heard = new Set();
  const sentAt = new Map();
  const hearing = [];
  const listening = new AbortController();
  const listeners = Array.from({ length: screens }, async (_, screen) => {
    const response = await fetch(`${running.address}/api/bench/${sessionId}/stream?since=0`, {
      headers: running.headers,
      signal: listening.signal,
    });
    const text = new TextDecoder();
    let rest = '';
    for await (const chunk of response.body) {
      if (screen > 0) continue;
      const messages = (rest + text.decode(chunk, { stream: true })).split('\n\n');
      rest = messages.pop() ?? '';
      for (const message of messages) {
        const data = /^data: (.*)$/m.exec(message)?.[1];
        for (const event of data ? JSON.parse(data).events : []) {
          heard.add(event.id);
          hearing.push(performance.now() - (sentAt.get(event.id) ?? 0));
        }
      }
    }
  }).map((listener) => listener.catch(() => {}));
  const post = async (body) => {
    const response = await fetch(`${running.address}/api/bench/${sessionId}/ticks`, {
      method: 'POST',
      headers: { ...running.headers, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${response.status}`);
    await response.arrayBuffer();
  };
  const spent = [];
  const sent = [];
  let refused = 0;
  const screen = async (offset) => {
    const start = performance.now() + offset;
    const answers = [];
    for (let n = 0; n < perSecond * (warmUp + seconds); n++) {
      const wait = start + (n * 1000) / perSecond - performance.now();
      if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
      const tick = { ...all[(sent.length * 7) % all.length], id: randomUUID() };
      sent.push(tick.id);
      sentAt.set(tick.id, performance.now());
      answers.push(
        timed(() => post({ ticks: [tick] })).then(
          (time) => n >= perSecond * warmUp && spent.push(time),
          () => refused++,
        ),
      );
    }
    await Promise.all(answers);
  };
  const load = () => Promise.all(Array.from({ length: screens }, (_, n) => screen((n * 1000) / perSecond / screens)));
  await load();
  const { events } = await running.api('GET', path);
  const saved = new Set(events.map(({ id }) => id));
  await new Promise((resolve) => setTimeout(resolve, 1000));
  listening.abort();
  await Promise.all(listeners);
  say(
    `${screens} screens × ${perSecond} ticks a second for ${seconds} s after ${warmUp} s of the same, all listening`,
    spent,
    `goal: p99 at most 200 ms; lost ${sent.filter((id) => !saved.has(id)).length}, doubled ${events.length - saved.size}, refused ${refused}, not heard by a screen ${sent.filter((id) => !heard.has(id)).length}`,
  );
  say('The same ticks, until another screen hears them', hearing, 'goal: within 1000 ms');
}

async function labelsMeanwhile(running, sessionId, read) {
  const spent = [];
  let going = true;
  const other = (async () => {
    while (going) spent.push(await timed(() => read('/courses')));
  })();
  const labels = await timed(async () => {
    const response = await fetch(`${running.address}/api/v1/sessions/${sessionId}/labels?paper=a4`, {
      headers: running.headers,
    });
    const bytes = await response.arrayBuffer();
    if (!response.ok || bytes.byteLength < 10_000) throw new Error(`labels: ${response.status}`);
  });
  going = false;
  await other;
  console.log(`500 labels as PDF: ${(labels / 1000).toFixed(2)} s\n  goal: at most 5 s\n`);
  say('Another page while the labels are made', spent, 'goal: p95 at most 100 ms');
}

/** From the command to the printed address, with everything installed and built. */
async function starting() {
  const start = performance.now();
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let output = '';
  const ready = await new Promise((resolve) => {
    child.stdout.on('data', (chunk) => {
      output += chunk;
      if (output.includes('is ready')) resolve(performance.now() - start);
      if (output.includes('already running')) resolve(null);
    });
  });
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
  console.log(
    ready === null
      ? 'Starting: not measured, Logistra is running from this folder.\n'
      : `Starting with everything installed: ${(ready / 1000).toFixed(1)} s\n  goal: at most 20 s\n`,
  );
}

const only = process.argv[2];
const wants = (part) => only === undefined || only === part;

const running = await startRunning();
try {
  const cookie = await signIn(running.address);
  const read = reader(running.address, { cookie });
  const sessionId = wants('page') || wants('labels') ? await beside(() => pageOf500(running, read)) : undefined;
  if (wants('countdown')) await beside(() => countdownOf200(running, read));
  if (wants('ticks')) await beside(() => benchUnderLoad(running));
  if (wants('shelves')) {
    await beside(() => hourOffline(running));
    await beside(() => shelvesOf5000(running, read, { say, timed }));
  }
  if (wants('crew')) await beside(() => ownPage(running, { say, timed }));
  if (wants('handout')) await beside(() => handOutOf500(running, { say, timed }));
  if (wants('class')) await beside(() => classOf20Screens(running));
  if (wants('tables')) await beside(() => longTables(running, cookie, { say, timed, read }));
  // It fills the database, and comes after what is measured of the demo.
  if (wants('closeout')) await beside(() => lookingBack(running, { say, timed, read }));
  if (wants('labels')) await beside(() => labelsMeanwhile(running, sessionId, read));
} finally {
  await running.stop();
}
if (wants('start')) await starting();
