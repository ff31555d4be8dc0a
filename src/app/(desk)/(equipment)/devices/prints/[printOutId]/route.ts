import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { viewPrintOut } from '@/services/equipment/equipment';
import { contextFor } from '@/services/runtime';

/** Pages that lie in the printer's tray. */
export async function GET(request: Request, { params }: { params: Promise<{ printOutId: string }> }) {
  return route(request, async (actor) => {
    const { printOutId } = await params;
    const { title, pdf } = await viewPrintOut(contextFor(actor), { printOutId });
    return fileResponse(new Uint8Array(pdf), 'application/pdf', `${title}.pdf`, true);
  });
}
