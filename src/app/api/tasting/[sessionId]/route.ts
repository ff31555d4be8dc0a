import { objectOf } from '@/app/api/class/which';
import { readJson, route } from '@/app/api/problem';
import { taste } from '@/services/classday/tasting';
import { contextFor } from '@/services/runtime';

/** Takes in what children think of the dishes of a class; the same sent again counts once. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ sessionId: string }> },
): Promise<Response> {
  return route(request, async (actor) => {
    const sent = objectOf(await readJson(request, 64 * 1024));
    return Response.json(await taste(contextFor(actor), { ...sent, sessionId: (await params).sessionId }));
  });
}
