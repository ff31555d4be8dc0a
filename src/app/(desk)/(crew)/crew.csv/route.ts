import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportCrew } from '@/services/crew/people';
import { contextFor } from '@/services/runtime';

/** The crew as a file that can be brought in again (CSV). */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) =>
    fileResponse(await exportCrew(contextFor(actor), {}), 'text/csv; charset=utf-8', 'crew.csv'),
  );
}
