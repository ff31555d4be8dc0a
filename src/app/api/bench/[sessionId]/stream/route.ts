import { apiActor } from '@/app/access';
import { route } from '@/app/api/problem';
import { viewEvents } from '@/services/packing/bench';
import { watchBench } from '@/services/packing/live';
import { contextFor, runningStore } from '@/services/runtime';
import { meter } from '@/watch/meter';

export const dynamic = 'force-dynamic';

/** How often a stream shows that it is alive, and whether its reader still may read, in milliseconds. */
const STILL_HERE = 5000;

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

    let end = () => {};
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        const encoder = new TextEncoder();
        let isOpen = true;
        const send = (line: string) => {
          if (isOpen) controller.enqueue(encoder.encode(line));
        };
        send('retry: 1000\n\n');
        meter().stream(1);
        const unwatch = watchBench(runningStore(), sessionId, known, ({ events }, text) => {
          const id = events.at(-1)?.seq;
          send(`${id ? `id: ${id}\n` : ''}data: ${text}\n\n`);
        });
        const beat = setInterval(async () => {
          const stillMay = await apiActor(request).catch(() => actor);
          if (stillMay) send('event: beat\ndata:\n\n');
          else end();
        }, STILL_HERE);
        end = () => {
          if (!isOpen) return;
          isOpen = false;
          meter().stream(-1);
          unwatch();
          clearInterval(beat);
          process.off('logistra:ending' as never, end);
          // A stream that its reader has left is closed already.
          if (!request.signal.aborted) controller.close();
        };
        // A server that ends closes its streams at once: browsers come back to the next.
        process.once('logistra:ending' as never, end);
        request.signal.addEventListener('abort', end);
      },
      cancel: () => end(),
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
