// A city's week, as load on a running Logistra: benches that tick once a second, people who open pages, families who are handed
// their kits, rolls that come in, two solvers at work. What was acknowledged is remembered, to be looked for afterwards.
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import path from 'node:path';
import { ROOT } from './system.mjs';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** What is opened all day; "Buying" works a plan out each time, as the solvers beside it do. */
const PAGES = ['/', '/calendar', '/courses', '/recipes', '/crew', '/shelves', '/programme'];

/** A part of sorted figures: 0.95 of it. */
export const partOf = (figures, part) => {
  const sorted = [...figures].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0;
};

/** Asks a server, over connections that stay open. @param ca the certificate that is trusted */
export function askerOf(address, ca) {
  const { protocol } = new URL(address);
  const { Agent, request } = protocol === 'https:' ? https : http;
  const agent = new Agent({ keepAlive: true, maxSockets: 300, ...(ca ? { ca } : {}) });
  const ask = (method, where, { headers = {}, body, seconds = 10 } = {}) =>
    new Promise((resolve, reject) => {
      const sent = request(new URL(where, address), { method, headers, agent, timeout: seconds * 1000 }, (answer) => {
        const parts = [];
        answer.on('data', (part) => parts.push(part));
        answer.on('end', () => resolve({ status: answer.statusCode, text: Buffer.concat(parts).toString() }));
        answer.on('error', reject);
      });
      sent.on('timeout', () => sent.destroy(new Error('no answer in time')));
      sent.on('error', reject);
      sent.end(body);
    });
  return Object.assign(ask, { address });
}

/**
 * A beat of somebody's own, kept whatever happens: people do not hear one another. Begun together, or stopped together for a moment,
 * forty benches would else send their ticks in the same millisecond of each second for ever.
 *
 * @param every milliseconds
 * @returns waits until the next time; what lies behind already is left out
 */
function beatOf(every) {
  let due = performance.now() + Math.random() * every;
  return async () => {
    due += every * Math.max(0, Math.ceil((performance.now() - due) / every));
    await pause(due - performance.now());
    due += every;
  };
}

const json = (token, more = {}) => ({ authorization: `Bearer ${token}`, 'content-type': 'application/json', ...more });

/** Does something until the server says that it is done. @returns undefined where it is refused: that is remembered, and not tried again */
async function until(state, work) {
  for (;;) {
    const answer = await work().catch(() => null);
    if (answer && answer.status < 300) return answer;
    if (answer && answer.status < 500 && answer.status !== 429) {
      state.refusals.add(`${answer.status} ${answer.text.slice(0, 160)}`);
      return undefined;
    }
    await pause(200);
  }
}

const plainText = (text) =>
  text.replace(/&(quot|amp|lt|gt|#x27);/g, (_, name) => ({ quot: '"', amp: '&', lt: '<', gt: '>', '#x27': "'" })[name]);

/**
 * What a form of a page sends where no script runs: its hidden fields, and what somebody wrote.
 *
 * @param label the form's name
 * @returns a body with its content type; undefined where the page has no such form
 */
async function formOf(page, label, written) {
  const [, inside] = new RegExp(`<form[^>]*aria-label="${label}"[^>]*>([\\s\\S]*?)</form>`).exec(page) ?? [];
  if (!inside) return undefined;
  const data = new FormData();
  for (const [hidden] of inside.matchAll(/<input type="hidden"[^>]*>/g)) {
    const [, name = ''] = /name="([^"]*)"/.exec(hidden) ?? [];
    const [, value = ''] = /value="([^"]*)"/.exec(hidden) ?? [];
    data.append(plainText(name), plainText(value));
  }
  for (const [name, value] of Object.entries(written)) data.append(name, value);
  const made = new Response(data);
  return { type: made.headers.get('content-type'), body: Buffer.from(await made.arrayBuffer()) };
}

/**
 * Begins the load.
 *
 * @param ask see askerOf
 * @param city what scripts/city.ts printed
 * @returns what was acknowledged and how long it took, `mark(name)` to begin a new part of the figures, and `stop()`
 */
export function beginLoad(ask, city, { people = 50, solvers = 2 } = {}) {
  const state = {
    going: true,
    refusals: new Set(),
    /** By session: ids of ticks, or of what was handed out, that were acknowledged. */
    ticks: new Map(),
    handed: new Map(),
    /** What each family was last thanked for, by the secret of its page; and of how many answers in all. */
    answers: new Map(),
    thanked: 0,
    rolls: [],
    /** When each bench was last answered, and the longest that it was not. */
    answered: new Map(),
    part: '',
    figures: new Map(),
  };
  const note = (kind, ms) => {
    const key = `${state.part} ${kind}`;
    if (!state.figures.has(key)) state.figures.set(key, []);
    state.figures.get(key).push(ms);
  };
  const timed = async (kind, work) => {
    const begun = performance.now();
    const answer = await work();
    note(kind, performance.now() - begun);
    return answer;
  };
  const benches = city.filter(({ ticks }) => ticks.length > 0);
  const works = [];

  for (const { token, ticks, sessionIds } of benches) {
    const [sessionId] = sessionIds;
    state.ticks.set(sessionId, new Set());
    state.answered.set(sessionId, performance.now());
    let next = 0;
    const beat = beatOf(1000);
    works.push(async () => {
      while (state.going) {
        await beat();
        const [kitId, component] = ticks[next % ticks.length];
        const id = randomUUID();
        const action = Math.floor(next / ticks.length) % 2 === 0 ? 'packed' : 'undone';
        next += 1;
        const body = JSON.stringify({ ticks: [{ id, kitId, component, action }] });
        const done = await until(state, () =>
          timed('ticks', () =>
            ask('POST', `/api/bench/${sessionId}/ticks`, { headers: json(token), body, seconds: 5 }),
          ),
        );
        if (done) state.ticks.get(sessionId).add(id);
        state.answered.set(sessionId, performance.now());
      }
    });
  }
  for (let n = 0; n < people; n++) {
    const { cookie } = city[n % city.length];
    const beat = beatOf(5000);
    works.push(async () => {
      while (state.going) {
        await beat();
        const page = PAGES[Math.floor(Math.random() * PAGES.length)];
        const begun = performance.now();
        const answer = await ask('GET', page, { headers: { cookie, accept: 'text/html' } }).catch(() => null);
        if (answer?.status === 200) note('pages', performance.now() - begun);
        else note('pages not answered', answer?.status ?? 0);
      }
    });
  }
  for (const { token, ticks, sessionIds } of benches.slice(0, 10)) {
    const [sessionId] = sessionIds;
    const kits = [...new Set(ticks.map(([kitId]) => kitId))];
    state.handed.set(sessionId, new Set());
    works.push(async () => {
      for (const kitId of kits) {
        if (!state.going) return;
        const id = randomUUID();
        const event = { id, kitId, what: 'handed', who: '', item: '', at: new Date().toISOString() };
        const done = await until(state, () =>
          timed('hand-outs', () =>
            ask('POST', `/api/table/${sessionId}/events`, {
              headers: json(token),
              body: JSON.stringify({ events: [event] }),
            }),
          ),
        );
        if (done) state.handed.get(sessionId).add(id);
        await pause(1500);
      }
    });
  }
  // Others than those whose kits are handed out meanwhile: one family a second, in all.
  for (const { family } of benches.slice(10, 20)) {
    const where = `/kit/${family}`;
    works.push(async () => {
      await pause(Math.random() * 10_000);
      for (let n = 0; state.going; n++) {
        const note = `at ${n}: ${randomUUID()}`;
        const done = await until(state, () =>
          timed('answers', async () => {
            const page = await ask('GET', where, { headers: { accept: 'text/html' } });
            const form = page.status === 200 ? await formOf(page.text, 'We need it later', { note }) : undefined;
            if (!form) return { ...page, status: page.status === 200 ? 422 : page.status };
            const headers = { 'content-type': form.type, origin: ask.address, accept: 'text/html' };
            const answer = await ask('POST', where, { headers, body: form.body });
            return answer.status === 200 && !answer.text.includes('We will be in touch')
              ? { status: 503, text: '' }
              : answer;
          }),
        );
        if (!done) return;
        state.answers.set(family, note);
        state.thanked += 1;
        await pause(10_000);
      }
    });
  }
  works.push(async () => {
    const rows = Array.from({ length: 100 }, (_, n) => `Newcomer ${n},2,`).join('\n');
    for (let n = 0; state.going; n++) {
      const { token } = city[n % city.length];
      const [key, other] = [randomUUID(), randomUUID()];
      const made = await until(state, () =>
        ask('POST', '/api/v1/courses', {
          headers: json(token, { 'idempotency-key': key }),
          body: JSON.stringify({ title: `Roll ${key}` }),
        }),
      );
      if (!made) return;
      const { id } = JSON.parse(made.text);
      const done = await until(state, () =>
        timed('rolls of 100', () =>
          ask('POST', `/api/v1/courses/${id}/roll`, {
            headers: { authorization: `Bearer ${token}`, 'content-type': 'text/csv', 'idempotency-key': other },
            body: `name,servings,avoids\n${rows}\n`,
          }),
        ),
      );
      if (done) state.rolls.push({ token, id });
      await pause(1000);
    }
  });
  const roster = readFileSync(path.join(ROOT, 'tests/cases/roster-term.json'), 'utf8');
  for (let n = 0; n < solvers; n++) {
    works.push(async () => {
      while (state.going) {
        const { token } = city[n];
        const work = () => ask('POST', '/api/v1/compute/roster', { headers: json(token), body: roster, seconds: 30 });
        const answer = await timed('solver', work).catch(() => null);
        if (!answer || answer.status >= 500) note('solver not answered', answer?.status ?? 0);
        await pause(1000);
      }
    });
  }
  const ended = Promise.all(works.map((work) => work()));
  return {
    state,
    benches: benches.length,
    mark: (name) => {
      state.part = name;
    },
    figuresOf: (kind, part = state.part) => state.figures.get(`${part} ${kind}`) ?? [],
    /** How long until every bench was answered again, in milliseconds from now. */
    async untilAllAnswer(longest = 60_000) {
      const begun = performance.now();
      while (performance.now() - begun < longest) {
        if ([...state.answered.values()].every((at) => at > begun)) return performance.now() - begun;
        await pause(50);
      }
      return Number.POSITIVE_INFINITY;
    },
    async stop() {
      state.going = false;
      await ended;
    },
  };
}

/** Looks for all that was acknowledged. @returns what was lost, doubled, or out of order, by kind */
export async function lookFor(ask, city, state) {
  const found = {
    ticks: 0,
    lostTicks: 0,
    doubledTicks: 0,
    gaps: 0,
    handed: 0,
    lostHanded: 0,
    doubledHanded: 0,
    lostAnswers: 0,
    rolls: 0,
    lostRolls: 0,
  };
  const tokens = new Map(city.flatMap(({ token, sessionIds }) => sessionIds.map((id) => [id, token])));
  const get = async (token, where) => {
    for (let n = 0; n < 20; n++) {
      const answer = await ask('GET', where, { headers: { authorization: `Bearer ${token}` } }).catch(() => null);
      if (answer?.status === 200) return JSON.parse(answer.text);
      await pause(300);
    }
    throw new Error(`${where} is not answered`);
  };
  const count = (ids) => {
    const counts = new Map();
    for (const id of ids) counts.set(id, (counts.get(id) ?? 0) + 1);
    return counts;
  };
  for (const [sessionId, acknowledged] of state.ticks) {
    const { events } = await get(tokens.get(sessionId), `/api/v1/sessions/${sessionId}/ticks`);
    const counts = count(events.map(({ id }) => id));
    found.ticks += acknowledged.size;
    found.lostTicks += [...acknowledged].filter((id) => !counts.has(id)).length;
    found.doubledTicks += [...counts.values()].filter((times) => times > 1).length + (counts.size - acknowledged.size);
    found.gaps += events.filter(({ seq }, at) => seq !== at + 1).length;
  }
  for (const [sessionId, acknowledged] of state.handed) {
    const { events } = await get(tokens.get(sessionId), `/api/table/${sessionId}/events?after=0`);
    const counts = count(events.map(({ id }) => id));
    found.handed += acknowledged.size;
    found.lostHanded += [...acknowledged].filter((id) => !counts.has(id)).length;
    found.doubledHanded += [...counts.values()].filter((times) => times > 1).length;
  }
  for (const [family, note] of state.answers) {
    const page = await ask('GET', `/kit/${family}`, { headers: { accept: 'text/html' } });
    if (!page.text.includes(note)) found.lostAnswers += 1;
  }
  for (const { token, id } of state.rolls) {
    const { items } = await get(token, `/api/v1/courses/${id}/roll?limit=200`);
    found.rolls += 1;
    if (items.length !== 100) found.lostRolls += 1;
  }
  return found;
}
