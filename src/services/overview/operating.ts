import { z } from 'zod';
import { addDays } from '@/core/plan/civil';
import { backgroundSince } from '@/store/background';
import { failedJobs, programmesStanding, tableSizes } from '@/store/overview';
import { figuresOf } from '@/watch/figures';
import { meter } from '@/watch/meter';
import { overseeing } from '../gate/overseeing';
import { readiness, workStanding } from '../work/readiness';

/** Whoever works in the background and was silent for an hour is forgotten. */
const HOUR = 3_600_000;
/** Busiest routes that are shown. */
const ROUTES = 12;

/** When somebody ought to look: each with what it means and what helps (docs/operating.md, "What to watch"). */
const LIMITS = { jobWaits: 600, paused: 0.1, pages: 1 } as const;

export const viewInstallation = overseeing({
  title: 'See how the installation stands: its database, its work, its programmes, in counts',
  of: 'operator',
  input: z.object({ find: z.string().trim().max(120).default('') }),
  run: async ({ clock, store }, { find }) => {
    const now = new Date(clock().epochMilliseconds);
    const today = now.toISOString().slice(0, 10);
    const [ready, work, background, programmes, of, sizes, failed, figures] = await Promise.all([
      readiness(store, now),
      workStanding(store, now),
      backgroundSince(store.db, { since: new Date(now.getTime() - HOUR) }),
      programmesStanding(store.db, { from: today, to: addDays(today, 6), find: find.replace(/[\\%_]/g, '\\$&') }),
      store.db.models.programme.count(),
      tableSizes(store.db),
      failedJobs(store.db),
      figuresOf(meter().registry),
    ]);
    const { cluster, oldestWaits } = work;
    const routes = figures.routes.filter(({ route }) => route !== '/_next');
    const slow = routes.filter(({ p95, count }) => p95 > LIMITS.pages && count >= 20);
    const wrong = [
      !ready.migrations && 'The tables are of another version than this server: run the migrations of this version.',
      !ready.background && 'Nobody works in the background: messages and printing wait. Start a background process.',
      oldestWaits > LIMITS.jobWaits &&
        `A job has waited ${Math.round(oldestWaits / 60)} minutes: is a background process stuck?`,
      cluster &&
        cluster.nodes < 3 &&
        `Only ${cluster.nodes} of 3 nodes see one another: one more that falls, and nothing can be saved.`,
      cluster && !cluster.isLevel && 'The node that is written to is not level with the others.',
      cluster && cluster.paused > LIMITS.paused && 'Writes wait for a slower node: look at its disk and its network.',
      slow.length > 0 && `Slow on this server: ${slow.map(({ route }) => route).join(', ')}.`,
    ].filter((said): said is string => typeof said === 'string');
    return {
      server: process.env.SERVER_NAME ?? '',
      ready,
      wrong,
      work,
      background: background.map(({ owner, beganAt, seenAt, done }) => ({
        // The machine and the process; what makes it unmistakable after that is for programs.
        owner: owner.replace(/-[\da-f]{8}-[\da-f-]{27}$/, ''),
        began: beganAt.toISOString(),
        silent: Math.max(0, Math.round((now.getTime() - seenAt.getTime()) / 1000)),
        done,
      })),
      programmes: programmes.map(({ seenAt, ...counts }) => ({ ...counts, seen: seenAt?.toISOString() ?? null })),
      /** How many there are in all. */
      of,
      sizes: sizes.map(({ name, bytes }) => ({ name, megabytes: Math.round(Number(bytes) / 104_857.6) / 10 })),
      failed: failed.map(({ at, ...job }) => ({ ...job, at: at.toISOString() })),
      figures: { ...figures, routes: routes.slice(0, ROUTES) },
    };
  },
});
