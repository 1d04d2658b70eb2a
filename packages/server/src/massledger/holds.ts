/** Holds follow the flesh: what is made of a lot that is held back is held back, whichever came first. */
import type { Sequelize } from 'sequelize';
import { select } from '../db/select.ts';
import type { InCommand } from '../services.ts';
import { DOWN } from './family.ts';

/** Longest reason the database keeps. */
const MOST = 300;

// by whole characters, as the database counts them: half of one can be written nowhere
const reasonOf = (code: string, held: string): string => [...`From ${code}: ${held}`].slice(0, MOST).join('');

/** Holds lots back for another's sake, or lets them go, and writes that into what is known of each. */
async function setHeld(
  db: Sequelize,
  { actor, at, newId, transaction }: InCommand,
  lots: readonly {
    readonly id: string;
    readonly before: string | null;
    readonly held: string | null;
    readonly from: string | null;
  }[],
): Promise<void> {
  if (lots.length === 0) return;
  const rows = JSON.stringify(lots.map((l) => ({ ...l, event: newId() })));
  await db.query(
    `update lot set held = n.held, held_from = n."from" from jsonb_to_recordset($2::jsonb) as n(id uuid, held text, "from" uuid)
     where lot.id = n.id and lot.house_id = $1`,
    { bind: [actor.houseId, rows], transaction },
  );
  await db.query(
    `insert into lot_event (id, house_id, lot_id, kind, before, after, note, undoes, person_id, at)
     select n.event, $1, n.id, 'hold', jsonb_build_object('held', n.before), jsonb_build_object('held', n.held), n.held, null, $3, $4
     from jsonb_to_recordset($2::jsonb) as n(id uuid, event uuid, before text, held text)`,
    { bind: [actor.houseId, rows, actor.personId, at], transaction },
  );
}

/** What a movement made of lots that are held back is held back as they are. Called with every movement. */
export async function inheritHolds(db: Sequelize, command: InCommand, movementId: string): Promise<void> {
  const rows = await select<{ id: string; code: string; held: string; parent: string; from: string | null }>(
    db,
    `select distinct on (c.id) c.id, p.code, p.held, p.id as parent, p.held_from as "from"
     from lot_genealogy k join lot p on p.id = k.parent_id and p.held is not null
     join lot c on c.id = k.child_id and c.held is null
     where k.movement_id = $1 and k.house_id = $2 order by c.id, p.serial`,
    [movementId, command.actor.houseId],
    command.transaction,
  );
  await setHeld(
    db,
    command,
    rows.map((r) => ({
      id: r.id,
      before: null,
      held: r.from === null ? reasonOf(r.code, r.held) : r.held,
      from: r.from ?? r.parent,
    })),
  );
}

interface Root {
  readonly id: string;
  readonly code: string;
}

/**
 * Holds back what was made of a lot and is still there. Answers how many lots that were. What is being made of one of them just now is
 * waited for: it is made, and held, before this looks again.
 */
export async function holdDescendants(db: Sequelize, command: InCommand, lot: Root, reason: string): Promise<number> {
  await db.query(
    `${DOWN} select 1 from lot_balance where lot_id in (select lot_id from down) and lot_id <> $1 order by lot_id for update`,
    { bind: [lot.id, command.actor.houseId], transaction: command.transaction },
  );
  const rows = await select<{ id: string }>(
    db,
    `${DOWN}
     select l.id from down d join lot l on l.id = d.lot_id join lot_balance b on b.lot_id = l.id and b.mass_mg > 0
     where l.held is null and l.id <> $1 order by l.serial`,
    [lot.id, command.actor.houseId],
    command.transaction,
  );
  const held = reasonOf(lot.code, reason);
  await setHeld(
    db,
    command,
    rows.map(({ id }) => ({ id, before: null, held, from: lot.id })),
  );
  return rows.length;
}

/**
 * Lets go what was held back for this lot's sake, unless another lot it was made of is held back still: then it stays, for that one's.
 * Answers how many were let go.
 */
export async function letDescendantsGo(db: Sequelize, command: InCommand, lot: Root): Promise<number> {
  const rows = await select<{
    id: string;
    held: string;
    otherId: string | null;
    code: string | null;
    other: string | null;
  }>(
    db,
    `select l.id, l.held, o.id as "otherId", o.code, o.held as other from lot l
     left join lateral (
       with recursive up(lot_id) as (
         select parent_id from lot_genealogy where child_id = l.id
         union select k.parent_id from up u join lot_genealogy k on k.child_id = u.lot_id)
       select p.id, p.code, p.held from up join lot p on p.id = up.lot_id
       where p.held is not null and p.held_from is null and p.id <> $1 order by p.serial limit 1) o on true
     where l.held_from = $1 and l.house_id = $2`,
    [lot.id, command.actor.houseId],
    command.transaction,
  );
  await setHeld(
    db,
    command,
    rows.map((r) => ({
      id: r.id,
      before: r.held,
      held: r.other === null || r.code === null ? null : reasonOf(r.code, r.other),
      from: r.otherId,
    })),
  );
  return rows.filter((r) => r.otherId === null).length;
}
