import { createHash } from 'node:crypto';
import { api } from '@zabrik/contract';
import type { Request, Router } from 'express';
import { deviceRow } from '../../access/signIn.ts';
import { DeviceTable } from '../../db/models/device.ts';
import { PersonTable } from '../../db/models/person.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Services } from '../../services.ts';

/** Tablets of the house: lent to a bench by a name and its people, and forgotten when they are lost. */
export function tabletRoutes(
  services: Services,
  router: Router,
  deviceOf: (request: Request) => string | undefined,
): void {
  const { db } = services;
  mountRead(services, router, api.access.tablets, async (actor, { request }) => {
    const rows = await rowsOf(db, DeviceTable, actor).all({}, { order: ['-since'], limit: 200 });
    const mine = (await deviceRow(db, actor.houseId, deviceOf(request)))?.id;
    const shown = rows.map(({ id, name, people, since, seenAt }) => ({
      id,
      name,
      people: [...people],
      since: since.toISOString(),
      seenAt: seenAt?.toISOString() ?? null,
      here: id === mine,
    }));
    return { tablets: [...shown.filter((t) => t.name !== null), ...shown.filter((t) => t.name === null)] };
  });

  mountRead(
    services,
    router,
    api.access.lendTablet,
    async (actor, { params: { tabletId }, body: { name, people } }) => {
      const known = await rowsOf(db, PersonTable, actor).count({ id: people, leftAt: null });
      if (known < new Set(people).size)
        throw new Problem('invalid', 'Somebody of them is not of this house any more.', [
          { path: 'people', message: 'not of this house' },
        ]);
      const devices = rowsOf(db, DeviceTable, actor);
      if ((await devices.change({ id: tabletId }, { name, people: [...new Set(people)] })) === 0)
        throw new Problem('not_found');
      return { done: true } as const;
    },
  );

  mountRead(services, router, api.access.forgetTablet, async (actor, { params: { tabletId } }) => {
    const devices = rowsOf(db, DeviceTable, actor);
    if ((await devices.remove({ id: tabletId })) === 0) throw new Problem('not_found');
    const open = await select<{ sid: string; tablet: string }>(
      db,
      `select sid, sess->>'tablet' as tablet from session where sess->'who'->>'houseId' = $1 and sess->>'tablet' is not null`,
      [actor.houseId],
    );
    const on = open.filter((s) => createHash('sha256').update(s.tablet).digest('hex') === tabletId).map((s) => s.sid);
    await db.query('delete from session where sid = any($1)', { bind: [on] });
    return { done: true } as const;
  });
}
