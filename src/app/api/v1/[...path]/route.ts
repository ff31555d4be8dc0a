import { createHash } from 'node:crypto';
import { fileResponse } from '@/app/api/file-response';
import { problem, readBounded, route } from '@/app/api/problem';
import { ServiceError } from '@/services/errors';
import { contextFor } from '@/services/runtime';
import { onceOnly } from '@/services/work/idempotency';
import { apiDocument } from '../document';
import { type Operation, parseJson, type Reply } from '../operation';
import { OPERATIONS } from '../operations';

const ROUTES = OPERATIONS.map((operation) => ({
  operation,
  pattern: new RegExp(`^${operation.path.replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`),
}));

/** Finds the operation for a request, and runs it for who asks. */
async function answer(request: Request, { params }: { params: Promise<{ path: string[] }> }): Promise<Response> {
  const path = `/${(await params).path.join('/')}`;
  if (path === '/openapi.json' && request.method === 'GET') return Response.json(apiDocument());
  const here = ROUTES.filter(({ pattern }) => pattern.test(path));
  const found = here.find(({ operation }) => operation.method === request.method);
  if (!found) {
    const allow = here.map(({ operation }) => operation.method).join(', ');
    if (!allow) return problem(404, 'There is no such address. GET /api/v1/openapi.json lists them all.');
    const response = problem(405, `Here one may send: ${allow}.`);
    response.headers.set('allow', allow);
    return response;
  }
  const ids = found.pattern.exec(path)?.groups ?? {};
  return route(request, async (actor) => {
    const { operation } = found;
    const url = new URL(request.url);
    const bytes = operation.body
      ? await readBounded(request, operation.body.most, operation.body.type)
      : new Uint8Array();
    const accept = request.headers.get('accept') ?? '';
    const call = {
      params: { ...ids },
      query: readQuery(operation, url),
      json: () => parseJson(bytes),
      bytes,
      accepts: (type: string) => accept.includes(type),
      url,
    };
    const key = operation.once ? request.headers.get('idempotency-key') : null;
    const context = contextFor(actor);
    if (key === null) return respond(await operation.run(context, call));
    if (!/^[\x21-\x7e]{1,120}$/.test(key)) {
      const message = 'Use 1 to 120 letters, digits and signs without spaces.';
      throw new ServiceError('invalid', message, [{ where: 'Idempotency-Key', message }]);
    }
    const mark = createHash('sha256')
      .update(`${request.method} ${url.pathname}${url.search}\n`)
      .update(bytes)
      .digest('hex');
    return respond(await operation.run(onceOnly(context, key, mark), call));
  });
}

function readQuery(operation: Operation, url: URL): unknown {
  if (!operation.query) return {};
  const reading = operation.query.safeParse(Object.fromEntries(url.searchParams));
  if (reading.success) return reading.data;
  throw new ServiceError(
    'invalid',
    'Something in the address cannot be used.',
    reading.error.issues.map(({ path, message }) => ({ where: String(path[0] ?? ''), message })),
  );
}

function respond(reply: Reply): Response {
  if ('file' in reply) return fileResponse(reply.file, reply.type, reply.name);
  return Response.json(reply.json, { status: reply.status ?? 200, headers: { 'cache-control': 'no-store' } });
}

export { answer as DELETE, answer as GET, answer as POST, answer as PUT };
