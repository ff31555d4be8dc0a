import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { routeOf } from './routes';

/** What is counted in this process. */
export interface Meter {
  readonly registry: Registry;
  request(one: { method: string; address: string; status: number; seconds: number }): void;
  query(seconds: number): void;
  /** Something worked out or read in a process of the pool: the solvers, files, printed pages. */
  task(name: string, outcome: 'done' | 'refused' | 'failed', seconds: number): void;
  job(kind: string, outcome: 'done' | 'again' | 'failed', seconds: number): void;
  /** An event stream that was opened (1) or ended (-1). */
  stream(change: 1 | -1): void;
}

const shared = globalThis as typeof globalThis & { logistraMeter?: Meter };

const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.2, 0.4, 1, 2.5, 5, 15];

/** The meter of this process, in the Prometheus text format. */
export function meter(): Meter {
  shared.logistraMeter ??= newMeter();
  return shared.logistraMeter;
}

function newMeter(): Meter {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const registers = [registry];
  const took = (name: string, help: string, labelNames: string[] = []) =>
    new Histogram({ name: `logistra_${name}_seconds`, help, labelNames, buckets: SECONDS, registers });
  const requests = took('request', 'Requests answered, by route', ['method', 'route', 'status']);
  const queries = took('query', 'Statements sent to the database');
  const tasks = took('task', 'Work of the solvers and readers', ['task', 'outcome']);
  const jobs = took('job', 'Jobs of the background process', ['kind', 'outcome']);
  const streams = new Gauge({ name: 'logistra_streams', help: 'Event streams that are open', registers });
  const faults = new Counter({ name: 'logistra_faults_total', help: 'Requests that failed on our side', registers });
  return {
    registry,
    request({ method, address, status, seconds }) {
      if (status >= 500) faults.inc();
      // Whoever looks for pages that are not there makes no new routes.
      const route = status === 404 ? 'none' : routeOf(address);
      requests.observe({ method, route, status: `${Math.floor(status / 100)}xx` }, seconds);
    },
    query: (seconds) => queries.observe(seconds),
    task: (task, outcome, seconds) => tasks.observe({ task, outcome }, seconds),
    job: (kind, outcome, seconds) => jobs.observe({ kind, outcome }, seconds),
    stream: (change) => streams.inc(change),
  };
}
