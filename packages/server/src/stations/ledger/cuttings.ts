/** Cuttings to weight and batches in the ledger: what each came to, and the ruler as a stage of a purchase. */
import type { Answer, api, ClosedCutting } from '@zabrik/contract';
import { type CutInput, type CuttingKind, type DoneCutting, givenAway, readCutting } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { readCuttingEvents } from '../../db/cuttingEvents.ts';
import { readOwnParts } from '../../db/ownParts.ts';
import { select } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';

interface CuttingRow {
  readonly id: string;
  readonly kind: CuttingKind;
  readonly by: string;
  readonly closedAt: Date;
  readonly costMinor: number;
}
interface LineRow {
  readonly cuttingId: string;
  readonly lotId: string | null;
  readonly code: string | null;
  readonly name: string | null;
  readonly breakdownId: string | null;
  readonly sink: 'waste' | 'loss' | null;
  readonly line: string | null;
  readonly destination: string | null;
  readonly massMg: number;
  /** The cutting that made the lot, where one did. */
  readonly madeIn: string | null;
}

const CUTTINGS = `select c.id, c.kind, p.name as by, c.closed_at as "closedAt", c.start_minor as "costMinor"
  from cutting c join person p on p.id = c.person_id where c.house_id = $1 and c.state = 'closed'`;

const readLines = (db: Sequelize, ids: readonly string[]): Promise<LineRow[]> =>
  select<LineRow>(
    db,
    `select c.id as "cuttingId", o.lot_id as "lotId", l.code, l.name, l.breakdown_id as "breakdownId", o.sink, l.piece_id as line, l.destination,
            o.mass_mg as "massMg",
            (select m.id from posting q join cutting m on m.movement_id = q.movement_id
             where q.lot_id = o.lot_id and q.mass_mg > 0 and m.id <> c.id limit 1) as "madeIn"
     from cutting c join posting o on o.movement_id = c.movement_id left join lot l on l.id = o.lot_id
     where c.id = any($1::uuid[]) and o.mass_mg <> 0 order by o.id`,
    [[...ids]],
  );

const sum = (lines: readonly LineRow[]): number => lines.reduce((total, l) => total + l.massMg, 0);

async function closedOf(
  db: Sequelize,
  rows: readonly CuttingRow[],
  lines: readonly LineRow[],
): Promise<ClosedCutting[]> {
  const events = await readCuttingEvents(
    db,
    rows.map((r) => r.id),
  );
  return rows.map(({ closedAt, ...row }) => {
    const own = lines.filter((l) => l.cuttingId === row.id);
    const taken = own.filter((l) => l.lotId !== null && l.massMg < 0);
    const made = own.filter((l) => l.lotId !== null && l.massMg > 0);
    const { weights, setup } = readCutting(events.get(row.id) ?? []);
    return {
      ...row,
      closedAt: closedAt.toISOString(),
      name: [...new Set(taken.map((l) => l.name ?? ''))].join(' and '),
      lotCodes: taken.flatMap((l) => l.code ?? []),
      usedMg: -sum(taken),
      madeMg: sum(made.filter((l) => l.line !== 'end')),
      endMg: sum(made.filter((l) => l.line === 'end')),
      wasteMg: sum(own.filter((l) => l.sink === 'waste')),
      portions: weights.filter((w) => w.line !== 'end' && w.destination === 'portion').reduce((n, w) => n + w.count, 0),
      giveAwayMg: setup?.kind === 'portions' ? givenAway(weights, setup.sizes) : 0,
    };
  });
}

/** Cuttings that are done, newest first: one row more than asked for. */
export async function listCuttings(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: Place | undefined,
): Promise<ClosedCutting[]> {
  const rows = await select<CuttingRow>(
    db,
    `${CUTTINGS} and ($2::timestamptz is null or (c.closed_at, c.id) < ($2::timestamptz, $3::uuid)) order by c.closed_at desc, c.id desc limit $4`,
    [houseId, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  const lines = await readLines(
    db,
    rows.map((r) => r.id),
  );
  return closedOf(db, rows, lines);
}

/** Batches that are done, newest first: one row more than asked for. */
export async function listBatches(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: Place | undefined,
): Promise<Answer<typeof api.ledger.batches>['batches']> {
  const rows = await select<
    Omit<Answer<typeof api.ledger.batches>['batches'][number], 'doneAt'> & { readonly doneAt: Date }
  >(
    db,
    `select r.id as "batchId", rv.recipe ->> 'title' as title, rv.recipe #>> '{output,measure}' as measure, p.name as by, r.done_at as "doneAt",
            r.base_mg as "baseMg", r.output_mg as "outputMg", r.expected as "expectedMg", l.id as "lotId", l.code as "lotCode",
            (select sum(o.cost_minor)::bigint from posting o where o.movement_id = r.movement_id and o.lot_id = l.id) as "costMinor"
     from batch r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version join person p on p.id = r.person_id left join lot l on l.id = r.output_lot_id
     where r.house_id = $1 and r.state = 'done' and ($2::timestamptz is null or (r.done_at, r.id) < ($2::timestamptz, $3::uuid))
     order by r.done_at desc, r.id desc limit $4`,
    [houseId, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  return rows.map((row) => ({ ...row, doneAt: row.doneAt.toISOString() }));
}

export interface ChainCuttings {
  /** As the core takes them, makers first. */
  readonly done: readonly DoneCutting[];
  readonly closed: readonly ClosedCutting[];
  /** How much of each lot went under the knife, by lot. */
  readonly cutMg: ReadonlyMap<string, number>;
}

/** What of these stages' lots was cut to weight, by the cuttings that are done. */
export async function cuttingsOf(
  db: Sequelize,
  houseId: string,
  stages: ReadonlyMap<string, { readonly startMg: number; readonly startShare: number }>,
): Promise<ChainCuttings> {
  const rows = await select<CuttingRow>(
    db,
    `${CUTTINGS} and exists (select 1 from posting o join lot l on l.id = o.lot_id
       where o.movement_id = c.movement_id and o.mass_mg < 0 and l.breakdown_id = any($2::uuid[])) order by c.closed_at, c.id`,
    [houseId, [...stages.keys()]],
  );
  const lines = await readLines(
    db,
    rows.map((r) => r.id),
  );
  const cutMg = new Map<string, number>();
  for (const l of lines) if (l.lotId !== null && l.massMg < 0) cutMg.set(l.lotId, (cutMg.get(l.lotId) ?? 0) - l.massMg);
  const ownPart = await readOwnParts(db, [...cutMg.keys()]);
  const done = rows.map((row): DoneCutting => {
    const own = lines.filter((l) => l.cuttingId === row.id);
    const taken = own.filter((l) => l.lotId !== null && l.massMg < 0);
    return {
      id: row.id,
      usedMg: -sum(taken),
      inputs: taken.flatMap((l): CutInput[] => {
        const stage = l.madeIn === null ? stages.get(l.breakdownId ?? '') : { cuttingId: l.madeIn };
        return stage === undefined
          ? []
          : [{ usedMg: -l.massMg * (l.madeIn === null ? (ownPart.get(l.lotId ?? '') ?? 1) : 1), stage }];
      }),
      made: own
        .filter((l) => l.massMg > 0 && l.sink !== 'loss')
        .map((l) => ({
          massMg: l.massMg,
          portion: l.destination === 'portion' && l.line !== 'end',
          wasted: l.sink === 'waste',
          wentOnMg: l.lotId === null ? 0 : (cutMg.get(l.lotId) ?? 0),
        })),
    };
  });
  return { done, closed: await closedOf(db, rows, lines), cutMg };
}
