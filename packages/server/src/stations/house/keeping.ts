import type { Answer, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';

interface Row {
  readonly name: string;
  readonly kind: 'dump' | 'base';
  readonly at: Date;
  readonly bytes: number;
  readonly second: 'kept' | 'failed' | null;
  readonly secondWhy: string | null;
  readonly triedAt: Date | null;
  readonly triedWhy: string | null;
}

/** The last backups of this machine, and what came of bringing them back. */
export async function readKeeping(db: Sequelize): Promise<Answer<typeof api.house.keeping>> {
  const backups = await select<Row>(
    db,
    `select name, kind, at, bytes, second, second_why as "secondWhy", tried_at as "triedAt", tried_why as "triedWhy"
     from backup order by at desc limit 20`,
    [],
  );
  const rehearsed = await selectOne<{ at: Date | null }>(
    db,
    'select max(tried_at) as at from backup where tried_why is null',
    [],
  );
  const restored = await select<{ at: Date; stateAt: Date }>(
    db,
    'select at, state_at as "stateAt" from restored order by at desc limit 5',
    [],
  );
  return {
    backups: backups.map((b) => ({ ...b, at: b.at.toISOString(), triedAt: b.triedAt?.toISOString() ?? null })),
    rehearsedAt: rehearsed?.at?.toISOString() ?? null,
    restored: restored.map((r) => ({ at: r.at.toISOString(), stateAt: r.stateAt.toISOString() })),
  };
}
