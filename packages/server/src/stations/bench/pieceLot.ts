/** The lot that a piece becomes when its stage is closed: its date, what it may hold, whether it is eaten as it is. */
import { categoryById } from '@zabrik/catalogue';
import type { Asked, api } from '@zabrik/contract';
import {
  addDays,
  carryAllergens,
  formatTemperature,
  isBoughtCooked,
  lastDay,
  type PlanPiece,
  type ShelfLife,
  type Species,
  type StageCooks,
} from '@zabrik/core';
import type { TakenPiece } from '../../db/breakdownHead.ts';
import { dayIn, lastDayAfter, usualPlace } from '../../db/house.ts';
import type { BreakdownRow } from '../../db/models/breakdown.ts';
import type { HouseRow } from '../../db/models/house.ts';
import type { HeldLot } from '../../massledger/lockLots.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';

/** The date of what was cooked through in a stage: its days, and no longer than the house's limit for food made here. */
function cookedDate(today: string, days: number, limit: ShelfLife | undefined) {
  const usual = addDays(today, days);
  const latest = limit === undefined ? undefined : lastDay(limit, today);
  return limit !== undefined && latest !== undefined && latest < usual
    ? {
        useBy: latest,
        limitId: limit.id,
        maxC: limit.value.at_max_C ?? null,
        basis: `${limit.value.max_days} days by ${limit.citation.document} ${limit.citation.section}`,
      }
    : { useBy: usual, limitId: null, maxC: 5, basis: `${days} ${days === 1 ? 'day' : 'days'} once cooked` };
}

/** What was said of a stage that cooks, with what the plan says it cooks and what cooks put in with it. */
type Cooking = Omit<NonNullable<Asked<typeof api.bench.close>['body']['cooked']>, 'added'> & {
  readonly cooks: StageCooks;
  readonly added: readonly { readonly allergens: readonly string[] }[];
};

interface OfPiece {
  readonly id: string;
  readonly taken: TakenPiece;
  readonly piece: PlanPiece;
  readonly pieces: number;
  readonly breakdown: BreakdownRow;
  readonly species: Species | undefined;
  readonly house: HouseRow;
  readonly at: Date;
  /** The lots it was cut from. */
  readonly sources: readonly HeldLot[];
  /** What was joined to it. */
  readonly joined: readonly { readonly allergens: readonly string[]; readonly lot: HeldLot | undefined }[];
  readonly cooking: Cooking | null;
  /** Where what was cooked stands; null: in its usual place. */
  readonly cookedPlace: string | null;
  readonly madeLimit: ShelfLife | undefined;
  readonly note: string | null;
}

export function lotOfPiece(of: OfPiece): NewLot {
  const { taken, piece, breakdown, species, house, at, sources, joined, cooking, madeLimit } = of;
  const hours = categoryById.get(piece.category)?.useWithinHours ?? 24;
  const cooked = cooking?.cooks.pieces.includes(piece.id) === true ? cooking : null;
  // picked from what was cooked, or cooked through in this stage: it is eaten as it is
  const fromReady =
    (species !== undefined && isBoughtCooked(species, breakdown.form)) || sources.every((lot) => lot.ready);
  const ready = piece.edible && ((fromReady && joined.every((b) => b.lot?.ready === true)) || cooked?.through === true);
  const kept =
    cooked?.through === true
      ? cookedDate(
          dayIn(house.timezone, at),
          cooked.cooks.keepDays[piece.id] ?? 1,
          piece.category === 'rendered-fat' ? undefined : madeLimit,
        )
      : undefined;
  const earliest =
    [...sources, ...joined.flatMap((b) => b.lot ?? [])].flatMap((lot) => lot.useBy ?? []).sort()[0] ?? null;
  const useBy = kept?.useBy ?? lastDayAfter(house.timezone, at, hours, earliest);
  return {
    id: of.id,
    kind: 'piece',
    name: `${species?.name ?? breakdown.species} ${piece.name}`,
    species: breakdown.species,
    form: piece.becomes ?? null,
    category: piece.category,
    destination: taken.destination,
    pieces: of.pieces,
    madeMg: taken.massMg,
    keeping: keptFresh((cooked === null ? null : of.cookedPlace) ?? usualPlace(house, ready), ready, useBy),
    dateLimit: kept?.limitId ?? null,
    dateMaxC: kept?.maxC ?? null,
    raised: sources[0]?.raised ?? null,
    dateBasis:
      kept !== undefined
        ? `${kept.basis}, ${cooked?.cooks.word ?? 'cooked'}${cooked?.coreCentiC == null ? ', core not read' : `, core ${formatTemperature(cooked.coreCentiC)}`}`
        : useBy === earliest
          ? 'the date of what it was cut from'
          : `${hours} h, usual for ${categoryById.get(piece.category)?.label ?? 'such pieces'}`,
    supplierId: breakdown.supplierId,
    breakdownId: breakdown.id,
    pieceId: piece.id,
    batchId: null,
    allergens: carryAllergens(
      species === undefined || species.allergen === 'none' ? [] : [`${species.allergen}/${species.id}`],
      ...sources.map((lot) => lot.allergens),
      ...(cooked?.added ?? []).map((a) => a.allergens),
      ...joined.flatMap((b) => [b.allergens, b.lot?.allergens ?? []]),
    ),
    // sent to another tray than the plan's, it is that and waits for nothing
    nextStage: taken.destination === piece.destination ? (piece.next ?? null) : null,
    note: of.note,
  };
}
