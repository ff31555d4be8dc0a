import { ANY_FILE, readBounded, route } from '@/app/api/problem';
import { LARGEST_FILE } from '@/contracts/files';
import { previewRecipe } from '@/services/recipes/drafts';
import { contextFor } from '@/services/runtime';

/** Reads a recipe, pasted or from a file, and says what was understood; saves nothing. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const bytes = await readBounded(request, LARGEST_FILE, ANY_FILE);
    return Response.json(await previewRecipe(contextFor(actor), { bytes }));
  });
}
