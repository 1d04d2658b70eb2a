import { templateById } from '@zabrik/catalogue/portioning';
import { api, type Cutting } from '@zabrik/contract';
import { heldOutError, learnShape } from '@zabrik/core';
import type { Router } from 'express';
import { mountCommand, mountRead } from '../../../http/mount.ts';
import { Problem } from '../../../http/problem.ts';
import type { Services } from '../../../services.ts';
import { listOpenCuttings, listResting, readCutRecords, readLastSetup, readOneCutting } from './queries.ts';
import { cancelCutting, closeCutting, recordCut, startCutting } from './service.ts';

type Setup = Extract<Cutting['events'][number]['body'], { kind: 'setup' }>['setup'];

export function cuttingRoutes(services: Services, router: Router): void {
  const { db } = services;
  mountRead(services, router, api.cutting.list, async (actor) => {
    const [open, resting] = await Promise.all([listOpenCuttings(db, actor.houseId), listResting(db, actor.houseId)]);
    return { open, resting };
  });
  mountRead(services, router, api.cutting.read, (actor, { params }) =>
    readOneCutting(db, actor.houseId, params.cuttingId),
  );
  mountRead(services, router, api.cutting.learnt, async (actor, { query }) => {
    const template = templateById.get(query.templateId);
    if (template === undefined) throw new Problem('not_found', 'There is no such form of a piece.');
    const records = await readCutRecords(db, actor.houseId, query.templateId, query.category, query.species);
    const shape = learnShape(template, records);
    return {
      shape: records.length === 0 ? null : { ...shape, nodes: [...shape.nodes] },
      error: heldOutError(template, records),
      last: (await readLastSetup(db, actor.houseId, query.category)) as Setup | null,
    };
  });
  mountCommand(services, router, api.cutting.start, ['cuttings', 'lots'], (command, asked) =>
    startCutting(services, command, asked),
  );
  mountCommand(services, router, api.cutting.event, ['cuttings'], (command, asked) =>
    recordCut(services, command, asked),
  );
  mountCommand(services, router, api.cutting.close, ['cuttings', 'lots'], (command, asked) =>
    closeCutting(services, command, asked),
  );
  mountCommand(services, router, api.cutting.cancel, ['cuttings', 'lots'], (command, { params }) =>
    cancelCutting(services, command, params.cuttingId),
  );
}
