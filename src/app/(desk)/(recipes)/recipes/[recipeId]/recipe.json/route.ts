import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportRecipe } from '@/services/recipes/recipes';
import { contextFor } from '@/services/runtime';

/** A recipe as a schema.org Recipe (JSON-LD). */
export async function GET(request: Request, { params }: { params: Promise<{ recipeId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { title, text } = await exportRecipe(contextFor(actor), await params);
    return fileResponse(text, 'application/ld+json; charset=utf-8', `${title}.json`);
  });
}
