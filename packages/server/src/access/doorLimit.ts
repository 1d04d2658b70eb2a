import type { Request, RequestHandler } from 'express';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Sequelize } from 'sequelize';
import { Problem } from '../http/problem.ts';

/** Tries to sign in from one address, in a minute: a kitchen's tablets stand behind one. */
const TRIES = 60;
const SECONDS = 60;

/**
 * So many tries from one address and no more, whoever they are for: counted in the database, alike for every server process. `what`: those at a sign-in and
 * those at a code are counted apart.
 *
 * Errors  `too_many`, with when to try again.
 */
export function doorCount(db: Sequelize, what: 'sign-in' | 'code'): (request: Request) => Promise<void> {
  const limiter = new RateLimiterPostgres({
    storeClient: db,
    storeType: 'sequelize',
    tableName: 'rate_limit',
    tableCreated: true,
    keyPrefix: what,
    points: TRIES,
    duration: SECONDS,
  });
  return async (request) => {
    try {
      await limiter.consume(request.ip ?? 'unknown');
    } catch (error) {
      // what is no count is the database away: that is for the sign-in itself to say
      if (!(error instanceof RateLimiterRes)) throw error;
      request.res?.setHeader('retry-after', String(Math.ceil(error.msBeforeNext / 1_000)));
      throw new Problem('too_many');
    }
  };
}

/** The same before a request is read at all. */
export function doorLimit(db: Sequelize): RequestHandler {
  const count = doorCount(db, 'sign-in');
  return async (request, _response, next) => {
    await count(request);
    next();
  };
}
