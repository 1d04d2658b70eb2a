import type { YieldSheet } from '@zabrik/contract';
import {
  believeShare,
  type CostingSchool,
  costFactor,
  costingSchools,
  type MinorUnits,
  Refusal,
  shareCost,
  yieldShares,
} from '@zabrik/core';
import { headOf, readHead, readOwnShares, readWeighings, stageOf } from '../../db/breakdownHead.ts';
import { readHouse } from '../../db/house.ts';
import { Problem } from '../../http/problem.ts';
import type { Kitchen } from '../../kitchen.ts';
import { readClosing, readEarlier, readPieces, sheetPieces } from './queries.ts';

const Z80 = 1.2815515655446004;

const within = (share: number): number => Math.min(1, Math.max(0, share));

/** Costs under a school, or undefined where that school has no answer for these pieces. */
const costsUnder = (
  school: CostingSchool,
  paid: number,
  pieces: Parameters<typeof shareCost>[2],
): MinorUnits[] | undefined => {
  try {
    return shareCost(school, paid, pieces);
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
};

/** Everything there is to say about one closed breakdown: what it gave, against what was expected, and what it cost under each school. */
export async function yieldSheet(kitchen: Kitchen, houseId: string, breakdownId: string): Promise<YieldSheet> {
  const { db } = kitchen;
  const row = await readHead(db, houseId, breakdownId);
  const stage = stageOf(row.plan, row.stageId);
  const mainPieces = stage.pieces.filter((p) => p.main).map((p) => p.id);
  const [house, pieces, closing, weighings, own, earlier] = await Promise.all([
    readHouse(houseId),
    readPieces(db, [breakdownId]),
    readClosing(db, breakdownId),
    readWeighings(db, breakdownId),
    readOwnShares(db, houseId, {
      planId: row.planId,
      species: row.species,
      form: row.form,
      exceptId: row.id,
      before: row.closedAt ?? new Date(8.64e15),
    }),
    readEarlier(db, houseId, row, mainPieces),
  ]);
  if (closing === undefined || row.state !== 'closed')
    throw new Problem('not_found', 'This breakdown is not closed yet. It is still on the bench.');
  const made = sheetPieces(row, pieces);
  const credit = (category: string): number => house.settings.creditMinorPerKg[category] ?? 0;
  const planned = (id: string) => stage.pieces.find((p) => p.id === id);
  const costed = made.map((piece) => ({
    massMg: piece.massMg,
    wasted: piece.destination === 'waste',
    main: piece.main,
    creditMinorPerKg: credit(planned(piece.pieceId)?.category ?? ''),
  }));
  const costs = Object.fromEntries(
    costingSchools.map((school) => [school, costsUnder(school, row.startMinor, costed)]),
  ) as Record<CostingSchool, MinorUnits[] | undefined>;
  const mainMg = costed.filter((p) => p.main && !p.wasted).reduce((sum, p) => sum + p.massMg, 0);
  const factor = (school: CostingSchool): number | null => {
    const amounts = costs[school];
    if (amounts === undefined) return null;
    const mainCost = amounts.reduce<number>(
      (sum, amount, i) => sum + (costed[i]?.main === true && costed[i]?.wasted === false ? amount : 0),
      0,
    );
    return costFactor(row.startMinor, row.startMg, mainCost, mainMg) ?? null;
  };
  const shares = yieldShares(row.startMg, made);
  return {
    breakdown: headOf(row),
    movementId: row.movementId,
    reopenedFrom: closing.takenBack,
    rows: made.map((piece, i) => {
      const plan = planned(piece.pieceId);
      const records = own.get(piece.pieceId) ?? [];
      const mean = plan?.share.mean ?? 0;
      const sd = plan?.share.sd ?? 0;
      const belief = believeShare({ mean, sd }, records);
      return {
        pieceId: piece.pieceId,
        name: plan?.name ?? piece.pieceId,
        destination: piece.destination,
        massMg: piece.massMg,
        count: piece.units,
        lotCode: piece.lotCode,
        main: piece.main,
        edible: piece.edible,
        shareOfStage: piece.massMg / row.startMg,
        shareOfPurchase: piece.massMg / row.startMg,
        handbook: { mean, low: within(mean - 2 * sd), high: within(mean + 2 * sd) },
        house:
          records.length === 0
            ? null
            : {
                mean: belief.mean,
                low: within(belief.mean - Z80 * belief.sd),
                high: within(belief.mean + Z80 * belief.sd),
                records: records.length,
              },
        costMinor: {
          weight: costs.weight?.[i] ?? null,
          'by-product-credit': costs['by-product-credit']?.[i] ?? null,
        },
        creditMinorPerKg: piece.main ? 0 : credit(plan?.category ?? ''),
      };
    }),
    ...shares,
    unaccountedMg: row.startMg - made.reduce((sum, piece) => sum + piece.massMg, 0),
    purchase: {
      massMg: row.startMg,
      paidMinor: row.startMinor,
      minorPerKg: (row.startMinor * 1_000_000) / row.startMg,
    },
    costFactor: { weight: factor('weight'), 'by-product-credit': factor('by-product-credit') },
    bookedSchool: closing.bookedSchool,
    weighings,
    history: earlier.map((e) => ({ ...e, at: e.at.toISOString() })),
    note: closing.note,
  };
}
