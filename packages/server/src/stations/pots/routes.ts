import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listRuns } from './queries.ts';
import { cancelRun, finishRun, planRun } from './service.ts';

/** Planned batches move in the order while one reads, so this list is paged by position. */
const offsetOf = (cursor: string | undefined): number => {
  if (cursor === undefined) return 0;
  if (!/^\d{1,7}$/.test(cursor))
    throw new Problem('invalid', undefined, [{ path: 'cursor', message: 'not a place in this list' }]);
  return Number(cursor);
};

export function potsRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(router, api.pots.list, async (who, { query }) => {
    const offset = offsetOf(query.cursor);
    const found = await listRuns(kitchen.db, who.houseId, query.limit, offset);
    return {
      runs: found.slice(0, query.limit),
      next: found.length > query.limit ? String(offset + query.limit) : null,
    };
  });
  mountCommand(kitchen, router, api.pots.plan, ['runs', 'lots'], (command, asked) => planRun(kitchen, command, asked));
  mountCommand(kitchen, router, api.pots.finish, ['runs', 'lots'], (command, asked) =>
    finishRun(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.cancel, ['runs', 'lots'], (command, { params }) =>
    cancelRun(kitchen, command, params.runId),
  );
}
