import { readJson, route } from '@/app/api/problem';
import { swapInClass } from '@/services/classday/substitute';
import { contextFor } from '@/services/runtime';
import { type ClassParams, objectOf, whichClass } from '../../../which';

/** Cooks with something else today, where it is safe for everybody who eats of it. */
export async function POST(request: Request, { params }: ClassParams): Promise<Response> {
  return route(request, async (actor) => {
    const sent = objectOf(await readJson(request, 4096));
    return Response.json(await swapInClass(contextFor(actor), { ...sent, ...(await whichClass(params)) }));
  });
}
