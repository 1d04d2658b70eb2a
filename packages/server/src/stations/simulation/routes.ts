import { api } from '@zabrik/contract';
import { PRACTICE_SCALE } from '@zabrik/core';
import { drawAnimal, seededRandom, splitIntoUnits } from '@zabrik/core/simulator';
import type { Router } from 'express';
import { readHead, stageAsCut } from '../../db/breakdownHead.ts';
import { stickProbe } from '../../devices/askDevice.ts';
import { mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Services } from '../../services.ts';

/** In how many goes a piece that comes together bit by bit comes to the pan. */
const BITS = 6;

/** The hand that loads the simulated scale, or a house's own to practise on. Each breakdown hides one animal, drawn from its id: the same piece always weighs the same. */
export function simulationRoutes(services: Services, router: Router): void {
  mountRead(services, router, api.simulation.pan, async (actor, { body }) => {
    if (!services.config.simulated && body.scale !== PRACTICE_SCALE) throw new Problem('not_found');
    const scale = services.devicesOf(actor.houseId).scales.get(body.scale);
    if (scale === undefined) throw new Problem('scale_away');
    let massMg: number;
    if (body.what === 'load') massMg = body.massMg;
    else if (body.what === 'cut') {
      // the knife and the piece are a little off, always the same way for the same cut; to the gram, as the scale shows it
      const off = seededRandom(`${body.cuttingId}/${body.seat}`).normal() * body.spread;
      massMg = Math.max(1_000, Math.round((body.predictedMg * (1 + off)) / 1_000) * 1_000);
    } else {
      const row = await readHead(services.db, actor.houseId, body.breakdownId);
      const stage = stageAsCut(row);
      const piece = stage.pieces.find((p) => p.id === body.pieceId);
      if (piece === undefined)
        throw new Problem('invalid', undefined, [{ path: 'pieceId', message: 'not in this plan' }]);
      const random = seededRandom(row.id);
      const animal = drawAnimal(
        {
          startMg: row.startMg,
          shares: stage.pieces.map((p) => ({ pieceId: p.id, mean: p.share.mean, sd: p.share.sd })),
          drip: stage.drip,
          mainPieces: stage.pieces.filter((p) => p.main).map((p) => p.id),
          framePiece: stage.pieces.find((p) => p.id === 'frame' || p.id === 'carcass')?.id,
          leftOnFrame: 0.01,
          condition: 1,
        },
        random,
      );
      const whole = animal.pieces.find((p) => p.pieceId === piece.id)?.massMg ?? 0;
      const parts = piece.accumulates === true ? BITS : piece.count * row.animals;
      massMg = splitIntoUnits(whole, parts, seededRandom(`${row.id}/${piece.id}`))
        .slice(body.unit, body.unit + body.count)
        .reduce((sum, mass) => sum + mass, 0);
    }
    await scale.command(`load ${massMg}`);
    return { massMg };
  });

  mountRead(services, router, api.simulation.probe, async (actor, { body }) => {
    if (!services.config.simulated) throw new Problem('not_found');
    await stickProbe(services.devicesOf(actor.houseId).probe, body.centiC);
    return { centiC: body.centiC };
  });
}
