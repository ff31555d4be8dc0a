/** A request to the bench, answered without the framework around it. */
type Answer = (request: Request) => Promise<Response>;

/**
 * Runs once when the server starts. The bench's own addresses are asked many times a second by every screen, and the
 * framework costs several times what the answer does: the web server (scripts/serve.mjs) calls their handlers directly.
 */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const ticks = await import('./app/api/bench/[sessionId]/ticks/route');
  const stream = await import('./app/api/bench/[sessionId]/stream/route');
  const handlers = { 'GET ticks': ticks.GET, 'POST ticks': ticks.POST, 'GET stream': stream.GET };
  const answerAtTheBench = (method: string, path: string): Answer | undefined => {
    const [, sessionId = '', what] = /^\/api\/bench\/([^/]+)\/(ticks|stream)$/.exec(path) ?? [];
    const handler = handlers[`${method} ${what}` as keyof typeof handlers];
    return handler && ((request) => handler(request, { params: Promise.resolve({ sessionId }) }));
  };
  Object.assign(globalThis, { answerAtTheBench });
  const { meter } = await import('./watch/meter');
  const { faultOf, log } = await import('./watch/log');
  const { routeOf } = await import('./watch/routes');
  meter();
  log();
  // Read by the web server, which counts and writes down each request.
  Object.assign(globalThis, { logistraRouteOf: routeOf, logistraFaultOf: faultOf });
  const { warmUp } = await import('./workers/pool');
  warmUp();
}
