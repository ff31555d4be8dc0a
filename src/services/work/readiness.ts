import { backgroundSince, callBacksSince, isMigrated, jobsStanding, nodeSays } from '@/store/background';
import { NEWEST } from '@/store/migrations/newest';
import type { Store } from '@/store/store';

/** Whoever works in the background says so every five seconds. */
const SILENT_SECONDS = 20;
/** A balancer waits no longer to hear whether all is well, in milliseconds. */
const SOON = 1500;

export interface Readiness {
  readonly database: boolean;
  readonly migrations: boolean;
  readonly background: boolean;
}

/**
 * Whether a server can do its work: its database answers, has the tables that this version needs, and somebody works in the
 * background. Says nothing of anybody.
 */
export async function readiness(store: Store, now: Date): Promise<Readiness> {
  const late = new Promise<never>((_, reject) => setTimeout(() => reject(new Error('late')), SOON).unref());
  try {
    return await Promise.race([late, standingOf(store, now)]);
  } catch {
    return { database: false, migrations: false, background: false };
  }
}

/**
 * Whether a server is to be sent visitors. A database that goes over to another node is silent for all servers at once: none of them
 * is taken from the balancer for that, since what is asked meanwhile waits, and is asked again. One that stays cut off is.
 *
 * @returns to be told each time how it stands, and when
 */
export function takingVisitors(): (standing: Readiness, now: Date) => boolean {
  let wellAt = Number.NEGATIVE_INFINITY;
  return ({ database, migrations }, now) => {
    if (database && migrations) wellAt = now.getTime();
    return database ? migrations : now.getTime() - wellAt < GOING_OVER;
  };
}

/** A database has gone over to another node within this, in milliseconds (docs/figures.md). */
const GOING_OVER = 15_000;

async function standingOf(store: Store, now: Date): Promise<Readiness> {
  const since = new Date(now.getTime() - SILENT_SECONDS * 1000);
  const migrations = await isMigrated(store.db, NEWEST);
  return {
    database: true,
    migrations,
    background: migrations && (await backgroundSince(store.db, { since })).length > 0,
  };
}

/** What the database knows of the work, for whoever watches: jobs by state, seconds that the oldest waits, kits called back today. */
export async function workStanding(store: Store, now: Date) {
  const jobs = await jobsStanding(store.db);
  const oldest = jobs.find(({ state }) => state === 'waiting')?.oldest;
  const since = new Date(now.getTime() - 86_400_000);
  const node = new Map((await nodeSays(store.db)).map(({ name, value }) => [name.toLowerCase(), value]));
  const size = Number(node.get('wsrep_cluster_size') ?? 0);
  return {
    /** Of a cluster, what the node says that is written to; undefined where the database stands alone. */
    cluster:
      size > 0
        ? {
            nodes: size,
            isLevel: node.get('wsrep_local_state_comment') === 'Synced',
            conflicts: Number(node.get('wsrep_local_cert_failures') ?? 0),
            paused: Number(node.get('wsrep_flow_control_paused') ?? 0),
          }
        : undefined,
    jobs: jobs.map(({ state, n }) => ({ state, n: Number(n) })),
    oldestWaits: oldest ? Math.max(0, (now.getTime() - oldest.getTime()) / 1000) : 0,
    callBacks: Number(await callBacksSince(store.db, { since })),
  };
}
