import { readJson, route } from '@/app/api/problem';
import { computeKits } from '@/services/compute/kits';
import { contextFor } from '@/services/runtime';

const LARGEST_CASE = 1024 * 1024;

/** Calculates the kits of one case; nothing is saved. `?working=1` adds the working of each number. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const body = await readJson(request, LARGEST_CASE);
    const working = new URL(request.url).searchParams.get('working') === '1';
    const input = working && body && typeof body === 'object' ? { ...body, working: true } : body;
    return Response.json(await computeKits(contextFor(actor), input));
  });
}
