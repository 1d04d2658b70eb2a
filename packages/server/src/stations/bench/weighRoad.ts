import type { IncomingMessage, ServerResponse } from 'node:http';
import { api } from '@zabrik/contract';
import { z } from 'zod';
import { isSameOrigin } from '../../access/sameOrigin.ts';
import { mustBeKeepable } from '../../http/keepable.ts';
import { PERSON_HEADER } from '../../http/mount.ts';
import { asProblem, fieldsOf, Problem, problemDocument } from '../../http/problem.ts';
import { requestId } from '../../http/requestLog.ts';
import type { Services } from '../../services.ts';
import { weigh } from './weigh.ts';

const PATH = /^\/api\/v1\/breakdowns\/([^/]+)\/weighings$/;
const MOST_BYTES = 100_000;
const key = z.uuid();
const { params: paramsSchema, body: bodySchema } = api.bench.weigh;

/** A weighing is a few hundred bytes: one that dribbles is no weighing. */
const LONGEST_MS = 15_000;

const readBody = (request: IncomingMessage): Promise<string> =>
  new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let size = 0;
    const stop = (problem: Problem): void => {
      clearTimeout(late);
      request.removeAllListeners('data');
      request.pause();
      reject(problem);
    };
    const late = setTimeout(() => stop(new Problem('invalid', 'The weight did not arrive in time.')), LONGEST_MS);
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > MOST_BYTES) stop(new Problem('too_large'));
      else chunks.push(chunk);
    });
    request.on('end', () => {
      clearTimeout(late);
      resolve(Buffer.concat(chunks).toString('utf8'));
    });
    request.on('error', (error) => {
      clearTimeout(late);
      reject(error);
    });
  });

const parseJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('invalid', 'The request is not JSON.');
  }
};

const parsed = <T extends z.ZodType>(schema: T, value: unknown): z.output<T> => {
  mustBeKeepable(value);
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
  (services: Services, sidOf: (cookies: string | undefined) => string | undefined) =>
  (request: IncomingMessage, response: ServerResponse): boolean => {
    if (request.method !== 'POST') return false;
    const breakdownId = PATH.exec(request.url ?? '')?.[1];
    if (breakdownId === undefined) return false;
    const start = performance.now();
    let actor = {};
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
      // what is still on its way is not waited for: the line is closed behind the answer
      if (!request.complete) response.once('finish', () => request.destroy());
      const level = status >= 500 ? 'error' : status >= 400 ? 'warn' : 'info';
      if (services.log.isLevelEnabled(level))
        services.log[level](
          {
            id: requestId(response),
            method: 'POST',
            url: request.url,
            status,
            ms: Math.round(performance.now() - start),
            ...actor,
          },
          'request',
        );
    };
    const take = async () => {
      // nothing is read from a stranger
      if (/^Bearer /i.test(header(request, 'authorization') ?? '')) throw new Problem('not_for_programs');
      if (!isSameOrigin(request)) throw new Problem('other_origin');
      const sid = sidOf(request.headers.cookie);
      if (sid === undefined) throw new Problem('not_signed_in');
      const commandId = key.safeParse(header(request, 'idempotency-key'));
      if (!commandId.success) throw new Problem('key_missing');
      const person = key.optional().safeParse(header(request, PERSON_HEADER));
      if (!person.success) throw new Problem('other_person');
      const params = parsed(paramsSchema, { breakdownId });
      const question = parsed(bodySchema, parseJson(await readBody(request)));
      return weigh(services, { sid, personId: person.data }, commandId.data, params.breakdownId, question, (known) => {
        actor = known;
      });
    };
    take().then(
      (weighing) => answer(200, 'application/json', weighing),
      (error: unknown) => {
        const problem = asProblem(error);
        if (problem.code === 'broken')
          services.log.error({ err: problem.cause ?? error, id: requestId(response) }, 'unexpected');
        const document = problemDocument(problem, requestId(response));
        answer(document.status, 'application/problem+json', document);
      },
    );
    return true;
  };
