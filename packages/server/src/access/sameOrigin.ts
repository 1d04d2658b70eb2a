import type { RequestHandler } from 'express';
import { Problem } from '../http/problem.ts';

/** Commands come from the app's own page and nowhere else: the Origin header must be this host, or the browser must say same-origin. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD') return next();
  const origin = request.header('origin');
  const host = request.header('host');
  const own =
    origin === undefined
      ? request.header('sec-fetch-site') === 'same-origin'
      : URL.canParse(origin) && new URL(origin).host === host;
  if (!own) throw new Problem('other_origin');
  next();
};
