import type { IncomingMessage, ServerResponse } from 'node:http';
import { api } from '@zabrik/contract';
import { z } from 'zod';
import { isSameOrigin } from '../../access/sameOrigin.ts';
import { asProblem, fieldsOf, Problem, problemDocument } from '../../http/problem.ts';
import { requestId } from '../../http/requestLog.ts';
import type { Kitchen } from '../../kitchen.ts';
import { weigh } from './weigh.ts';

const PATH = /^\/api\/v1\/breakdowns\/([^/]+)\/weighings$/;
const MOST_BYTES = 100_000;
const key = z.uuid();
const { params: paramsSchema, body: bodySchema } = api.bench.weigh;

const readBody = (request: IncomingMessage): Promise<string> =>
  new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let size = 0;
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size <= MOST_BYTES) chunks.push(chunk);
    });
    request.on('end', () =>
      size > MOST_BYTES ? reject(new Problem('too_large')) : resolve(Buffer.concat(chunks).toString('utf8')),
    );
    request.on('error', reject);
  });

const parseJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('invalid', 'The request is not JSON.');
  }
};

const parsed = <T extends z.ZodType>(schema: T, value: unknown): z.output<T> => {
  const read = schema.safeParse(value);
  if (!read.success) throw new Problem('invalid', undefined, fieldsOf(read.error));
  return read.data;
};

const header = (request: IncomingMessage, name: string): string | undefined => {
  const value = request.headers[name];
  return typeof value === 'string' ? value : undefined;
};

/**
 * The short road of a weighing: the same checks as every other command, in the order of what they cost, without the rest of the
 * server around them, and the session looked up in the very statement that writes. Measured (docs/decisions.md): twice to three
 * times the weighings a second on the same machine. Returns false for every other request.
 */
export const weighRoad =
  (kitchen: Kitchen, sidOf: (cookies: string | undefined) => string | undefined) =>
  (request: IncomingMessage, response: ServerResponse): boolean => {
    if (request.method !== 'POST') return false;
    const breakdownId = PATH.exec(request.url ?? '')?.[1];
    if (breakdownId === undefined) return false;
    const start = performance.now();
    let who = {};
    const answer = (status: number, type: string, body: unknown): void => {
      const text = JSON.stringify(body);
      response.writeHead(status, {
        'content-type': `${type}; charset=utf-8`,
        'content-length': Buffer.byteLength(text),
        'cache-control': 'no-store',
        'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
        'x-content-type-options': 'nosniff',
      });
      response.end(text);
      const level = status >= 500 ? 'error' : status >= 400 ? 'warn' : 'info';
      if (kitchen.log.isLevelEnabled(level))
        kitchen.log[level](
          {
            id: requestId(response),
            method: 'POST',
            url: request.url,
            status,
            ms: Math.round(performance.now() - start),
            ...who,
          },
          'request',
        );
    };
    const take = async () => {
      const body = await readBody(request);
      if (!isSameOrigin(request)) throw new Problem('other_origin');
      const sid = sidOf(request.headers.cookie);
      if (sid === undefined) throw new Problem('not_signed_in');
      const commandId = key.safeParse(header(request, 'idempotency-key'));
      if (!commandId.success) throw new Problem('key_missing');
      const params = parsed(paramsSchema, { breakdownId });
      const question = parsed(bodySchema, parseJson(body));
      return weigh(kitchen, { sid }, commandId.data, params.breakdownId, question, (known) => {
        who = known;
      });
    };
    take().then(
      (weighing) => answer(200, 'application/json', weighing),
      (error: unknown) => {
        const problem = asProblem(error);
        if (problem.code === 'broken') kitchen.log.error({ err: error, id: requestId(response) }, 'unexpected');
        const document = problemDocument(problem, requestId(response));
        answer(document.status, 'application/problem+json', document);
      },
    );
    return true;
  };
