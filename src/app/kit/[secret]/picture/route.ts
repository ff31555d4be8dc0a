import { visit } from '@/app/access';
import { ANY_FILE, ownAnswer, readBounded } from '@/app/api/problem';
import { LARGEST_PICTURE } from '@/contracts/picture';
import { sendPicture } from '@/services/classday/follow-later';
import { kitByLink } from '@/services/handout/families';

/** Keeps a picture of what a family cooked, behind its own link, for what it agreed to. */
export async function POST(request: Request, { params }: { params: Promise<{ secret: string }> }): Promise<Response> {
  return ownAnswer(request, async () => {
    const own = await kitByLink(await visit(), (await params).secret);
    const bytes = await readBounded(request, LARGEST_PICTURE, ANY_FILE);
    await sendPicture(own, bytes, new URL(request.url).searchParams.get('for') ?? '');
    return new Response(null, { status: 204 });
  });
}
