import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportSheetBook } from '@/services/kits/kit-sheet';
import { contextFor } from '@/services/runtime';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** The kit sheet as a workbook with live totals. */
export async function GET(request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { bytes, name } = await exportSheetBook(contextFor(actor), await params);
    return fileResponse(bytes, XLSX, `${name}.xlsx`);
  });
}
