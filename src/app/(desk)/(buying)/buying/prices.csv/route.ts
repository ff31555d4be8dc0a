import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportPrices } from '@/services/buying/price-file';
import { contextFor } from '@/services/runtime';

/** The price book as a table (CSV). */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) =>
    fileResponse(await exportPrices(contextFor(actor), {}), 'text/csv; charset=utf-8', 'prices.csv'),
  );
}
