// Figures of the crew: somebody's own page on a phone, in a programme with a full roster.
import { createHmac, hkdfSync } from 'node:crypto';
import mysql from 'mysql2/promise';

/** The secret of a link, as the program makes it from the link's id. */
const linkSecret = (secret, id) =>
  createHmac('sha256', Buffer.from(hkdfSync('sha256', secret, '', 'logistra links', 32)))
    .update(id)
    .digest('base64url');

/** The page of somebody of the crew behind their link: nobody signs in. */
export async function ownPage(running, { say, timed }) {
  const db = await mysql.createConnection(running.url);
  const [[link]] = await db.query(
    "SELECT l.id, COUNT(*) AS duties FROM access_link l JOIN promise p ON p.crew_id = l.crew_id AND p.state IN ('asked', 'accepted') WHERE l.purpose = 'crew' GROUP BY l.id ORDER BY duties DESC LIMIT 1",
  );
  await db.end();
  const address = `${running.address}/my/${linkSecret(running.secret, link.id)}`;
  const read = async () => {
    const answer = await fetch(address);
    const text = await answer.text();
    if (!answer.ok || !text.includes('Hello')) throw new Error(`The page of somebody of the crew: ${answer.status}`);
  };
  for (let n = 0; n < 15; n++) await read();
  const spent = [];
  for (let n = 0; n < 200; n++) spent.push(await timed(read));
  say(`A page of one’s own with ${link.duties} duties`, spent, 'goal: p95 at most 60 ms over 200 requests');
}
