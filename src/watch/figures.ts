// What a process has counted, in the few figures that somebody looks at.
import type { Registry } from 'prom-client';

/** Requests of one route since the process began. */
export interface RouteFigures {
  readonly route: string;
  readonly count: number;
  /** Of a hundred, those that failed on our side. */
  readonly failed: number;
  /** Seconds in which so many per cent were answered; no closer than the steps that are counted by. */
  readonly p50: number;
  readonly p95: number;
}

interface Bucket {
  readonly labels: Readonly<Record<string, string | number | undefined>>;
  readonly metricName?: string;
  readonly value: number;
}

/** Counts of a histogram, by a label: how many stay under each step. */
function stepsBy(values: readonly Bucket[], name: string, label: string) {
  const by = new Map<string, Map<number, number>>();
  for (const { labels, metricName, value } of values) {
    if (metricName !== `${name}_bucket`) continue;
    const key = String(labels[label] ?? '');
    const own = by.get(key) ?? new Map<number, number>();
    const step = labels.le === '+Inf' ? Number.POSITIVE_INFINITY : Number(labels.le);
    own.set(step, (own.get(step) ?? 0) + value);
    by.set(key, own);
  }
  return by;
}

/**
 * The step under which a part of all stays.
 *
 * @param steps how many stay under each, cumulative
 * @example
 * stepOf(new Map([[0.1, 90], [0.4, 99], [Infinity, 100]]), 0.95) //=> 0.4
 */
export function stepOf(steps: ReadonlyMap<number, number>, part: number): number {
  const sorted = [...steps].sort(([a], [b]) => a - b);
  const all = sorted.at(-1)?.[1] ?? 0;
  return sorted.find(([, count]) => count >= part * all)?.[0] ?? 0;
}

/** What this process has answered, by route, the busiest first; and its streams, memory and share of a processor since it began. */
export async function figuresOf(registry: Registry) {
  const metrics = await registry.getMetricsAsJSON();
  const valuesOf = (name: string) => (metrics.find((metric) => metric.name === name)?.values ?? []) as Bucket[];
  const requests = valuesOf('logistra_request_seconds');
  const failed = new Map<string, number>();
  for (const { labels, metricName, value } of requests)
    if (metricName === 'logistra_request_seconds_count' && labels.status === '5xx')
      failed.set(String(labels.route), (failed.get(String(labels.route)) ?? 0) + value);
  const routes = [...stepsBy(requests, 'logistra_request_seconds', 'route')].map(([route, steps]): RouteFigures => {
    const count = steps.get(Number.POSITIVE_INFINITY) ?? 0;
    const part = (100 * (failed.get(route) ?? 0)) / count;
    return { route, count, failed: Math.round(part * 10) / 10, p50: stepOf(steps, 0.5), p95: stepOf(steps, 0.95) };
  });
  const statements = stepsBy(valuesOf('logistra_query_seconds'), 'logistra_query_seconds', 'none').get('') ?? new Map();
  const one = (name: string) => valuesOf(name)[0]?.value ?? 0;
  return {
    routes: routes.sort((a, b) => b.count - a.count || a.route.localeCompare(b.route)),
    statements: { count: statements.get(Number.POSITIVE_INFINITY) ?? 0, p95: stepOf(statements, 0.95) },
    streams: one('logistra_streams'),
    megabytes: Math.round(one('process_resident_memory_bytes') / 1_048_576),
    processorSeconds: Math.round(one('process_cpu_seconds_total')),
    began: one('process_start_time_seconds'),
  };
}
