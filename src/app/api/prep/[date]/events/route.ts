import { readJson, route } from '@/app/api/problem';
import { prepSince, tickPrep } from '@/services/packing/prep';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ date: string }> };

/** What was done of a prep day after `?after=`, in order. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { date } = await params;
    const after = new URL(request.url).searchParams.get('after') ?? '0';
    return Response.json(await prepSince(contextFor(actor), { date, after }));
  });
}

/** Takes in which motions are begun or done; the same sent again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { date: day } = await params;
    const body = await readJson(request, 64 * 1024);
    const events = body && typeof body === 'object' && 'events' in body ? body.events : undefined;
    return Response.json(await tickPrep(contextFor(actor), { day, events }));
  });
}
