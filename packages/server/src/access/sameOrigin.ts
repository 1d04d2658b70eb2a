import type { IncomingMessage } from 'node:http';
import type { RequestHandler } from 'express';
import { Problem } from '../http/problem.ts';

/** Commands come from the app's own page and nowhere else: the Origin header must be this host, or the browser must say same-origin. */
export function isSameOrigin({ method, headers }: Pick<IncomingMessage, 'method' | 'headers'>): boolean {
  if (method === 'GET' || method === 'HEAD') return true;
  const { origin, host } = headers;
  if (origin === undefined) return headers['sec-fetch-site'] === 'same-origin';
  return URL.canParse(origin) && new URL(origin).host === host;
}

export const sameOrigin: RequestHandler = (request, _response, next) => {
  if (!isSameOrigin(request)) throw new Problem('other_origin');
  next();
};
