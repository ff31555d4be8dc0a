import { z } from 'zod';
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject } from 'zod-openapi';
import { problemDocument } from '@/contracts/api';
import type { Operation } from './operation';
import { OPERATIONS } from './operations';

const problems = (text: string) => ({
  description: text,
  content: { 'application/problem+json': { schema: problemDocument } },
});

function describe(operation: Operation): ZodOpenApiOperationObject {
  const { summary, query, body, answer, path } = operation;
  const ids = [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);
  const types = answer.types ?? ['application/json'];
  const content = types.map((type) => [
    type,
    type === 'application/json' && answer.schema ? { schema: answer.schema } : {},
  ]);
  return {
    summary,
    operationId: `${operation.method.toLowerCase()}${path.replace(/[^\w]+(\w)/g, (_, letter: string) => letter.toUpperCase()).replace(/\W/g, '')}`,
    requestParams: {
      ...(ids.length > 0 ? { path: z.object(Object.fromEntries(ids.map((name) => [name, z.uuid()]))) } : {}),
      ...(query ? { query: query as z.ZodObject } : {}),
      ...(operation.once
        ? { header: z.object({ 'Idempotency-Key': z.string().max(120).optional().meta({ description: KEY }) }) }
        : {}),
    },
    ...(body
      ? {
          requestBody: {
            required: true,
            description: body.what ?? '',
            content: { [body.type]: body.schema ? { schema: body.schema } : {} },
          },
        }
      : {}),
    responses: {
      [String(answer.status) as '200']: { description: 'Done', content: Object.fromEntries(content) },
      '401': problems('Nobody is signed in, or the token is unknown or has ended'),
      '403': problems('Not the duty of this role'),
      '404': problems('Not there, or not yours'),
      '409': problems('Somebody else was quicker'),
      '422': problems('Something cannot be used: each place, with its remedy'),
      '503': problems('The database is away; nothing was saved, send the same again'),
    },
  };
}

const KEY =
  'Made by the sender: the same request sent again with it changes nothing and is answered the same, for a day';

let made: object | undefined;

/** The OpenAPI 3.1 document, made from the schemas that check what is sent. */
export function apiDocument(): object {
  if (!made) {
    const paths: ZodOpenApiPathsObject = {};
    for (const operation of OPERATIONS) {
      paths[operation.path] = { ...paths[operation.path], [operation.method.toLowerCase()]: describe(operation) };
    }
    made = createDocument({
      openapi: '3.1.0',
      info: {
        title: 'Logistra',
        version: '1',
        description: 'Courses, rolls, kit sheets, labels and packing. Follow your local code and your venue’s rules.',
      },
      servers: [{ url: '/api/v1' }],
      security: [{ token: [] }],
      paths,
      components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
    });
  }
  return made;
}
