import { runningStore } from '@/services/runtime';
import { readiness, takingVisitors } from '@/services/work/readiness';

export const dynamic = 'force-dynamic';

/** Known in this process alone: each server is looked at by itself. */
const mayTake = takingVisitors();

/**
 * Whether all that is needed is there: 200, else 503, with which of them is not. A load balancer asks with `?for=traffic`: pages
 * are served although nobody works in the background, and while the database goes over to another node.
 */
export async function GET(request: Request): Promise<Response> {
  const standing = await readiness(runningStore(), new Date());
  const isForTraffic = new URL(request.url).searchParams.get('for') === 'traffic';
  const takes = mayTake(standing, new Date());
  const isReady = isForTraffic ? takes : standing.database && standing.migrations && standing.background;
  return Response.json(
    { ready: isReady, ...standing },
    { status: isReady ? 200 : 503, headers: { 'cache-control': 'no-store' } },
  );
}
