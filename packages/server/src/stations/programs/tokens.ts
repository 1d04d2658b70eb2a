import type { Answer, Asked, api, Token } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { newToken, tokenHash } from '../../access/tokens.ts';
import { ApiTokenTable } from '../../db/models/apiToken.ts';
import { SettingChangeTable } from '../../db/models/settingChange.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, Services } from '../../services.ts';

/** Tokens that hold for one person at once. */
const MOST_TOKENS = 20;

interface TokenRow extends Omit<Token, 'madeAt' | 'until' | 'usedAt' | 'endedAt'> {
  readonly madeAt: Date;
  readonly until: Date;
  readonly usedAt: Date | null;
  readonly endedAt: Date | null;
}

/** Those that hold first, the newest of them first; of those that are over the last fifty. */
export async function readTokens(
  { db, clock }: Services,
  actor: Actor,
  only?: string,
): Promise<Answer<typeof api.programs.tokens>> {
  const rows = await select<TokenRow>(
    db,
    `select t.id, t.name, t.scope, p.name as by, t.person_id = $2 as mine, t.made_at as "madeAt", t.until, t.used_at as "usedAt", t.ended_at as "endedAt"
     from api_token t join person p on p.id = t.person_id
     where t.house_id = $1 and ($3 or t.person_id = $2) and ($4::uuid is null or t.id = $4)
     order by t.ended_at is null and t.until > $5 desc, t.made_at desc limit ${MOST_TOKENS + 50}`,
    [actor.houseId, actor.personId, actor.role === 'head-chef', only ?? null, clock()],
  );
  return {
    tokens: rows.map((t) => ({
      ...t,
      madeAt: t.madeAt.toISOString(),
      until: t.until.toISOString(),
      usedAt: t.usedAt?.toISOString() ?? null,
      endedAt: t.endedAt?.toISOString() ?? null,
    })),
  };
}

/** Made once its person has shown the PIN: a tablet left open makes none. Errors: `invalid` where there are too many. */
export async function makeToken(
  services: Services,
  actor: Actor,
  { body: { name, scope, days } }: Asked<typeof api.programs.makeToken>,
): Promise<Answer<typeof api.programs.makeToken>> {
  const { db, clock } = services;
  const tokens = rowsOf(db, ApiTokenTable, actor);
  const now = clock();
  const holding = await tokens.all({ personId: actor.personId, endedAt: null });
  if (holding.filter((t) => t.until > now).length >= MOST_TOKENS)
    throw new Problem('invalid', `${MOST_TOKENS} tokens of yours hold already. Take one back first.`);
  const token = newToken();
  const id = uuidv7();
  await tokens.add({
    id,
    personId: actor.personId,
    name,
    scope,
    hash: tokenHash(token),
    madeAt: now,
    until: new Date(now.getTime() + days * 86_400_000),
  });
  await writeDown(services, actor, 'token', name, { scope, days });
  const [made] = (await readTokens(services, actor, id)).tokens;
  if (made === undefined) throw new Problem('not_found');
  return { token, made };
}

/** One's own, or for the head chef anybody's. */
export async function endToken(
  services: Services,
  actor: Actor,
  { params: { tokenId } }: Asked<typeof api.programs.endToken>,
): Promise<Answer<typeof api.programs.endToken>> {
  const tokens = rowsOf(services.db, ApiTokenTable, actor);
  const token = await tokens.one({ id: tokenId });
  if (token === undefined || (token.personId !== actor.personId && actor.role !== 'head-chef'))
    throw new Problem('not_found');
  if ((await tokens.change({ id: tokenId, endedAt: null }, { endedAt: services.clock() })) > 0)
    await writeDown(services, actor, 'token', token.name, null);
  return { done: true };
}

/** Stands under what was changed of the house, without the secret. */
export async function writeDown(
  { db, clock }: Services,
  actor: Actor,
  what: 'token' | 'webhook',
  about: string,
  after: Readonly<Record<string, unknown>> | null,
): Promise<void> {
  const { personId } = actor;
  await rowsOf(db, SettingChangeTable, actor).add({ id: uuidv7(), at: clock(), personId, what, about, after });
}
