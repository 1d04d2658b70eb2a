import { randomUUID } from 'node:crypto';
import type { ServerResponse } from 'node:http';
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

const idOf = new WeakMap<ServerResponse, string>();

/** The id a request is logged under, and that its refusal carries. Made when first asked for. */
export function requestId(response: ServerResponse): string {
  const id = idOf.get(response) ?? randomUUID();
  idOf.set(response, id);
  return id;
}

/** One line a request: id, person, house, what, how it ended and how long it took. Bodies are never logged: they hold PINs. */
export const requestLog =
  (log: Logger): RequestHandler =>
  (request, response, next) => {
    const start = performance.now();
    response.once('finish', () => {
      const level = response.statusCode >= 500 ? 'error' : response.statusCode >= 400 ? 'warn' : 'info';
      if (!log.isLevelEnabled(level)) return;
      const actor = request.session?.who;
      log[level](
        {
          id: requestId(response),
          method: request.method,
          url: request.originalUrl,
          status: response.statusCode,
          ms: Math.round(performance.now() - start),
          ...(actor === undefined ? {} : { person: actor.personId, house: actor.houseId }),
        },
        'request',
      );
    });
    next();
  };
