// Ten phones hand out 500 kits at one table, two of them without a network for a while: none lost, doubled or given to another.
import { randomUUID } from 'node:crypto';
import mysql from 'mysql2/promise';
import { lockedSession } from './running.mjs';

const PHONES = 10;
const KITS = 500;
/** Milliseconds between two words of a phone: about twenty minutes’ work in six seconds. */
const PAUSE = 120;
const OFFLINE = 2;

export async function handOutOf500(running, { say, timed }) {
  const { sessionId, sheet } = await lockedSession(running, KITS, 'Handed out');
  const started = performance.now();
  const spent = [];
  const sent = [];
  const send = async (events) => {
    const response = await fetch(`${running.address}/api/table/${sessionId}/events`, {
      method: 'POST',
      headers: { ...running.headers, 'content-type': 'application/json' },
      body: JSON.stringify({ events }),
    });
    if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  };
  const phone = async (number) => {
    const own = sheet.kits.filter((_, at) => at % PHONES === number);
    const isOffline = number < OFFLINE;
    let kept = [];
    for (const [at, kit] of own.entries()) {
      const event = {
        id: randomUUID(),
        kitId: kit.id,
        what: 'handed',
        who: `phone ${number}`,
        at: new Date().toISOString(),
        wasAway: isOffline,
      };
      sent.push(event);
      kept.push(event);
      // Without a network a phone keeps its words, and sends them together, the last of them twice.
      if (isOffline && at < own.length - 1) {
        await new Promise((resolve) => setTimeout(resolve, PAUSE));
        continue;
      }
      const batch = kept;
      spent.push(await timed(() => send(batch)));
      if (isOffline) await send([event]);
      kept = [];
      await new Promise((resolve) => setTimeout(resolve, PAUSE));
    }
  };
  await Promise.all(Array.from({ length: PHONES }, (_, number) => phone(number)));
  const seconds = ((performance.now() - started) / 1000).toFixed(0);
  const db = await mysql.createConnection(running.url);
  const [rows] = await db.query('SELECT id, kit_id AS kitId, who, seq FROM hand_out WHERE session_id = ?', [sessionId]);
  await db.end();
  const saved = new Map(rows.map((row) => [row.id, row]));
  const lost = sent.filter(({ id }) => !saved.has(id)).length;
  const wrong = sent.filter(
    ({ id, kitId, who }) => saved.get(id)?.kitId !== kitId || saved.get(id)?.who !== who,
  ).length;
  const gaps = rows
    .map(({ seq }) => seq)
    .sort((a, b) => a - b)
    .filter((seq, at) => seq !== at + 1).length;
  say(
    `${PHONES} phones hand out ${KITS} kits in ${seconds} s, ${OFFLINE} of them without a network until the end`,
    spent,
    `goal (in 20 minutes): none lost, doubled or given to another; lost ${lost}, doubled ${rows.length - sent.length + lost}, to another ${wrong}, gaps in the order ${gaps}`,
  );
}
