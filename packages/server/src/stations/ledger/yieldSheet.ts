import type { YieldSheet } from '@zabrik/contract';
import {
  acrossAnimals,
  batchVariance,
  believeShare,
  type CostingSchool,
  costFactor,
  costingSchools,
  cutThrough,
  effectiveWeighings,
  type MinorUnits,
  minor,
  type PlanStage,
  partOn,
  Refusal,
  shareCost,
  workCost,
  workedByPerson,
  workedMinutes,
  worthOf,
  yieldShares,
  yieldThrough,
  Z80,
} from '@zabrik/core';
import {
  headOf,
  readEvents,
  readHead,
  readOwnShares,
  readWeighings,
  stageAsCut,
  stageOf,
} from '../../db/breakdownHead.ts';
import { hourRates } from '../../db/hourRates.ts';
import { readHouse } from '../../db/house.ts';
import { readWorthAt } from '../../db/worth.ts';
import { Problem } from '../../http/problem.ts';
import type { Services } from '../../services.ts';
import { cuttingsOf } from './cuttings.ts';
import { type ChainRow, readChain, readClosing, readEarlier, readPieces, readWentOn, sheetPieces } from './queries.ts';

/** So much of a piece is all of it: drip and the scale's steps are in the rest. */
const ALL_OF_IT = 0.98;

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

/** The stages of one purchase side by side, and what it came to through all of them. */
async function throughStages(
  db: Services['db'],
  houseId: string,
  chain: readonly ChainRow[],
): Promise<Pick<YieldSheet, 'chain' | 'cuttings' | 'through'>> {
  const ids = chain.map((c) => c.id);
  const [pieces, went, cut] = await Promise.all([
    readPieces(db, ids),
    readWentOn(db, ids),
    cuttingsOf(db, houseId, new Map(chain.map((c) => [c.id, c]))),
  ]);
  const onRuler = cutThrough(cut.done);
  const cutPart = (p: { readonly lotId: string | null; readonly massMg: number; readonly broughtMg: number }): number =>
    (cut.cutMg.get(p.lotId ?? '') ?? 0) / (p.massMg + p.broughtMg);
  const wentOn = new Set(went.map((w) => `${w.breakdownId}/${w.pieceId}`));
  const stages = chain.map((c) => ({
    row: c,
    stage: stageAsCut(c),
    pieces: pieces.filter((p) => p.breakdownId === c.id),
  }));
  const pieceIn = (stage: PlanStage, id: string) => stage.pieces.find((p) => p.id === id);
  const through = yieldThrough([
    ...stages
      .filter((s) => s.row.state === 'closed')
      .map(({ row, stage, pieces: own }) => ({
        startShare: row.startShare,
        pieces: own.flatMap((p) =>
          partOn(p.massMg / row.startMg, wentOn.has(`${row.id}/${p.pieceId}`) ? 1 : cutPart(p)).map((part) => ({
            ...part,
            wasted: p.destination === 'waste',
            edible: pieceIn(stage, p.pieceId)?.edible ?? false,
            portion: p.destination === 'portion',
          })),
        ),
      })),
    ...onRuler,
  ]);
  return {
    chain: stages.map(({ row, stage, pieces: own }) => ({
      breakdownId: row.id,
      stageName: stage.name,
      state: row.state,
      startMg: row.startMg,
      startShare: row.startShare,
      keptShare:
        own
          .filter((p) => p.destination === 'portion' || pieceIn(stage, p.pieceId)?.next !== undefined)
          .reduce((sum, p) => sum + p.massMg, 0) / row.startMg,
      closedAt: row.closedAt?.toISOString() ?? null,
    })),
    cuttings: cut.closed.map((c, i) => ({ ...c, startShare: onRuler[i]?.startShare ?? 0 })),
    through: {
      ...through,
      open: stages.some(
        ({ row, stage, pieces: own }) =>
          row.state === 'open' ||
          own.some(
            (p) =>
              p.destination === pieceIn(stage, p.pieceId)?.destination &&
              pieceIn(stage, p.pieceId)?.next !== undefined &&
              !wentOn.has(`${row.id}/${p.pieceId}`) &&
              cutPart(p) < ALL_OF_IT,
          ),
      ),
    },
  };
}

/** Everything there is to say about one closed breakdown: what it gave, against what was expected, and what it cost under each school. */
export async function yieldSheet(services: Services, houseId: string, breakdownId: string): Promise<YieldSheet> {
  const { db } = services;
  const row = await readHead(db, houseId, breakdownId);
  const stage = stageAsCut(row);
  const mainPieces = stage.pieces.filter((p) => p.main).map((p) => p.id);
  const [house, pieces, closing, weighings, events, chain, own, earlier] = await Promise.all([
    readHouse(db, { houseId }),
    readPieces(db, [breakdownId]),
    readClosing(db, breakdownId),
    readWeighings(db, breakdownId),
    readEvents(db, breakdownId),
    readChain(db, houseId, row.rootId),
    readOwnShares(db, houseId, {
      planId: row.planId,
      stageId: row.stageId,
      species: row.species,
      form: row.form,
      exceptId: row.id,
      before: row.closedAt ?? new Date(8.64e15),
      supplierId: row.supplierId,
      cameWithout: row.found.cameWithout,
    }),
    readEarlier(db, houseId, row, mainPieces),
  ]);
  if (closing === undefined || row.state !== 'closed')
    throw new Problem('not_found', 'This breakdown is not closed yet. It is still on the bench.');
  const made = sheetPieces(row, pieces);
  const sameAs = (piece: { readonly pieceId: string }) => made.filter((p) => p.pieceId === piece.pieceId);
  const worth = await readWorthAt(db, house, row.closedAt);
  const credit = (category: string): number => worthOf(worth, category, row.species) ?? 0;
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
  const marks = events.flatMap(({ body: e }) =>
    e.kind === 'pause' || e.kind === 'resume' ? [{ kind: e.kind, at: new Date(e.at) }] : [],
  );
  const minutes = workedMinutes(row.startedAt, row.closedAt ?? row.startedAt, marks);
  const rateOf = await hourRates(db, { houseId }, house, row.closedAt ?? undefined);
  const hands = events.flatMap(({ body: e }) =>
    e.kind === 'hand-over' ? [{ personId: e.toPersonId, from: new Date(e.at) }] : [],
  );
  const work = workCost(
    workedByPerson(row.closedAt ?? row.startedAt, marks, [{ personId: row.personId, from: row.startedAt }, ...hands]),
    rateOf,
  );
  return {
    breakdown: headOf(row),
    movementId: row.movementId,
    cameWithout: stageOf(row.plan, row.stageId).pieces.flatMap((p) => {
      const units = row.found.cameWithout[p.id];
      return units === undefined ? [] : [{ pieceId: p.id, name: p.name, units, of: p.count * row.animals }];
    }),
    reopenedFrom: closing.takenBack,
    rows: made.map((piece, i) => {
      const plan = planned(piece.pieceId);
      const records = own.get(piece.pieceId) ?? [];
      const mean = plan?.share.mean ?? 0;
      const sd = plan?.share.sd ?? 0;
      const one = believeShare({ mean, sd }, records);
      // the mean of a batch wanders less than one animal
      const belief = { ...one, sd: one.sd * Math.sqrt(batchVariance(row.animals)) };
      return {
        pieceId: piece.pieceId,
        name: plan?.name ?? piece.pieceId,
        destination: piece.destination,
        massMg: piece.massMg,
        broughtMg: piece.broughtMg,
        count: piece.units,
        lotCode: piece.lotCode,
        main: piece.main,
        edible: piece.edible,
        shareOfStage: piece.massMg / row.startMg,
        shareOfPiece: sameAs(piece).reduce((sum, p) => sum + p.massMg, 0) / row.startMg,
        trays: sameAs(piece).length,
        shareOfPurchase: (piece.massMg / row.startMg) * row.startShare,
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
        worthSaid: !piece.main && worthOf(worth, plan?.category ?? '', row.species) !== undefined,
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
    ...(await throughStages(db, houseId, chain)),
    time: {
      minutes,
      perAnimal: minutes / row.animals,
      handbook: stage.minutes,
      labourMinor: work === undefined ? null : minor(work),
    },
    perAnimal: acrossAnimals(
      effectiveWeighings(weighings).flatMap((w) =>
        w.pieceId === null ? [] : [{ animal: w.animal, pieceId: w.pieceId, massMg: w.massMg }],
      ),
    ),
    events,
  };
}
