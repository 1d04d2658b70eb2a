import type { Cutting, CuttingHead } from '@zabrik/contract';
import type { CutRecord, CuttingEvent, CuttingKind, CuttingSetup } from '@zabrik/core';
import { readCutting } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { readCuttingEvents } from '../../../db/cuttingEvents.ts';
import { FREE } from '../../../db/freeOfLot.ts';
import { select, selectOne } from '../../../db/select.ts';
import { Problem } from '../../../http/problem.ts';

interface Row {
  readonly id: string;
  readonly kind: CuttingKind;
  readonly state: CuttingHead['state'];
  readonly startMinor: number;
  readonly movementId: string | null;
  readonly by: string;
  readonly startedAt: Date;
  readonly closedAt: Date | null;
}
interface InputRow {
  readonly cuttingId: string;
  readonly lotId: string;
  readonly code: string;
  readonly name: string;
  readonly species: string | null;
  readonly category: string | null;
  readonly allergens: readonly string[];
  readonly pieceId: string | null;
  readonly pieces: number;
  readonly massMg: number;
  readonly weights: readonly number[] | null;
}
const HEAD = `select c.id, c.kind, c.state, c.start_minor as "startMinor", c.movement_id as "movementId", p.name as by,
  c.started_at as "startedAt", c.closed_at as "closedAt" from cutting c join person p on p.id = c.person_id where c.house_id = $1`;

const readInputs = (db: Sequelize, ids: readonly string[], transaction?: Transaction): Promise<InputRow[]> =>
  select<InputRow>(
    db,
    `select i.cutting_id as "cuttingId", i.lot_id as "lotId", l.code, l.name, l.species, l.category, l.allergens, l.piece_id as "pieceId",
            (select jsonb_agg(w.mass_mg order by w.at) from weighing w
             where w.breakdown_id = l.breakdown_id and w.piece_id = l.piece_id and w.destination = l.destination and w.count = 1 and w.mass_mg is not null
               and not exists (select 1 from corrected c where c.house_id = w.house_id and c.id = w.id)) as weights,
            greatest(1, round(l.pieces * i.mass_mg::numeric / l.made_mg))::int as pieces, i.mass_mg as "massMg"
     from cutting_input i join lot l on l.id = i.lot_id where i.cutting_id = any($1::uuid[]) order by i.cutting_id, i.position`,
    [[...ids]],
    transaction,
  );

function headOf(row: Row, inputs: readonly InputRow[], events: readonly CuttingEvent[]): CuttingHead {
  const [first] = inputs;
  return {
    id: row.id,
    kind: row.kind,
    state: row.state,
    name: [...new Set(inputs.map((i) => i.name))].join(' and '),
    species: inputs.every((i) => i.species === first?.species) ? (first?.species ?? null) : null,
    category: first?.category ?? null,
    pieceId: inputs.every((i) => i.pieceId === first?.pieceId) ? (first?.pieceId ?? null) : null,
    pieces: inputs.reduce((sum, i) => sum + i.pieces, 0),
    startMg: inputs.reduce((sum, i) => sum + i.massMg, 0),
    weighedMg: readCutting(events).weighedMg,
    by: row.by,
    startedAt: row.startedAt.toISOString(),
    closedAt: row.closedAt?.toISOString() ?? null,
    inputs: inputs.map(({ lotId, code, name, massMg, allergens, pieces, weights }) => ({
      lotId,
      code,
      name,
      massMg,
      allergens: [...allergens],
      // as they came off: worth offering only while the lot is still those pieces, whole
      pieceMg: weights?.length === pieces && weights.reduce((a, b) => a + b, 0) === massMg ? [...weights] : [],
    })),
  };
}

const headsOf = async (db: Sequelize, rows: readonly Row[], transaction?: Transaction): Promise<CuttingHead[]> => {
  const ids = rows.map((r) => r.id);
  // one after the other: inside a command they share one connection
  const inputs = await readInputs(db, ids, transaction);
  const events = await readCuttingEvents(db, ids, transaction);
  return rows.map((row) =>
    headOf(
      row,
      inputs.filter((i) => i.cuttingId === row.id),
      events.get(row.id) ?? [],
    ),
  );
};

export const listOpenCuttings = async (db: Sequelize, houseId: string): Promise<CuttingHead[]> =>
  headsOf(db, await select<Row>(db, `${HEAD} and c.state = 'open' order by c.started_at, c.id limit 100`, [houseId]));

interface RestingRow {
  readonly cuttingId: string;
  readonly lotId: string;
  readonly code: string;
  readonly name: string;
  readonly species: string | null;
  readonly category: string | null;
  readonly allergens: readonly string[];
  readonly pieceId: string | null;
  readonly freeMg: number;
  readonly freePieces: number;
  readonly useBy: string | null;
  readonly madeAt: Date;
  readonly rest: { readonly minHours: number; readonly maxHours: number } | null;
}

/** Rolls that were made and are still whole, the first to be ready first. */
export async function listResting(db: Sequelize, houseId: string) {
  const rows = await select<RestingRow>(
    db,
    `select c.id as "cuttingId", l.id as "lotId", l.code, l.name, l.species, l.category, l.allergens, l.piece_id as "pieceId", ${FREE}, l.use_by as "useBy", l.made_at as "madeAt",
            (select e.body #> '{setup,rest}' from cutting_event e where e.cutting_id = c.id and e.body ->> 'kind' = 'setup' order by e.seq desc limit 1) as rest
     from cutting c join posting p on p.movement_id = c.movement_id and p.mass_mg > 0
     join lot l on l.id = p.lot_id and l.piece_id = 'roll' join lot_balance b on b.lot_id = l.id and b.mass_mg > b.reserved_mg
     where c.house_id = $1 and c.state = 'closed' and c.kind = 'roll'
       and not exists (select 1 from cutting_input i join cutting o on o.id = i.cutting_id and o.state = 'open' where i.lot_id = l.id)
     order by l.made_at limit 100`,
    [houseId],
  );
  const later = (at: Date, hours: number): string => new Date(at.getTime() + hours * 3_600_000).toISOString();
  return rows.map(({ rest, madeAt, allergens, ...row }) => ({
    ...row,
    allergens: [...allergens],
    madeAt: madeAt.toISOString(),
    readyAt: later(madeAt, rest?.minHours ?? 0),
    lateAt: later(madeAt, rest?.maxHours ?? 24),
  }));
}

/** The head of a cutting that is there. */
export async function readCuttingHead(
  db: Sequelize,
  houseId: string,
  cuttingId: string,
  transaction: Transaction,
): Promise<CuttingHead> {
  const rows = await select<Row>(db, `${HEAD} and c.id = $2`, [houseId, cuttingId], transaction);
  const [head] = await headsOf(db, rows, transaction);
  if (head === undefined) throw new Error(`cutting ${cuttingId} was written and is not there`);
  return head;
}

/** A cutting whole. Errors: `not_found`. */
export async function readOneCutting(
  db: Sequelize,
  houseId: string,
  cuttingId: string,
  transaction?: Transaction,
): Promise<Cutting> {
  const row = await selectOne<Row>(db, `${HEAD} and c.id = $2`, [houseId, cuttingId], transaction);
  if (row === undefined) throw new Problem('not_found', 'There is no such cutting in this house.');
  const inputs = await readInputs(db, [cuttingId], transaction);
  const events = await readCuttingEvents(db, [cuttingId], transaction);
  const lots = await select<Cutting['lots'][number]>(
    db,
    `select l.id as "lotId", l.code, l.name, b.pieces, b.mass_mg as "massMg", l.destination
     from posting p join lot l on l.id = p.lot_id join lot_balance b on b.lot_id = l.id
     where p.movement_id = $1 and p.mass_mg > 0 order by p.id`,
    [row.movementId],
    transaction,
  );
  const own = events.get(cuttingId) ?? [];
  return {
    ...headOf(row, inputs, own),
    startMinor: row.startMinor,
    movementId: row.movementId,
    // what the contract calls a setup is what core calls one; both are checked as they come in
    events: own as Cutting['events'],
    lots,
  };
}

/** Pieces cut and weighed between marks, the oldest first: what the house's own form is learnt from. */
export async function readCutRecords(
  db: Sequelize,
  houseId: string,
  templateId: string,
  category: string | undefined,
  species: string | undefined,
): Promise<CutRecord[]> {
  const rows = await select<{ id: string }>(
    db,
    `select c.id from cutting c
     where c.house_id = $1 and c.state = 'closed' and c.kind = 'portions'
       and exists (select 1 from cutting_event e where e.cutting_id = c.id and e.body #>> '{setup,templateId}' = $2)
       and exists (select 1 from cutting_input i join lot l on l.id = i.lot_id where i.cutting_id = c.id
                   and ($3::text is null or l.category = $3) and ($4::text is null or l.species = $4))
     order by c.closed_at desc limit 40`,
    [houseId, templateId, category ?? null, species ?? null],
  );
  const events = await readCuttingEvents(
    db,
    rows.map((r) => r.id),
  );
  return rows.reverse().flatMap(({ id }) => recordsOf(events.get(id) ?? [], templateId));
}

/** Measured pieces of a cutting with the portions taken between marks; those cut by eye teach nothing. */
function recordsOf(events: readonly CuttingEvent[], templateId: string): CutRecord[] {
  const { pieces, setup, weights } = readCutting(events);
  if (setup?.kind !== 'portions' || setup.templateId !== templateId || setup.angleDeg !== 0) return [];
  return [...pieces].flatMap(([no, measures]): CutRecord[] => {
    const portions = weights.flatMap((w) =>
      w.piece === no && w.count === 1 && w.fromMm !== null && w.toMm !== null && w.toMm > w.fromMm
        ? [{ fromMm: w.fromMm, toMm: w.toMm, massMg: w.massMg }]
        : [],
    );
    return portions.length === 0 ? [] : [{ measures, portions }];
  });
}

/** What was wanted the last time pieces of a category were cut so. */
export async function readLastSetup(
  db: Sequelize,
  houseId: string,
  category: string | undefined,
): Promise<CuttingSetup | null> {
  const row = await selectOne<{ setup: CuttingSetup }>(
    db,
    `select e.body -> 'setup' as setup from cutting_event e join cutting c on c.id = e.cutting_id and c.kind = 'portions' and c.state <> 'cancelled'
     where e.house_id = $1 and e.body ->> 'kind' = 'setup'
       and ($2::text is null or exists (select 1 from cutting_input i join lot l on l.id = i.lot_id where i.cutting_id = c.id and l.category = $2))
     order by e.seq desc limit 1`,
    [houseId, category ?? null],
  );
  return row?.setup ?? null;
}
