import { readJson, route } from '@/app/api/problem';
import { setPackers, viewLine } from '@/services/packing/line';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ sessionId: string }> };

/** The bench as a line: who stands where, how quickly it goes, what runs out. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    return Response.json(await viewLine(contextFor(actor), { sessionId }));
  });
}

/** Sets how many pack side by side, and answers with the line. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const body = await readJson(request, 1024);
    const packers = body && typeof body === 'object' && 'packers' in body ? body.packers : undefined;
    await setPackers(contextFor(actor), { sessionId, packers });
    return Response.json(await viewLine(contextFor(actor), { sessionId }));
  });
}
