import { route } from '@/app/api/problem';
import { readInstruments } from '@/services/equipment/equipment';
import { contextFor } from '@/services/runtime';

/** What the scale, the probe and the scanner show now. */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) => Response.json(await readInstruments(contextFor(actor), {})));
}
