import type { WeighBody, Weighing } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { UniqueConstraintError } from 'sequelize';
import { selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { Kitchen, Who } from '../../kitchen.ts';

interface Written {
  readonly state: string | null;
  readonly written: boolean;
  readonly refusal: string | null;
  readonly known: boolean;
}

/**
 * One statement, one round trip, one commit: the weighing that must never be lost. It locks the breakdown against a closing that
 * runs beside it, checks the piece and the tray against the plan it was started with, and writes. The weighing's id is the client's
 * key, so a repeat writes nothing and finds the first.
 */
const WEIGH = `
with b as (
  select b.id, b.house_id, b.state,
         (select p from jsonb_path_query_first(b.plan, '$.stages[*] ? (@.id == $$stage).pieces[*] ? (@.id == $$piece)',
            jsonb_build_object('stage', b.stage_id, 'piece', $4::text)) p) as piece
  from breakdown b where b.id = $2 and b.house_id = $3 for share
), judged as (
  select b.*, (select r->>'reason' from jsonb_array_elements(coalesce(b.piece->'refused', '[]')) r where r->>'destination' = $5::text limit 1) as refusal
  from b
), w as (
  insert into weighing (id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at)
  select $1::uuid, j.house_id, j.id, $4::text, $5::text, $6::bigint, $7::text, $8::uuid, $9::uuid, $10::timestamptz
  from judged j
  where j.state = 'open' and ($4::text is null or j.piece is not null) and j.refusal is null
    and ($8::uuid is null or exists (select 1 from weighing o where o.id = $8::uuid and o.breakdown_id = j.id and o.mass_mg is not null))
  on conflict (id) do nothing
  returning 1
)
select j.state, exists (select 1 from w) as written, j.refusal, ($4::text is null or j.piece is not null) as known from judged j`;

interface Stored extends Omit<Weighing, 'at'> {
  readonly at: Date;
  readonly breakdownId: string;
  readonly houseId: string;
}

const stored = (db: Sequelize, id: string): Promise<Stored | undefined> =>
  selectOne<Stored>(
    db,
    `select w.id, w.piece_id as "pieceId", w.destination, w.mass_mg as "massMg", w.source, w.replaces, p.name as by, w.at,
            w.breakdown_id as "breakdownId", w.house_id as "houseId"
     from weighing w join person p on p.id = w.person_id where w.id = $1`,
    [id],
  );

/** Why nothing was written: the first answer again when the key was used for exactly this, a refusal otherwise. */
async function whyNot(
  db: Sequelize,
  who: Who,
  wanted: Weighing,
  breakdownId: string,
  result: Written | undefined,
): Promise<Weighing> {
  const first = await stored(db, wanted.id);
  if (first !== undefined) {
    const same =
      first.houseId === who.houseId &&
      first.breakdownId === breakdownId &&
      first.pieceId === wanted.pieceId &&
      first.destination === wanted.destination &&
      first.massMg === wanted.massMg &&
      first.replaces === wanted.replaces;
    if (!same) throw new Problem('key_reused');
    const { breakdownId: _b, houseId: _h, ...weighing } = first;
    return { ...weighing, at: first.at.toISOString() };
  }
  if (result === undefined) throw new Problem('not_found', 'There is no such breakdown in this house.');
  if (result.state !== 'open') throw new Problem('stage_closed');
  if (!result.known)
    throw new Problem('invalid', 'This plan has no such piece.', [{ path: 'pieceId', message: 'not in this plan' }]);
  if (result.refusal !== null) throw new Problem('tray_refused', `${result.refusal}.`);
  throw new Problem('invalid', 'There is no such weight to put right.', [
    { path: 'replaces', message: 'not a weight of this breakdown' },
  ]);
}

export async function weigh(
  kitchen: Kitchen,
  who: Who,
  id: string,
  breakdownId: string,
  body: WeighBody,
): Promise<Weighing> {
  const { db } = kitchen;
  const take = body.kind === 'take' ? body : undefined;
  const wanted: Weighing = {
    id,
    pieceId: take?.pieceId ?? null,
    destination: take?.destination ?? (null as Destination | null),
    massMg: take?.massMg ?? null,
    source: take?.source ?? null,
    replaces: body.replaces,
    by: who.name,
    at: new Date(body.at).toISOString(),
  };
  let result: Written | undefined;
  try {
    result = await selectOne<Written>(db, WEIGH, [
      id,
      breakdownId,
      who.houseId,
      wanted.pieceId,
      wanted.destination,
      wanted.massMg,
      wanted.source,
      wanted.replaces,
      who.personId,
      wanted.at,
    ]);
  } catch (error) {
    // unique (replaces): someone else put the same weight right a moment ago
    if (error instanceof UniqueConstraintError) {
      const first = await stored(db, id);
      if (first === undefined) throw new Problem('already_replaced');
    } else throw error;
  }
  if (result?.written !== true) return whyNot(db, who, wanted, breakdownId, result);
  kitchen.announce(who.houseId, ['breakdowns'], [breakdownId]);
  return wanted;
}
