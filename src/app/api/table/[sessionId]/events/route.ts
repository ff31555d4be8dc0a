import { readJson, route } from '@/app/api/problem';
import { handOutKits, tableSince } from '@/services/handout/table';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ sessionId: string }> };

/** What happened at a hand-out after `?after=`, in order, and which kits are called back. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const after = new URL(request.url).searchParams.get('after') ?? '0';
    return Response.json(await tableSince(contextFor(actor), { sessionId, after }));
  });
}

/** Takes in who was handed what; the same sent again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const body = await readJson(request, 256 * 1024);
    const events = body && typeof body === 'object' && 'events' in body ? body.events : undefined;
    return Response.json(await handOutKits(contextFor(actor), { sessionId, events }));
  });
}
