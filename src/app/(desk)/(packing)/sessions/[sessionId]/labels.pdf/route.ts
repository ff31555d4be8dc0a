import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { printLabels } from '@/services/packing/labels';
import { contextFor } from '@/services/runtime';

/**
 * The labels of the locked sheet: `?paper=a4` (3 × 8) or `?paper=letter` (2 × 5); `&of=made` for what was
 * made in class, `&of=changed` for those that the last revision changed; `&kit=` for one kit's alone.
 */
export async function GET(request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const asked = new URL(request.url).searchParams;
    const { pdf, name } = await printLabels(contextFor(actor), {
      sessionId,
      paper: asked.get('paper') ?? 'a4',
      of: asked.get('of') ?? 'kits',
      ...(asked.get('kit') ? { kitId: asked.get('kit') ?? '' } : {}),
    });
    return fileResponse(pdf as Uint8Array<ArrayBuffer>, 'application/pdf', `${name}.pdf`, true);
  });
}
