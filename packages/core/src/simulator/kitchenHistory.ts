import type { CutPlan, Species } from '../breakdown/plan.ts';
import { planAsBought } from '../breakdown/planAsBought.ts';
import { stageOfPlan } from '../breakdown/planQuestions.ts';
import { drawAnimal, splitIntoUnits } from './drawAnimal.ts';
import { type Random, seededRandom } from './random.ts';

export interface SimulatedSupplier {
  readonly id: string;
  readonly species: readonly string[];
  /** Change of the main cut's share per 30 days: fish held longer, worse trimmed, or better. */
  readonly driftPerMonth: number;
}

export interface SimulatedCutter {
  readonly id: string;
  readonly leftOnFrame: number;
}

export interface SimulatedItem {
  readonly species: Species;
  readonly form: string;
  readonly plan: CutPlan;
  readonly minorPerKg: number;
}

export interface SimulatedWeighing {
  readonly pieceId: string;
  readonly massMg: number;
}

export interface SimulatedBreakdown {
  readonly speciesId: string;
  readonly form: string;
  readonly planId: string;
  readonly supplierId: string;
  readonly cutterId: string;
  readonly receivedAt: Date;
  readonly startedAt: Date;
  readonly closedAt: Date;
  readonly startMg: number;
  readonly invoiceMg: number;
  readonly paidMinor: number;
  readonly temperatureCentiC: number;
  readonly weighings: readonly SimulatedWeighing[];
}

export interface SimulatorSettings {
  readonly seed: string;
  /** The last day of the history; breakdowns end the day before it. */
  readonly today: Date;
  readonly days: number;
  readonly count: number;
  readonly items: readonly SimulatedItem[];
  readonly suppliers: readonly SimulatedSupplier[];
  readonly cutters: readonly SimulatedCutter[];
  /** The scale's interval, milligrams. */
  readonly intervalMg: number;
}

const DAY = 86_400_000;
const MINUTE = 60_000;

const bodyMass = (item: SimulatedItem, random: Random): number => {
  const typical = item.species.forms.find((f) => f.id === item.form)?.typicalG ?? 1_000;
  return typical * Math.exp(0.16 * random.normal());
};

const dayOf = (today: Date, back: number, hour: number, minutes: number): Date => {
  const date = new Date(today.getTime() - back * DAY);
  date.setUTCHours(hour, 0, 0, 0);
  return new Date(date.getTime() + minutes * MINUTE);
};

/**
 * Months of a believable kitchen: deliveries by supplier, animals with hidden compositions, cutters of differing skill, prices
 * that wander, a scale that rounds. Seeded: the same settings give the same history, moved so that it ends at `today`.
 *
 * Shapes  `count` breakdowns of one animal each, oldest first, spread evenly over `days`.
 * Keeps   weighings are whole scale intervals; they and a small drip add up to the start within the rounding.
 */
export function kitchenHistory(settings: SimulatorSettings): SimulatedBreakdown[] {
  const random = seededRandom(settings.seed);
  const onScale = (massMg: number): number => Math.round(massMg / settings.intervalMg) * settings.intervalMg;
  const out: SimulatedBreakdown[] = [];
  for (let i = 0; i < settings.count; i += 1) {
    const back = Math.max(1, Math.round(settings.days * (1 - i / settings.count)));
    const item = settings.items[i % settings.items.length] ?? random.pick(settings.items);
    const supplier = random.pick(settings.suppliers.filter((s) => s.species.includes(item.species.id)));
    const cutter = random.pick(settings.cutters);
    const stage = stageOfPlan(planAsBought(item.plan, item.species, item.form));
    const startMg = onScale(bodyMass(item, random) * 1_000);
    const months = (settings.days - back) / 30;
    const season = 1 + 0.012 * Math.sin((2 * Math.PI * (back % 365)) / 365);
    const drawn = drawAnimal(
      {
        startMg,
        shares: stage.pieces.map((p) => ({ pieceId: p.id, mean: p.share.mean, sd: p.share.sd })),
        drip: stage.drip,
        mainPieces: stage.pieces.filter((p) => p.main).map((p) => p.id),
        framePiece: stage.pieces.find((p) => p.id === 'frame' || p.id === 'carcass')?.id,
        leftOnFrame: cutter.leftOnFrame + 0.01 * random.normal(),
        condition: season * (1 + supplier.driftPerMonth * months),
      },
      random,
    );
    const invoiceMg = random.next() < 0.3 ? onScale(startMg * (1 + 0.03 * random.next())) : startMg;
    const price = item.minorPerKg * (1 + 0.08 * Math.sin(back / 23) + 0.03 * random.normal());
    const receivedAt = dayOf(settings.today, back, 7, random.whole(0, 90));
    const startedAt = new Date(receivedAt.getTime() + random.whole(20, 150) * MINUTE);
    out.push({
      speciesId: item.species.id,
      form: item.form,
      planId: item.plan.id,
      supplierId: supplier.id,
      cutterId: cutter.id,
      receivedAt,
      startedAt,
      closedAt: new Date(
        startedAt.getTime() +
          Math.round(stage.minutes.low + random.next() * (stage.minutes.high - stage.minutes.low)) * MINUTE,
      ),
      startMg,
      invoiceMg,
      paidMinor: Math.max(1, Math.round((invoiceMg / 1_000_000) * price)),
      temperatureCentiC: Math.round(100 + 120 * random.next()),
      weighings: drawn.pieces.flatMap((piece) => {
        const units = stage.pieces.find((p) => p.id === piece.pieceId)?.count ?? 1;
        return splitIntoUnits(piece.massMg, units, random)
          .map((massMg) => ({ pieceId: piece.pieceId, massMg: onScale(massMg) }))
          .filter((w) => w.massMg > 0);
      }),
    });
  }
  return out.sort((a, b) => a.receivedAt.getTime() - b.receivedAt.getTime());
}
