// Who works in the background, and how much waits for them.
import { change, select } from './sql';
import type { Db } from './store';

/** Says that somebody who works in the background is there; whoever has been silent for an hour is forgotten. */
export async function sayBackground(db: Db, values: { owner: string; now: Date; done: number }): Promise<void> {
  await change(
    db,
    `INSERT INTO background (owner, began_at, seen_at, done) VALUES (:owner, :now, :now, :done)
       ON DUPLICATE KEY UPDATE seen_at = :now, done = :done`,
    values,
  );
  await change(db, 'DELETE FROM background WHERE seen_at < :before', {
    before: new Date(values.now.getTime() - 3_600_000),
  });
}

/** Whoever ends in order is not missed. */
export const leaveBackground = (db: Db, values: { owner: string }) =>
  change(db, 'DELETE FROM background WHERE owner = :owner', values);

/** Those who have been seen since a moment. */
export const backgroundSince = (db: Db, values: { since: Date }) =>
  select<{ owner: string; beganAt: Date; seenAt: Date; done: number }>(
    db,
    `SELECT owner, began_at AS beganAt, seen_at AS seenAt, done FROM background WHERE seen_at >= :since ORDER BY owner`,
    values,
  );

/** How many jobs stand in each state, and since when the oldest of them waits. */
export const jobsStanding = (db: Db) =>
  select<{ state: string; n: number; oldest: Date }>(
    db,
    `SELECT state, COUNT(*) AS n, MIN(created_at) AS oldest FROM job
      WHERE state IN ('waiting', 'running', 'failed') GROUP BY state`,
    {},
  );

/** Kits called back since a moment, everywhere. */
export async function callBacksSince(db: Db, values: { since: Date }): Promise<number> {
  const [row] = await select<{ n: number }>(
    db,
    "SELECT COUNT(*) AS n FROM pack_event WHERE action = 'called back' AND at >= :since",
    values,
  );
  return row?.n ?? 0;
}

/** Whether a migration has been run. */
export async function isMigrated(db: Db, name: string): Promise<boolean> {
  const found = await select<{ name: string }>(db, 'SELECT name FROM migration WHERE name = :name', { name });
  return found.length === 1;
}

/** What a node of a cluster says of itself; [] where there is no cluster. */
export const nodeSays = (db: Db) =>
  select<{ name: string; value: string }>(
    db,
    `SELECT variable_name AS name, variable_value AS value FROM information_schema.global_status
      WHERE variable_name IN ('wsrep_cluster_size', 'wsrep_local_state_comment', 'wsrep_flow_control_paused', 'wsrep_local_cert_failures')`,
    {},
  );
