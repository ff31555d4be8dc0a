import { readJson, route } from '@/app/api/problem';
import { classSince, sayInClass } from '@/services/classday/live';
import { contextFor } from '@/services/runtime';
import { type ClassParams, objectOf, whichClass } from '../../../which';

/** What was said in a class after `?after=`, in order, and what the clock says here. */
export async function GET(request: Request, { params }: ClassParams): Promise<Response> {
  return route(request, async (actor) => {
    const after = new URL(request.url).searchParams.get('after') ?? '0';
    return Response.json(await classSince(contextFor(actor), { ...(await whichClass(params)), after }));
  });
}

/** Takes in what a screen says of a class; the same sent again changes nothing. */
export async function POST(request: Request, { params }: ClassParams): Promise<Response> {
  return route(request, async (actor) => {
    const sent = objectOf(await readJson(request, 512 * 1024));
    return Response.json(await sayInClass(contextFor(actor), { ...sent, ...(await whichClass(params)) }));
  });
}
