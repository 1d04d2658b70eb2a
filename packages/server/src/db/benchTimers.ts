/** Timers of what lies on the bench: a soak, a drain, a rest. */
import type { BenchEventBody } from '@zabrik/contract';
import { runningTimers } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { speciesName } from './breakdownHead.ts';
import { select } from './select.ts';

interface Said {
  readonly breakdownId: string;
  readonly title: string;
  readonly id: string;
  readonly body: BenchEventBody;
}

/** Of every breakdown that is open; one of a step runs until the step is marked done. */
export async function listBenchTimers(db: Sequelize, houseId: string) {
  const rows = await select<Said & { readonly species: string; readonly ownName: string | null }>(
    db,
    `select b.id as "breakdownId", b.species, hs.species ->> 'name' as "ownName", e.id, e.body
     from breakdown b join bench_event e on e.house_id = b.house_id and e.breakdown_id = b.id
       left join house_species hs on hs.house_id = b.house_id and hs.id = b.species
     where b.house_id = $1 and b.state = 'open' and e.body ->> 'kind' in ('timer', 'timer-off', 'step') order by e.seq`,
    [houseId],
  );
  const by = new Map<string, typeof rows>();
  for (const row of rows) by.set(row.breakdownId, [...(by.get(row.breakdownId) ?? []), row]);
  return [...by].flatMap(([breakdownId, said]) => {
    const done = new Set<number>();
    for (const { body } of said)
      if (body.kind === 'step') {
        if (body.mark === 'open') done.delete(body.step);
        else done.add(body.step);
      }
    const [first] = said;
    return runningTimers(
      said.map(({ id, body }) => ({ id, at: body.at, body })),
      done,
    ).map((t) => ({
      ...t,
      batchId: null,
      breakdownId,
      title: first?.ownName ?? speciesName(first?.species ?? ''),
    }));
  });
}
