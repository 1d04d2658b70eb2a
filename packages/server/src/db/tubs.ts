import { type TracedMovement, type TubKind, tubContents } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select } from './select.ts';

interface PostingRow {
  readonly movementId: string;
  readonly kind: string;
  readonly at: Date;
  readonly lotId: string | null;
  readonly sink: string | null;
  readonly category: string | null;
  readonly massMg: number;
}

/** What a tub holds by kind: the larder says when there is enough of it, a pot holds each kind to its share. */
export async function readTubContents(
  db: Sequelize,
  tubId: string,
  transaction?: Transaction,
): Promise<readonly TubKind[]> {
  const rows = await select<PostingRow>(
    db,
    `select m.id as "movementId", m.kind, m.at, p.lot_id as "lotId", p.sink, l.category, p.mass_mg as "massMg"
     from posting t join movement m on m.id = t.movement_id and m.kind <> 'reverse' and not exists (select 1 from movement r where r.reverses = m.id)
     join posting p on p.movement_id = m.id left join lot l on l.id = p.lot_id
     where t.lot_id = $1 order by m.at, m.id, p.id`,
    [tubId],
    transaction,
  );
  const categories = new Map(rows.map((r) => [r.lotId, r.category]));
  const movements = new Map<string, TracedMovement>();
  for (const { movementId, kind, at, lotId, sink, massMg } of rows) {
    const before = movements.get(movementId);
    movements.set(movementId, {
      id: movementId,
      kind,
      at: at.toISOString(),
      postings: [...(before?.postings ?? []), { lotId, sink, reason: null, massMg }],
    });
  }
  return tubContents(tubId, [...movements.values()], (lotId) => categories.get(lotId) ?? '');
}
