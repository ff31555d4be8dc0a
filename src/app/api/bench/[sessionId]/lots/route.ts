import { readJson, route } from '@/app/api/problem';
import { packFromLot } from '@/services/packing/line';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ sessionId: string }> };

/** Notes from which lot a food goes into the kits from now on. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const body = await readJson(request, 4096);
    const sent = body && typeof body === 'object' ? body : {};
    return Response.json(await packFromLot(contextFor(actor), { ...sent, sessionId }));
  });
}
