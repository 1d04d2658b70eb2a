import { z } from 'zod';
import { createDocument, type ZodOpenApiPathsObject } from 'zod-openapi';
import type { Endpoint } from './endpoint.ts';
import * as contract from './index.ts';
import { problemSchema, problems } from './problems.ts';
import { groups } from './roles.ts';

const { api } = contract;

/**
 * Every shape that has a name here has it in the document as well, once, instead of being written out wherever it comes: `lotSchema` is `Lot`. Named for
 * this document alone: what else is made of the schemas has its shapes in one piece.
 */
const named: Record<string, z.ZodType> = {};
for (const [name, schema] of Object.entries(contract))
  if (name.endsWith('Schema') && schema instanceof z.ZodType && !Object.values(named).includes(schema))
    named[`${name.charAt(0).toUpperCase()}${name.slice(1, -'Schema'.length)}`] = schema;

export const allEndpoints: readonly Endpoint[] = Object.values(api).flatMap((station) =>
  Object.values(station as Record<string, Endpoint>),
);

const pathsOf = (endpoints: readonly Endpoint[]): ZodOpenApiPathsObject => {
  const paths: ZodOpenApiPathsObject = {};
  for (const e of endpoints) {
    const path = `/api/v1${e.path.replace(/:(\w+)/g, '{$1}')}`;
    const actor = e.may === 'open' ? e.may : groups[e.may];
    paths[path] = {
      ...paths[path],
      [e.method]: {
        operationId: e.id,
        tags: [e.id.split('.')[0] ?? ''],
        summary: e.summary,
        description: actor === 'open' ? 'Open: nobody needs to be signed in.' : `For: ${actor.join(', ')}.`,
        ...(actor === 'open' ? { security: [] } : {}),
        requestParams: {
          ...(e.params === undefined ? {} : { path: e.params }),
          ...(e.query === undefined ? {} : { query: e.query }),
        },
        ...(e.command
          ? {
              parameters: [
                {
                  name: 'Idempotency-Key',
                  in: 'header' as const,
                  required: true,
                  description: 'A UUID made by the client. A repeat gets the first answer.',
                  schema: { type: 'string' as const, format: 'uuid' },
                },
                ...(e.command === 'may-wait'
                  ? [
                      {
                        name: 'Zabrik-Waited',
                        in: 'header' as const,
                        required: false,
                        description:
                          'How many milliseconds ago it was done, for what was kept while the server was away: it counts from then, a fortnight at most.',
                        schema: { type: 'integer' as const, minimum: 0 },
                      },
                    ]
                  : []),
              ],
            }
          : {}),
        ...(e.body === undefined
          ? {}
          : { requestBody: { required: true, content: { 'application/json': { schema: e.body } } } }),
        responses: {
          '200':
            e.file === undefined
              ? { description: 'Done', content: { 'application/json': { schema: e.answer } } }
              : { description: 'The file', content: { [e.file]: {} } },
          default: { description: 'Refused', content: { 'application/problem+json': { schema: problemSchema } } },
        },
      },
    };
  }
  return paths;
};

/** The OpenAPI 3.1 document, made from the endpoints themselves. */
export const openApiDocument: ReturnType<typeof createDocument> = createDocument({
  openapi: '3.1.0',
  info: {
    title: 'Zabrik',
    version: '1',
    description: `Masses are whole milligrams, money whole minor units, temperatures hundredths of a degree Celsius, times UTC. Refusals are problem documents (RFC 9457) with one of these codes: ${Object.keys(problems).join(', ')}. Changes stream as server-sent events from /api/v1/live. A program signs in by a token (House, Programs) in an Authorization header: Bearer TOKEN. It reads, and with the scope work gives commands; what is read again comes with an ETag.`,
  },
  servers: [{ url: '/' }],
  security: [{ session: [] }, { token: [] }],
  components: {
    schemas: named,
    securitySchemes: {
      session: { type: 'apiKey', in: 'cookie', name: 'zabrik' },
      token: { type: 'http', scheme: 'bearer', description: 'made under House, Programs' },
    },
  },
  paths: pathsOf(allEndpoints),
  webhooks: {
    told: {
      post: {
        summary: 'What an address under House, Programs is called with',
        description:
          'Signed by the Standard Webhooks scheme: webhook-id (the same when it is tried again), webhook-timestamp, webhook-signature. Answer 2xx; anything else is tried again, later each time, for two days and a half.',
        requestBody: { required: true, content: { 'application/json': { schema: contract.hookCallSchema } } },
        responses: { '2XX': { description: 'Taken' } },
      },
    },
  },
});
