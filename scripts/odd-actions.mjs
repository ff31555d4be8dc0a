// Every server action with arguments that no page of ours sends, as nobody, as crew and as a coordinator.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { sealData } from 'iron-session';
import mysql from 'mysql2/promise';
import { ROOT } from './system.mjs';

/** Arguments as the framework carries them. What is none at all it answers itself, before anything of ours. */
const ODD = [
  '[]',
  '[null]',
  '[null,null,null,null]',
  '["x",{},[],-1]',
  '[{"toString":"x"},{"get":1},{"entries":null}]',
  '["$undefined","$undefined","$undefined","$undefined"]',
  '[[[[]]],[1],["__proto__"]]',
  '["01936f00-0000-7000-8000-000000000000",1e308,null,"x"]',
  '{"__proto__":{"roles":["crew"]}}',
  '["$K1"]',
];

/** Cookies of a sign-in that is open, for each role of the demo. */
export async function cookiesOf({ url, secret }) {
  const connection = await mysql.createConnection(url);
  const made = {};
  for (const role of ['crew', 'coordinator']) {
    const [[member]] = await connection.query("SELECT id FROM member WHERE role = ? AND status = 'active' LIMIT 1", [
      role,
    ]);
    const signInId = crypto.randomUUID();
    await connection.query(
      `INSERT INTO sign_in (id, member_id, device, created_at, expires_at, seen_at, proven_at)
       VALUES (?, ?, 'odd', NOW(3), NOW(3) + INTERVAL 1 HOUR, NOW(3), NOW(3) - INTERVAL 1 HOUR)`,
      [signInId, member.id],
    );
    made[role] = `logistra=${await sealData({ signInId }, { password: secret, ttl: 3600 })}`;
  }
  await connection.end();
  return { nobody: '', ...made };
}

/** Sends them all, and looks at what came. @param running address, database address and secret of a running Logistra */
export async function tryOddActions({ address, url, secret }, check) {
  const manifest = JSON.parse(readFileSync(path.join(ROOT, '.next/server/server-reference-manifest.json'), 'utf8'));
  const actions = Object.keys(manifest.node);
  console.log(`\n${actions.length} server actions with odd arguments`);
  const failed = new Map();
  const statuses = {};
  let sent = 0;
  for (const [who, cookie] of Object.entries(await cookiesOf({ url, secret }))) {
    for (const [at, action] of actions.entries()) {
      // Each action gets a share of the odd arguments; together every kind meets many.
      for (const body of ODD.filter((_, kind) => (kind + at) % 3 === 0)) {
        const response = await fetch(`${address}/sign-in`, {
          method: 'POST',
          headers: { cookie, origin: address, 'next-action': action, 'content-type': 'text/plain;charset=UTF-8' },
          body,
          redirect: 'manual',
        });
        const text = await response.text();
        sent++;
        statuses[response.status] = (statuses[response.status] ?? 0) + 1;
        if (response.status >= 500)
          failed.set(action, `${who} ${body.slice(0, 40)}: ${response.status} ${text.slice(0, 80)}`);
      }
    }
  }
  const answers = Object.entries(statuses).map(([status, count]) => `${count} × ${status}`);
  console.log(`  ${sent} sent; answers: ${answers.join(', ')}`);
  check(
    'no action fails',
    failed.size === 0,
    [...failed]
      .slice(0, 5)
      .map(([id, why]) => `${id.slice(0, 8)} ${why}`)
      .join(' | '),
  );
}
