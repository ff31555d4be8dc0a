import { fileResponse } from '@/app/api/file-response';
import { overseerRoute } from '@/app/api/problem';
import { saveCity, spanOf } from '@/services/overview/city';

/** A city's programmes in counts and money, as a table (CSV). */
export async function GET(request: Request, { params }: { params: Promise<{ cityId: string }> }): Promise<Response> {
  const { cityId } = await params;
  return overseerRoute(async (context) => {
    const asked = Object.fromEntries(new URL(request.url).searchParams);
    const span = spanOf(context.clock().toString().slice(0, 10), asked);
    return fileResponse(await saveCity(context, { cityId, ...span }), 'text/csv; charset=utf-8', 'programmes.csv');
  });
}
