import { type TracedMovement, type TubKind, tubContents } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select } from './select.ts';

interface PostingRow {
  readonly movementId: string;
  readonly kind: string;
  readonly at: Date;
  readonly lotId: string | null;
  readonly lotKind: string | null;
  readonly sink: string | null;
  readonly category: string | null;
  readonly massMg: number;
}

/**
 * What a tub holds by kind: the larder says when there is enough of it, a pot holds each kind to its share. `until`: as it was before
 * that movement, for a tub that was parted from it.
 */
export async function readTubContents(
  db: Sequelize,
  tubId: string,
  transaction?: Transaction,
  until?: string,
): Promise<readonly TubKind[]> {
  const rows = await select<PostingRow>(
    db,
    `select m.id as "movementId", m.kind, m.at, p.lot_id as "lotId", l.kind as "lotKind", p.sink, l.category, p.mass_mg as "massMg"
     from posting t join movement m on m.id = t.movement_id and m.kind <> 'reverse' and not exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id)
     join posting p on p.movement_id = m.id left join lot l on l.id = p.lot_id
     where t.lot_id = $1 order by m.at, m.id, p.id`,
    [tubId],
    transaction,
  );
  const categories = new Map<string, string>();
  const movements = new Map<string, TracedMovement>();
  for (const { movementId, kind, at, lotId, lotKind, sink, category, massMg } of rows) {
    if (movementId === until) break;
    let lines = [{ lotId, sink, reason: null, massMg }];
    if (lotId !== null && lotId !== tubId && lotKind === 'tub' && massMg < 0) {
      // parted from another tub: a share of all that was in that one
      const held = await readTubContents(db, lotId, transaction, movementId);
      const all = held.reduce((sum, k) => sum + k.massMg, 0);
      lines = held.map((k) => {
        const id = `${lotId}/${k.kind}`;
        categories.set(id, k.kind);
        return { lotId: id, sink, reason: null, massMg: (massMg * k.massMg) / all };
      });
    } else if (lotId !== null) categories.set(lotId, category ?? '');
    const before = movements.get(movementId);
    movements.set(movementId, {
      id: movementId,
      kind,
      at: at.toISOString(),
      postings: [...(before?.postings ?? []), ...lines],
    });
  }
  return tubContents(tubId, [...movements.values()], (lotId) => categories.get(lotId) ?? '');
}
