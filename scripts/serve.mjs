// The web server: Next.js behind one plain request function that sets the security headers, with TLS where asked.
// Settings come from the environment: HOST, PORT, TLS_CERT and TLS_KEY (files), LOGISTRA_DEV.
import { AsyncLocalStorage } from 'node:async_hooks';
import { randomBytes } from 'node:crypto';
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

const app = next({ dev, dir: ROOT, hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

/** Within a request: ends when its sender leaves, so that nothing goes on for nobody (src/workers/pool.ts). */
const leaving = new AsyncLocalStorage();
globalThis.logistraLeaving = leaving;

function onRequest(request, response) {
  const left = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) left.abort();
  });
  response.once('finish', () => finishReading(request));
  return leaving.run(left.signal, () => answer(request, response, left.signal));
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

function answer(request, response, left) {
  const [path = ''] = request.url.split('?');
  const isApi = path.startsWith('/api/');
  const headers = securityHeaders({ nonce: randomBytes(16).toString('base64'), tls: tls !== null, dev, isApi });
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  // Next.js reads the nonce for its own scripts from the request.
  request.headers['content-security-policy'] = headers['content-security-policy'];
  // Nobody stands between us and the browser: what a client says about its own address is not believed.
  request.headers['x-forwarded-for'] = request.socket.remoteAddress ?? '';
  request.headers['x-forwarded-proto'] = tls ? 'https' : 'http';
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
