import { readJson, route } from '@/app/api/problem';
import { planClassAgain } from '@/services/classday/live';
import { contextFor } from '@/services/runtime';
import { type ClassParams, objectOf, whichClass } from '../../../which';

/** Plans the rest of a class again, from where it stands. */
export async function POST(request: Request, { params }: ClassParams): Promise<Response> {
  return route(request, async (actor) => {
    const sent = objectOf(await readJson(request, 16 * 1024));
    return Response.json(await planClassAgain(contextFor(actor), { ...sent, ...(await whichClass(params)) }));
  });
}
