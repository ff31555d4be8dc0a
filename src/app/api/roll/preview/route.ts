import { ANY_FILE, readBounded, route } from '@/app/api/problem';
import { LARGEST_FILE } from '@/contracts/files';
import { previewRollFile } from '@/services/roll/roll-file';
import { contextFor } from '@/services/runtime';

/** What the browser was told headings mean; nothing where it sends no such list. */
function wordsOf(text: string | null): unknown {
  try {
    return JSON.parse(text ?? '{}');
  } catch {
    return {};
  }
}

/** Reads a roll file and says what was understood; saves nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const asked = new URL(request.url).searchParams;
    const courseId = asked.get('course') ?? '';
    const bytes = await readBounded(request, LARGEST_FILE, ANY_FILE);
    return Response.json(
      await previewRollFile(contextFor(actor), { courseId, bytes, columns: wordsOf(asked.get('columns')) } as never),
    );
  });
}
