import { signInOf } from '@/app/access';
import { route } from '@/app/api/problem';
import { findActor } from '@/services/access/sign-in';
import { viewEvents } from '@/services/packing/bench';
import { watchBench } from '@/services/packing/live';
import { contextFor, runningStore } from '@/services/runtime';

export const dynamic = 'force-dynamic';

/** How often a stream shows that it is alive, and whether its reader still may read, in milliseconds. */
const STILL_HERE = 10_000;

/**
 * What happens at a bench, as server-sent events: first all after `?since=` (or the last event a browser had before its
 * connection broke), then each within a second. Every message is named by the sequence number of its last event.
 */
export async function GET(request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> {
  return route(request, async (actor) => {
    const { sessionId } = await params;
    const url = new URL(request.url);
    const since = Number(request.headers.get('last-event-id') ?? url.searchParams.get('since') ?? 0);
    // Refuses who may not see this bench, and numbers that are none, before the stream begins.
    const known = Number.isSafeInteger(since) ? since : -1;
    await viewEvents(contextFor(actor), { sessionId, since: String(known) });
    const signInId = await signInOf(request);

    let stop = () => {};
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        const encoder = new TextEncoder();
        const send = (line: string) => controller.enqueue(encoder.encode(line));
        send('retry: 1000\n\n');
        const unwatch = watchBench(runningStore(), sessionId, known, ({ events }, text) => {
          const id = events.at(-1)?.seq;
          send(`${id ? `id: ${id}\n` : ''}data: ${text}\n\n`);
        });
        const beat = setInterval(async () => {
          const member = signInId && (await findActor(runningStore(), signInId, new Date()).catch(() => 'unknown'));
          if (signInId && !member) return close();
          send(': still here\n\n');
        }, STILL_HERE);
        const close = () => {
          stop();
          controller.close();
        };
        stop = () => {
          stop = () => {};
          unwatch();
          clearInterval(beat);
          process.off('logistra:ending' as never, close);
        };
        // A server that ends closes its streams at once: browsers come back to the next.
        process.once('logistra:ending' as never, close);
        request.signal.addEventListener('abort', () => stop());
      },
      cancel: () => stop(),
    });
    return new Response(body, {
      headers: {
        'content-type': 'text/event-stream; charset=utf-8',
        // Not transformed: compressing would hold messages back.
        'cache-control': 'no-store, no-transform',
      },
    });
  });
}
