import { SHIFT_MINUTES } from '@zabrik/contract';
import connectPgSimple from 'connect-pg-simple';
import { parse as parseCookies } from 'cookie';
import { unsign } from 'cookie-signature';
import type { RequestHandler } from 'express';
import session from 'express-session';
import pg from 'pg';
import type { Actor } from '../services.ts';

declare module 'express-session' {
  interface SessionData {
    who: Actor;
    /** The token of the tablet it began on. */
    tablet: string;
    /** When it began, milliseconds. */
    since: number;
    /** When somebody last said to be there: written so that the session is kept anew. */
    hereAt: number;
  }
}

/**
 * How long a session has from now on, milliseconds: until its tablet has lain untouched for `idleMinutes`, within the shift.
 */
export const lifeOf = (idleMinutes: number, since: number, now: number): number =>
  Math.max(0, Math.min(idleMinutes * 60_000, since + SHIFT_MS - now));

const COOKIE = 'zabrik';
const SHIFT_MS = SHIFT_MINUTES * 60_000;

/** Sessions live in PostgreSQL, so that any server process knows them. The cookie lasts a long shift. */
export function sessions(
  databaseUrl: string,
  secret: string,
): {
  readonly handler: RequestHandler;
  /** The session id in a Cookie header when its signature holds: for the one road that looks the session up by itself. */
  readonly sidOf: (cookies: string | undefined) => string | undefined;
  close(): Promise<void>;
} {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4 });
  pool.on('error', () => undefined); // a lost idle connection is replaced; the query that needs one reports it
  const Store = connectPgSimple(session);
  const store = new Store({ pool, tableName: 'session', pruneSessionInterval: 3_600, disableTouch: true });
  const handler = session({
    name: COOKIE,
    secret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: SHIFT_MS },
  });
  const sidOf = (cookies: string | undefined): string | undefined => {
    const signed = cookies === undefined ? undefined : parseCookies(cookies)[COOKIE];
    if (signed?.startsWith('s:') !== true) return undefined;
    const sid = unsign(signed.slice(2), secret);
    return sid === false ? undefined : sid;
  };
  return {
    handler,
    sidOf,
    close: async () => {
      store.close();
      await pool.end();
    },
  };
}
