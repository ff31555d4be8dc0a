import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportRecipeTable } from '@/services/recipes/recipes';
import { contextFor } from '@/services/runtime';

/** A recipe as a table (CSV). */
export async function GET(request: Request, { params }: { params: Promise<{ recipeId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { title, text } = await exportRecipeTable(contextFor(actor), await params);
    return fileResponse(text, 'text/csv; charset=utf-8', `${title}.csv`);
  });
}
