import { readJson, route } from '@/app/api/problem';
import { driveRound } from '@/services/handout/driving';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ roundId: string }> };

/** Takes in what a driver says from the road; the same sent again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { roundId } = await params;
    const body = await readJson(request, 128 * 1024);
    const events = body && typeof body === 'object' && 'events' in body ? body.events : undefined;
    return Response.json(await driveRound(contextFor(actor), { roundId, events }));
  });
}
