/** Tokens by which a program of somebody else's acts for a person: as that person, with the role they have now, within the token's scope. */
import { createHash, randomBytes } from 'node:crypto';
import type { Role, TokenScope } from '@zabrik/contract';
import type { RequestHandler } from 'express';
import type { Sequelize } from 'sequelize';
import { selectOne } from '../db/select.ts';
import { Problem } from '../http/problem.ts';
import type { Services } from '../services.ts';

declare module 'express-serve-static-core' {
  interface Request {
    /** What the token it came with may do; undefined for a person at a screen. */
    token?: TokenScope;
  }
}

const TOKEN = /^zabrik_[\w-]{43}$/;
/** The time it was last used is written to the minute: a program that asks each second writes nothing each second. */
const USED_EVERY_MS = 60_000;

/** 256 bits of chance. Only its hash is kept, and a plain one: nobody guesses it, so that nobody need be slowed down. */
export const newToken = (): string => `zabrik_${randomBytes(32).toString('base64url')}`;
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');

interface Holder {
  readonly id: string;
  readonly scope: TokenScope;
  readonly usedAt: Date | null;
  readonly personId: string;
  readonly name: string;
  readonly role: Role;
  readonly houseId: string;
}

/** Whose token it is, as they are now. Errors: `token_over` for one that was taken back, has run out, is nobody's, or whose person has left. */
async function holderOf(db: Sequelize, token: string, now: Date): Promise<Holder> {
  const holder = TOKEN.test(token)
    ? await selectOne<Holder>(
        db,
        `select t.id, t.scope, t.used_at as "usedAt", p.id as "personId", p.name, p.role, p.house_id as "houseId"
         from api_token t join person p on p.id = t.person_id and p.house_id = t.house_id
         where t.hash = $1 and t.ended_at is null and t.until > $2 and p.left_at is null`,
        [tokenHash(token), now],
      )
    : undefined;
  if (holder === undefined) throw new Problem('token_over');
  return holder;
}

/** What a request with a token goes through in place of the cookie and the page it must come from: no browser sends one by itself. */
export const byToken =
  ({ db, clock }: Services, otherwise: RequestHandler): RequestHandler =>
  async (request, response, next) => {
    const [, token] = /^Bearer +(\S+)$/i.exec(request.headers.authorization ?? '') ?? [];
    if (token === undefined) {
      await otherwise(request, response, next);
      return;
    }
    const now = clock();
    const { id, scope, usedAt, ...who } = await holderOf(db, token, now);
    if (usedAt === null || now.getTime() - usedAt.getTime() > USED_EVERY_MS)
      await db.query('update api_token set used_at = $2 where id = $1', { bind: [id, now] });
    request.token = scope;
    request.session = { who } as typeof request.session;
    next();
  };
