import { readBounded, route } from '@/app/api/problem';
import { LARGEST_FILE } from '@/contracts/files';
import { previewRecipeFile } from '@/services/recipes/recipes';
import { contextFor } from '@/services/runtime';

/** Reads a recipe file and says what was understood; saves nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const bytes = await readBounded(request, LARGEST_FILE);
    return Response.json(await previewRecipeFile(contextFor(actor), { bytes }));
  });
}
