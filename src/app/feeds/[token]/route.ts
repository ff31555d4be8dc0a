import { readFeed } from '@/services/plan/feeds';
import { surroundings } from '@/services/runtime';

export const dynamic = 'force-dynamic';

/**
 * The calendar behind an unguessable address: when and where sessions are, nothing of the people. Calendar programs ask
 * without signing in; whoever has the address may read it until it is ended.
 */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const token = (await params).token.replace(/\.ics$/, '');
  const text = /^[\w-]{20,60}$/.test(token) ? await readFeed(surroundings(), token) : undefined;
  if (text === undefined)
    return new Response('There is no calendar at this address, or it was ended. Ask the programme for a new one.', {
      status: 404,
      headers: { 'content-type': 'text/plain; charset=utf-8' },
    });
  return new Response(text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'cache-control': 'private, max-age=300',
      'content-disposition': 'inline; filename="logistra.ics"',
    },
  });
}
