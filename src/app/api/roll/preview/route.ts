import { readBounded, route } from '@/app/api/problem';
import { LARGEST_FILE } from '@/contracts/files';
import { previewRollFile } from '@/services/roll/roll';
import { contextFor } from '@/services/runtime';

/** Reads a roll file and says what was understood; saves nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const courseId = new URL(request.url).searchParams.get('course') ?? '';
    const bytes = await readBounded(request, LARGEST_FILE);
    return Response.json(await previewRollFile(contextFor(actor), { courseId, bytes }));
  });
}
