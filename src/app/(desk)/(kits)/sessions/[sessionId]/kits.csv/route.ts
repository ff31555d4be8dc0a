import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportSheet } from '@/services/kits/kit-sheet';
import { contextFor } from '@/services/runtime';

/** The kit sheet as CSV: the locked revision, or the draft while nothing is locked. */
export async function GET(request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { text, name } = await exportSheet(contextFor(actor), await params);
    return fileResponse(text, 'text/csv; charset=utf-8', `${name}.csv`);
  });
}
