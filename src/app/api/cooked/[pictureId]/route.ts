import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { viewCookedPicture } from '@/services/classday/follow-later';
import { contextFor } from '@/services/runtime';

/** A picture that a family sent of what it cooked. */
export async function GET(request: Request, { params }: { params: Promise<{ pictureId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { kind, picture } = await viewCookedPicture(contextFor(actor), await params);
    const [, ending = ''] = kind.split('/');
    return fileResponse(picture, kind, `cooked.${ending}`, true);
  });
}
