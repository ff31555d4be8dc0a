// The web server: Next.js behind one plain request function that sets the security headers, with TLS where asked.
// Settings come from the environment: HOST, PORT, TLS_CERT and TLS_KEY (files), LOGISTRA_DEV; TRUSTED_PROXY, the addresses of
// load balancers that stand between us and the browser and say who asks.
import { AsyncLocalStorage } from 'node:async_hooks';
import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import next from 'next';
import { securityHeaders } from './security-headers.mjs';
import { ROOT } from './system.mjs';

const dev = process.env.LOGISTRA_DEV === '1';
const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 3000);
const tls = process.env.TLS_CERT
  ? { cert: readFileSync(process.env.TLS_CERT), key: readFileSync(process.env.TLS_KEY) }
  : null;

const proxies = new Set((process.env.TRUSTED_PROXY ?? '').split(',').filter(Boolean));

const app = next({ dev, dir: ROOT, hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

// What the framework says of an error holds the statement, with what people wrote in it: only which error it was, and where, is
// written down (src/watch/log.ts).
const plainly = console.error;
console.error = (...said) => {
  const error = said.find((part) => part instanceof Error);
  if (error && globalThis.logistraFaultOf && !dev)
    globalThis.logistraLog?.error(globalThis.logistraFaultOf(error), 'a page failed');
  else plainly(...said);
};

const warnPlainly = console.warn;
console.warn = (...said) => {
  if (globalThis.logistraLog && !dev) globalThis.logistraLog.warn(said.map(String).join(' ').slice(0, 300));
  else warnPlainly(...said);
};

/** Within a request: ends when its sender leaves, so that nothing goes on for nobody (src/workers/pool.ts). */
const leaving = new AsyncLocalStorage();
globalThis.logistraLeaving = leaving;

/** Within a request: its id, in every line of the log and every statement sent for it (src/watch/request.ts). */
globalThis.logistraRequest ??= new AsyncLocalStorage();

/** What a balancer calls a request, else a name of our own. */
function idOf(request, isProxied) {
  const sent = request.headers['x-request-id'];
  return isProxied && /^[\w-]{8,36}$/.test(sent ?? '') ? sent : randomUUID();
}

function onRequest(request, response) {
  const begun = performance.now();
  const from = (request.socket.remoteAddress ?? '').replace(/^::ffff:/, '');
  const isProxied = proxies.has(from);
  const id = idOf(request, isProxied);
  response.setHeader('x-request-id', id);
  const left = new AbortController();
  response.once('close', () => note(request, response, id, (performance.now() - begun) / 1000));
  response.once('close', () => {
    if (!response.writableFinished) left.abort();
  });
  response.once('finish', () => finishReading(request));
  const ask = () => answer(request, response, left.signal, isProxied ? request.headers : undefined, from);
  return leaving.run(left.signal, () => globalThis.logistraRequest.run(id, ask));
}

/** What is asked again and again by machines is counted, and not written down. */
const UNWRITTEN = new Set(['/_next', '/healthz', '/readyz', '/metrics']);

/** Counts a request, and writes it down without what was asked of whom (src/watch). */
function note(request, response, id, seconds) {
  const { method, logistraAddress: address = request.url } = request;
  const status = response.statusCode;
  globalThis.logistraMeter?.request({ method, address, status, seconds });
  const route = globalThis.logistraRouteOf?.(address);
  if (route !== undefined && !UNWRITTEN.has(route))
    globalThis.logistraLog?.info({ request: id, method, route, status, ms: Math.round(seconds * 1000) }, 'answered');
}

/** So much of a body that nobody wanted is read, in bytes and milliseconds, before its connection is closed. */
const MOST_UNREAD = 8 * 1024 * 1024;
const LONGEST_UNREAD = 5_000;

/**
 * A request that was answered before its body had come would leave the rest of it in the connection, and the next request
 * on it unheard for a minute: what is left is read and thrown away, within limits.
 */
function finishReading(request) {
  if (request.complete || request.destroyed) return;
  let unread = 0;
  const close = setTimeout(() => request.socket.destroy(), LONGEST_UNREAD);
  request.unpipe();
  request.removeAllListeners('data');
  request.on('data', (chunk) => {
    unread += chunk.length;
    if (unread > MOST_UNREAD) request.socket.destroy();
  });
  for (const ended of ['end', 'close']) request.once(ended, () => clearTimeout(close));
  request.resume();
}

function answer(request, response, left, balancer, from) {
  request.logistraAddress = request.url;
  const [path = ''] = request.url.split('?');
  const isApi = path.startsWith('/api/');
  const isTls = balancer ? balancer['x-forwarded-proto'] === 'https' : tls !== null;
  const headers = securityHeaders({ nonce: randomBytes(16).toString('base64'), tls: isTls, dev, isApi });
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  // Next.js reads the nonce for its own scripts from the request.
  request.headers['content-security-policy'] = headers['content-security-policy'];
  // Only a balancer of ours is believed about whose request it passes on: what it adds stands last.
  request.headers['x-forwarded-for'] = (balancer?.['x-forwarded-for'] ?? '').split(',').at(-1).trim() || from;
  request.headers['x-forwarded-proto'] = isTls ? 'https' : 'http';
  delete request.headers['x-forwarded-host'];
  if (!isAddress(path)) {
    if (isApi) return refuseAddress(response);
    // A person gets the page that says so.
    request.url = '/nothing-is-here';
  }
  // Set by src/instrumentation.ts: the bench is answered without the framework.
  const bench = globalThis.answerAtTheBench?.(request.method, path);
  return bench ? answerDirectly(bench, request, response, left) : handle(request, response);
}

/** Whether an address can be read at all: its escapes are whole, and it holds no character that ends a text. */
function isAddress(path) {
  try {
    return !decodeURIComponent(path).includes('\0');
  } catch {
    return false;
  }
}

function refuseAddress(response) {
  const title =
    'This address cannot be read: a % in it is not followed by a code. Check it, or start from the first page.';
  response.writeHead(400, { 'content-type': 'application/problem+json' });
  response.end(JSON.stringify({ type: 'about:blank', status: 400, title }));
}

/** Hands a request to a web-standard handler, and its answer back. */
async function answerDirectly(answer, request, response, left) {
  try {
    const sends = request.method !== 'GET' && request.method !== 'HEAD';
    const reply = await answer(
      new Request(new URL(request.url, `http://${request.headers.host ?? 'localhost'}`), {
        method: request.method,
        headers: request.headers,
        signal: left,
        ...(sends ? { body: Readable.toWeb(request), duplex: 'half' } : {}),
      }),
    );
    response.writeHead(reply.status, Object.fromEntries(reply.headers));
    if (reply.body && reply.headers.get('content-type')?.startsWith('text/event-stream')) {
      // A reader that leaves ends the stream at its source; a slow one holds it back.
      await pipeline(Readable.fromWeb(reply.body), response);
    } else {
      response.end(Buffer.from(await reply.arrayBuffer()));
    }
  } catch (error) {
    if (left.aborted) return;
    console.error(error);
    if (!response.headersSent) response.writeHead(500);
    response.end();
  }
}

// Every open event stream listens for the end.
process.setMaxListeners(0);

const server = tls ? https.createServer(tls, onRequest) : http.createServer(onRequest);
// A client that sends its body a byte at a time must not hold a connection for ever.
server.requestTimeout = 60_000;
// A tablet that ticks every few seconds finds its connection still open: one closed while a tick is under way costs a
// second try.
server.keepAliveTimeout = 60_000;
if (dev) server.on('upgrade', app.getUpgradeHandler());

// Whoever started us asks now and then whether we still hear; one that hangs cannot answer, and is started anew.
process.on('message', (message) => {
  if (message === 'are you there?') process.send?.('here');
});

let ending = false;
/** Open event streams end at once (the browser comes back to the next server); other requests are let finish. */
function end() {
  if (ending) return;
  ending = true;
  process.emit('logistra:ending');
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 5000).unref();
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
// The one who started us is gone: nobody would ever stop this server.
process.on('disconnect', end);

server.listen(port, host, () => process.send?.('ready'));
