import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportRoll } from '@/services/roll/roll-file';
import { contextFor } from '@/services/runtime';

/** The roll of a course as CSV. */
export async function GET(request: Request, { params }: { params: Promise<{ courseId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { text, name } = await exportRoll(contextFor(actor), await params);
    return fileResponse(text, 'text/csv; charset=utf-8', `${name}.csv`);
  });
}
