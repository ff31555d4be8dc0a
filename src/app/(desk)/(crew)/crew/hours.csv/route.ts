import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportHours } from '@/services/crew/hours';
import { contextFor } from '@/services/runtime';

/** The hours of the crew between two days (CSV). */
export async function GET(request: Request): Promise<Response> {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  return route(request, async (actor) =>
    fileResponse(
      (await exportHours(contextFor(actor), { ...asked, as: 'csv' })) as string,
      'text/csv; charset=utf-8',
      'hours.csv',
    ),
  );
}
