import { readJson, route } from '@/app/api/problem';
import { answerTrip, tripSince } from '@/services/buying/trips';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ tripId: string }> };

/** What was said on a trip after `?after=`, in order. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { tripId } = await params;
    const after = new URL(request.url).searchParams.get('after') ?? '0';
    return Response.json(await tripSince(contextFor(actor), { tripId, after }));
  });
}

/** Takes in what was said at the shelf; the same sent again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { tripId } = await params;
    const body = await readJson(request, 256 * 1024);
    const answers = body && typeof body === 'object' && 'answers' in body ? body.answers : undefined;
    return Response.json(await answerTrip(contextFor(actor), { tripId, answers }));
  });
}
