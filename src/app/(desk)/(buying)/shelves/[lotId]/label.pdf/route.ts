import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { printLotLabel } from '@/services/buying/take-out';
import { contextFor } from '@/services/runtime';

/** The label of something on a shelf, with the code by which the bench packs from it: `?paper=a4` or `?paper=letter`. */
export async function GET(request: Request, { params }: { params: Promise<{ lotId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { lotId } = await params;
    const paper = new URL(request.url).searchParams.get('paper') === 'letter' ? 'letter' : 'a4';
    const pdf = await printLotLabel(contextFor(actor), { lotId, paper });
    return fileResponse(pdf as Uint8Array<ArrayBuffer>, 'application/pdf', 'label.pdf', true);
  });
}
