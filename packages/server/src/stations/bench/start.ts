import { planById, speciesById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { type CutPlan, formatMass, stageShares } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { BreakdownRow } from '../../db/models.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { costOfPart, lockLots } from '../../massledger/lockLots.ts';
import { readBreakdown } from './queries.ts';

/** Up to this many animals their pieces can be weighed one by one; beyond, by kind. */
const MOST_ONE_BY_ONE = 12;

/** Names for the pieces of several animals: "first leg" of each, one after another. */
const unitsFor = (units: readonly string[], animals: number): string[] =>
  animals === 1 || animals > MOST_ONE_BY_ONE
    ? [...units]
    : Array.from({ length: animals }, (_, i) => units.map((unit) => `${unit}, no. ${i + 1}`)).flat();

/** The plan as it will be worked: pieces this form arrives without are gone, shares are those of this species and form. */
function planFor(plan: CutPlan, speciesId: string, form: string, animals: number): CutPlan {
  const species = speciesById.get(speciesId);
  if (species === undefined || !plan.species.includes(speciesId) || !plan.startForms.includes(form))
    throw new Problem('plan_does_not_fit');
  return {
    ...plan,
    stages: plan.stages.map((stage) => {
      const shares = stageShares(plan, stage, species, form);
      const shareOf = new Map(shares.pieces.map((s) => [s.pieceId, s]));
      return {
        ...stage,
        steps: stage.steps.filter((step) => step.pieces.length === 0 || step.pieces.some((id) => shareOf.has(id))),
        pieces: stage.pieces.flatMap((piece) => {
          const own = shareOf.get(piece.id);
          return own === undefined
            ? []
            : [
                {
                  ...piece,
                  units: unitsFor(piece.units, animals),
                  share: { ...piece.share, mean: own.mean, sd: own.sd },
                },
              ];
        }),
        drip: { ...stage.drip, ...shares.drip },
      };
    }),
  };
}

/** Puts a lot, or part of it, on the bench. Nothing moves in the ledger until the stage closes; the mass is spoken for. */
export async function startBreakdown(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.bench.start>,
): Promise<Answer<typeof api.bench.start>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  const [lot] = await lockLots(db, transaction, who.houseId, [body.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  const plan = planById.get(body.planId);
  if (plan === undefined) throw new Problem('invalid', undefined, [{ path: 'planId', message: 'no such cut plan' }]);
  if (lot.species === null || lot.form === null) throw new Problem('plan_does_not_fit');
  if (lot.massMg === 0) throw new Problem('lot_gone');
  const snapshot = planFor(plan, lot.species, lot.form, body.animals);
  const stage = snapshot.stages[0];
  if (stage === undefined) throw new Error(`plan ${plan.id} has no stage`);
  const startMg = body.massMg ?? lot.freeMg;
  if (startMg > lot.freeMg || startMg <= 0)
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} has ${formatMass(Math.max(0, lot.freeMg))} left that is not on a bench already.`,
    );
  const id = uuidv7();
  await BreakdownRow.create(
    {
      id,
      houseId: who.houseId,
      lotId: lot.id,
      plan: snapshot,
      refusals: Object.fromEntries(
        stage.pieces.map((piece) => [
          piece.id,
          Object.fromEntries(piece.refused.map((r) => [r.destination, r.reason])),
        ]),
      ),
      planId: plan.id,
      stageId: stage.id,
      species: lot.species,
      form: lot.form,
      animals: body.animals,
      startMg,
      startMinor: costOfPart(lot, startMg),
      state: 'open',
      supplierId: lot.supplierId,
      personId: who.personId,
      startedAt: at,
    },
    { transaction },
  );
  return readBreakdown(db, who.houseId, id, transaction);
}
