import { readJson, route } from '@/app/api/problem';
import { weighIn } from '@/services/packing/line';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ sessionId: string }> };

/** Notes what the scale says of a component of a kit, or of a bowl. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const body = await readJson(request, 4096);
    const sent = body && typeof body === 'object' ? body : {};
    return Response.json((await weighIn(contextFor(actor), { ...sent, sessionId })) ?? null);
  });
}
