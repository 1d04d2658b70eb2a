/**
 * A tablet takes the new app when nobody is typing: for some minutes it speaks to a newer server in words of before. What it says where addresses have
 * changed is answered with "not now": it keeps its commands and sends them again as the new app. Of names that have changed in a body the old one is
 * understood as well.
 */
import { inNamesOfNow } from '@zabrik/contract/before';
import type { RequestHandler } from 'express';
import { Problem } from './problem.ts';

/** Addresses until 30 November 2026. */
const before = /^\/(?:runs|run-timers|uses)(?:\/|$)|^\/houses\/[^/]+\/door$/;
export const olderApp: RequestHandler = (request, _response, next) => {
  if (before.test(request.path))
    throw new Problem(
      'busy',
      'This tablet’s app is older than the kitchen’s server. It takes the new one by itself; nothing is lost.',
    );
  const body: unknown = request.body;
  if (typeof body === 'object' && body !== null && !Array.isArray(body)) request.body = inNamesOfNow(body);
  next();
};
