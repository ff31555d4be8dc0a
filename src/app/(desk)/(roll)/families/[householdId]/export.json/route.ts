import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportHousehold } from '@/services/privacy/households';
import { contextFor } from '@/services/runtime';

/** All that is held about a household, as JSON. */
export async function GET(request: Request, { params }: { params: Promise<{ householdId: string }> }) {
  return route(request, async (actor) => {
    const { householdId } = await params;
    const held = await exportHousehold(contextFor(actor), { householdId });
    return fileResponse(JSON.stringify(held, null, 2), 'application/json', `household-${householdId}.json`);
  });
}
