import { readJson, route } from '@/app/api/problem';
import { recordTicks, viewEvents } from '@/services/packing/bench';
import { contextFor } from '@/services/runtime';

/** Compressing so little takes longer than sending it. */
const PLAIN = { 'cache-control': 'no-store, no-transform' };

type Params = { params: Promise<{ sessionId: string }> };

/** Events after `?since=`, in order, and the revision being packed. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const since = new URL(request.url).searchParams.get('since') ?? '0';
    return Response.json(await viewEvents(contextFor(actor), { sessionId, since }));
  });
}

/** Takes in ticks; sending the same ones again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const body = await readJson(request, 512 * 1024);
    const ticks = body && typeof body === 'object' && 'ticks' in body ? body.ticks : undefined;
    return Response.json(await recordTicks(contextFor(actor), { sessionId, ticks }), { headers: PLAIN });
  });
}
