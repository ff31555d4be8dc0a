import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportSheetPdf } from '@/services/kits/kit-sheet';
import { contextFor } from '@/services/runtime';

/** The kit sheet to print. */
export async function GET(request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { bytes, name } = await exportSheetPdf(contextFor(actor), await params);
    return fileResponse(bytes as Uint8Array<ArrayBuffer>, 'application/pdf', `${name}.pdf`);
  });
}
