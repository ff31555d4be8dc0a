import { createHash, timingSafeEqual } from 'node:crypto';
import { Gauge } from 'prom-client';
import { runningStore } from '@/services/runtime';
import { workStanding } from '@/services/work/readiness';
import { meter } from '@/watch/meter';

export const dynamic = 'force-dynamic';

const hash = (text: string) => createHash('sha256').update(text).digest();

/** Whether a request carries the token that is made for whoever watches; without one set, nobody may. */
function mayWatch(request: Request): boolean {
  const token = process.env.METRICS_TOKEN ?? '';
  const [, sent = ''] = /^Bearer (\S+)$/.exec(request.headers.get('authorization') ?? '') ?? [];
  return token !== '' && timingSafeEqual(hash(sent), hash(token));
}

/** What this server counts, and what the database knows of the work, in the Prometheus text format. */
export async function GET(request: Request): Promise<Response> {
  if (!mayWatch(request)) return new Response('The token for figures is missing or wrong.\n', { status: 401 });
  const { registry } = meter();
  const gauge = (name: string, help: string, labelNames: string[] = []) =>
    (registry.getSingleMetric(name) as Gauge | undefined) ??
    new Gauge({ name, help, labelNames, registers: [registry] });
  const up = gauge('logistra_database_up', 'The database answers');
  try {
    const { jobs, oldestWaits, callBacks, cluster } = await workStanding(runningStore(), new Date());
    const states = gauge('logistra_jobs', 'Jobs by state', ['state']);
    for (const state of ['waiting', 'running', 'failed'])
      states.set({ state }, jobs.find((each) => each.state === state)?.n ?? 0);
    gauge('logistra_job_oldest_seconds', 'How long the oldest job has waited').set(oldestWaits);
    gauge('logistra_call_backs', 'Kits called back in the last 24 hours').set(callBacks);
    if (cluster) {
      gauge('logistra_cluster_nodes', 'Nodes of the database that see one another').set(cluster.nodes);
      gauge('logistra_cluster_level', 'The node that is written to is level with the others').set(
        Number(cluster.isLevel),
      );
      gauge('logistra_cluster_conflicts', 'Writes that met another node’s, since it started').set(cluster.conflicts);
      gauge('logistra_cluster_paused', 'Part of the time in which it waited for slower nodes').set(cluster.paused);
    }
    up.set(1);
  } catch {
    up.set(0);
  }
  return new Response(await registry.metrics(), {
    headers: { 'content-type': registry.contentType, 'cache-control': 'no-store' },
  });
}
