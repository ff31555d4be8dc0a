// Twenty screens show one class: how long until all have seen what one of them tapped.
import { randomUUID } from 'node:crypto';
import { lockedSession } from './running.mjs';

const SCREENS = 20;
const TAPS = 30;
/** As the screens ask, in milliseconds: see src/ui/classday/live/use-class.ts. */
const EVERY = 600;
const PAUSE = 400;

export async function classOf20Screens(running) {
  const { sessionId } = await lockedSession(running, SCREENS, 'Live');
  const address = `${running.address}/api/class/${sessionId}/first/events`;
  const headers = { ...running.headers, 'content-type': 'application/json' };
  const seen = new Map();
  let isOver = false;
  const screen = async () => {
    let after = 0;
    await new Promise((resolve) => setTimeout(resolve, Math.random() * EVERY));
    while (!isOver) {
      const begun = performance.now();
      const response = await fetch(`${address}?after=${after}`, { headers });
      if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
      for (const { id, seq } of (await response.json()).events) {
        after = seq;
        seen.set(id, [...(seen.get(id) ?? []), performance.now()]);
      }
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, EVERY - (performance.now() - begun))));
    }
  };
  const screens = Array.from({ length: SCREENS }, screen);
  const tapped = [];
  for (let tap = 0; tap < TAPS; tap++) {
    const id = randomUUID();
    const at = new Date().toISOString();
    tapped.push([id, performance.now()]);
    const body = JSON.stringify({ now: at, events: [{ id, what: 'done', item: `task ${tap}`, at }] });
    const response = await fetch(address, { method: 'POST', headers, body });
    if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
    await new Promise((resolve) => setTimeout(resolve, PAUSE));
  }
  await new Promise((resolve) => setTimeout(resolve, 2 * EVERY));
  isOver = true;
  await Promise.all(screens);
  const lost = tapped.filter(([id]) => (seen.get(id) ?? []).length < SCREENS).length;
  const last = tapped.map(([id, at]) => Math.max(...(seen.get(id) ?? [at])) - at).sort((a, b) => a - b);
  const part = (share) => last[Math.min(TAPS - 1, Math.floor(TAPS * share))]?.toFixed(0);
  console.log(
    `A class on ${SCREENS} screens, ${TAPS} taps\n  the last screen has seen a tap after ${part(0.5)} ms (median), ${part(0.95)} ms (p95); not seen by all: ${lost}\n  goal: within 1 s\n`,
  );
}
