import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportRollBook } from '@/services/roll/roll-file';
import { contextFor } from '@/services/runtime';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** The roll of a course as a workbook. */
export async function GET(request: Request, { params }: { params: Promise<{ courseId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { bytes, name } = await exportRollBook(contextFor(actor), await params);
    return fileResponse(bytes, XLSX, `${name}.xlsx`);
  });
}
