import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportDoors } from '@/services/handout/doors';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ sessionId: string }> };

/** The doors of a session as a file that can be brought in again (CSV). */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  const { sessionId } = await params;
  return route(request, async (actor) =>
    fileResponse(await exportDoors(contextFor(actor), { sessionId }), 'text/csv; charset=utf-8', 'doors.csv'),
  );
}
