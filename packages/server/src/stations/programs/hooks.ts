import { randomBytes } from 'node:crypto';
import type { Answer, Asked, api, Hook } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { WebhookTable } from '../../db/models/webhook.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, Services } from '../../services.ts';
import { callOnce } from '../../webhooks/callOnce.ts';
import { writeDown } from './tokens.ts';

const MOST_HOOKS = 10;

interface HookRow extends Omit<Hook, 'madeAt' | 'lastOkAt'> {
  readonly madeAt: Date;
  readonly lastOkAt: Date | null;
}

export async function readHooks(
  { db, clock }: Services,
  actor: Actor,
  only?: string,
): Promise<Answer<typeof api.programs.hooks>> {
  const rows = await select<HookRow>(
    db,
    `select h.id, h.name, h.url, h.topics, p.name as by, h.made_at as "madeAt", h.last_ok_at as "lastOkAt", h.last_why as "lastWhy",
            (select count(*)::int from webhook_call c where c.webhook_id = h.id and c.ended_at is null) as waiting,
            (select count(*)::int from webhook_call c where c.webhook_id = h.id and c.ended_at is not null and not c.ok and c.at > $3) as "givenUp"
     from webhook h join person p on p.id = h.person_id
     where h.house_id = $1 and h.ended_at is null and ($2::uuid is null or h.id = $2) order by h.made_at`,
    [actor.houseId, only ?? null, new Date(clock().getTime() - 7 * 86_400_000)],
  );
  return {
    hooks: rows.map((h) => ({ ...h, madeAt: h.madeAt.toISOString(), lastOkAt: h.lastOkAt?.toISOString() ?? null })),
  };
}

export async function addHook(
  services: Services,
  actor: Actor,
  { body }: Asked<typeof api.programs.addHook>,
): Promise<Answer<typeof api.programs.addHook>> {
  const hooks = rowsOf(services.db, WebhookTable, actor);
  if ((await hooks.count({ endedAt: null })) >= MOST_HOOKS)
    throw new Problem('invalid', `${MOST_HOOKS} addresses are called already. Take one away first.`);
  const id = uuidv7();
  const secret = `whsec_${randomBytes(32).toString('base64')}`;
  const topics = [...new Set(body.topics)];
  await hooks.add({ id, personId: actor.personId, ...body, topics, secret, madeAt: services.clock() });
  await writeDown(services, actor, 'webhook', body.name, { url: body.url, topics });
  const [made] = (await readHooks(services, actor, id)).hooks;
  if (made === undefined) throw new Problem('not_found');
  return { secret, made };
}

export async function endHook(
  services: Services,
  actor: Actor,
  { params: { hookId } }: Asked<typeof api.programs.endHook>,
): Promise<Answer<typeof api.programs.endHook>> {
  const hooks = rowsOf(services.db, WebhookTable, actor);
  const hook = await hooks.one({ id: hookId });
  if (hook === undefined) throw new Problem('not_found');
  const now = services.clock();
  if ((await hooks.change({ id: hookId, endedAt: null }, { endedAt: now })) > 0) {
    await services.db.query(
      'update webhook_call set ended_at = $2 where webhook_id = $1 and house_id = $3 and ended_at is null',
      { bind: [hookId, now, actor.houseId] },
    );
    await writeDown(services, actor, 'webhook', hook.name, null);
  }
  return { done: true };
}

export async function tryHook(
  services: Services,
  actor: Actor,
  { params: { hookId } }: Asked<typeof api.programs.tryHook>,
): Promise<Answer<typeof api.programs.tryHook>> {
  const hook = await rowsOf(services.db, WebhookTable, actor).one({ id: hookId, endedAt: null });
  if (hook === undefined) throw new Problem('not_found');
  const house = await select<{ slug: string }>(services.db, 'select slug from house where id = $1', [actor.houseId]);
  const at = services.clock();
  const why = await callOnce(hook, uuidv7(), at, {
    topic: 'try',
    house: house[0]?.slug ?? '',
    at: at.toISOString(),
  });
  return { ok: why === null, why };
}
