import { visit } from '@/app/access';
import { ownAnswer, readJson } from '@/app/api/problem';
import { ownByLink } from '@/services/crew/own-page';
import { sayOnRound, sentRound } from '@/services/handout/driving';

type Params = { params: Promise<{ secret: string }> };

/** Takes in what a driver says from the road, behind their personal link; the same sent again changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return ownAnswer(request, async () => {
    const { context, person } = await ownByLink(await visit(), (await params).secret);
    const body = await readJson(request, 128 * 1024);
    const events = body && typeof body === 'object' && 'events' in body ? body.events : undefined;
    const roundId = new URL(request.url).searchParams.get('round') ?? '';
    const reading = sentRound.safeParse({ roundId, events });
    if (!reading.success) return new Response(null, { status: 422 });
    return Response.json(await sayOnRound(context, person, reading.data));
  });
}
