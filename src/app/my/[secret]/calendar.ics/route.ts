import { visit } from '@/app/access';
import { OWN_PAGE, ownByLink } from '@/services/crew/own-page';
import { ServiceError } from '@/services/errors';

export const dynamic = 'force-dynamic';

/** Somebody's own duties as a calendar, for the program they keep theirs in. */
export async function GET(_request: Request, { params }: { params: Promise<{ secret: string }> }): Promise<Response> {
  try {
    const text = await OWN_PAGE.calendar(await ownByLink(await visit(), (await params).secret));
    return new Response(text, {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'cache-control': 'private, max-age=300',
        'content-disposition': 'inline; filename="duties.ics"',
      },
    });
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    return new Response(error.message, {
      status: error.kind === 'limited' ? 429 : 404,
      headers: { 'content-type': 'text/plain; charset=utf-8' },
    });
  }
}
