import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportTemperatures } from '@/services/packing/made/log';
import { contextFor } from '@/services/runtime';

/** Every temperature that was taken (CSV). */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) =>
    fileResponse(await exportTemperatures(contextFor(actor), {}), 'text/csv; charset=utf-8', 'temperatures.csv'),
  );
}
