import { route } from '@/app/api/problem';
import { contextFor } from '@/services/runtime';
import { cancelJob, viewJob } from '@/services/work/jobs';

type Params = { params: Promise<{ jobId: string }> };

/** How far a job is. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => Response.json(await viewJob(contextFor(actor), await params)));
}

/** Asks a job to stop. */
export async function DELETE(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    await cancelJob(contextFor(actor), await params);
    return new Response(null, { status: 204 });
  });
}
