import { screensOf } from '@/app/(desk)/screens';
import { route } from '@/app/api/problem';
import { listFindable } from '@/services/find/find';
import { contextFor } from '@/services/runtime';

/** Everything that whoever asks may go to by its name. */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const all = [...screensOf(actor.role), ...(await listFindable(contextFor(actor), {}))];
    return Response.json(all, { headers: { 'cache-control': 'no-store' } });
  });
}
