import { ANY_FILE, readBounded, route } from '@/app/api/problem';
import { LARGEST_FILE } from '@/contracts/files';
import { previewCalendarFile } from '@/services/plan/closures';
import { contextFor } from '@/services/runtime';

/** Reads a calendar file and says what was understood; saves nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const bytes = await readBounded(request, LARGEST_FILE, ANY_FILE);
    return Response.json(await previewCalendarFile(contextFor(actor), { bytes }));
  });
}
