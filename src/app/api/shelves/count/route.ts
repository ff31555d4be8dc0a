import { readJson, route } from '@/app/api/problem';
import { countShelf } from '@/services/buying/stock';
import { contextFor } from '@/services/runtime';

/** Takes in what was counted on shelves; the same sent again changes nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const body = await readJson(request, 256 * 1024);
    const moves = body && typeof body === 'object' && 'moves' in body ? body.moves : undefined;
    await countShelf(contextFor(actor), { moves });
    return Response.json({ saved: true });
  });
}
