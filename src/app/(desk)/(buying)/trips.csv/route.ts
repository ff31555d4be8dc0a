import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportTrips } from '@/services/buying/trips';
import { contextFor } from '@/services/runtime';

/** What was paid on trips, as a table (CSV). */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) =>
    fileResponse(await exportTrips(contextFor(actor), {}), 'text/csv; charset=utf-8', 'trips.csv'),
  );
}
