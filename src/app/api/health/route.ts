import { runningStore } from '@/services/runtime';

export const dynamic = 'force-dynamic';

/** Whether the server and its database answer. Tells nothing else. */
export async function GET(_request: Request): Promise<Response> {
  const up = await runningStore().ping();
  return Response.json({ database: up ? 'answers' : 'does not answer' }, { status: up ? 200 : 503 });
}
