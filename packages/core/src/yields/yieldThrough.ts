/** One input of a stage: what was taken of a lot, and of what that lot is a part. */
export interface StageInput {
  readonly usedMg: number;
  /** The purchase the lot came from (its first breakdown), or null for a delivery. */
  readonly from: string | null;
  /** What the lot weighed when it was made. */
  readonly madeMg: number;
  /** Start of the breakdown it came from, and the share of the purchase that start stands for. Left out for a delivery. */
  readonly parentStartMg?: number;
  readonly parentShare?: number;
}

/**
 * What share of the purchase the start of a stage stands for: yields of stages multiply.
 *
 * A fillet that is 0.5 of the fish, of which 0.52 becomes loin: the loin is 0.26 of the fish, whether all of the fillet went on or
 * half of it. Pieces of one purchase that go on together add up, from whichever stage they
 * came; lots of several purchases are joined by the purchase each stands for.
 *
 * Shapes  inputs: n >= 1. Result: 0..1; 1 for deliveries alone.
 * Keeps   never NaN: an empty list gives 1.
 * Source  multiplying of stage yields: any butchery or process text, common practice.
 *
 * @example 500 g of a 1000 g stage that stands for 0.8 of the purchase -> 0.4
 */
export function shareOfPurchase(inputs: readonly StageInput[]): number {
  const groups = new Map<string, StageInput[]>();
  for (const [i, input] of inputs.entries()) {
    const key = input.from ?? `delivery ${i}`;
    groups.set(key, [...(groups.get(key) ?? []), input]);
  }
  let used = 0;
  let purchase = 0;
  for (const group of groups.values()) {
    const groupUsed = group.reduce((sum, i) => sum + i.usedMg, 0);
    const share = group.reduce(
      (sum, i) =>
        sum + (i.from === null ? 1 / group.length : (i.madeMg / (i.parentStartMg ?? i.madeMg)) * (i.parentShare ?? 1)),
      0,
    );
    used += groupUsed;
    purchase += share > 0 ? groupUsed / share : 0;
  }
  return purchase > 0 ? used / purchase : 1;
}

export interface ThroughStage {
  /** What share of the purchase this stage's start stands for. */
  readonly startShare: number;
  readonly pieces: readonly {
    /** Share of the stage. */
    readonly share: number;
    readonly wasted: boolean;
    readonly edible: boolean;
    readonly portion: boolean;
    /** It went on to a later stage of the list: what it became is counted there. */
    readonly wentOn: boolean;
  }[];
}

export interface YieldThrough {
  /** As purchased to portion. */
  readonly portionShare: number;
  readonly edibleShare: number;
  readonly recoveredShare: number;
  readonly wasteShare: number;
  /** Drip, evaporation, scale error of all stages. */
  readonly lossShare: number;
}

/**
 * The yields of a purchase through all its stages: what became portions, what can be eaten, what got a use, what was wasted.
 *
 * Shapes  stages: in any order; a piece that went on is counted by what it became, not twice.
 * Units   shares of the purchase, 0..1.
 * Keeps   recovered + waste + loss = 1 when every piece that went on did so whole.
 */
export function yieldThrough(stages: readonly ThroughStage[]): YieldThrough {
  const of = (wanted: (piece: ThroughStage['pieces'][number]) => boolean): number =>
    stages.reduce(
      (sum, stage) =>
        sum + stage.startShare * stage.pieces.filter((p) => !p.wentOn && wanted(p)).reduce((s, p) => s + p.share, 0),
      0,
    );
  const lossShare = stages.reduce(
    (sum, stage) => sum + stage.startShare * (1 - stage.pieces.reduce((s, p) => s + p.share, 0)),
    0,
  );
  return {
    portionShare: of((p) => p.portion && !p.wasted),
    edibleShare: of((p) => p.edible && !p.wasted),
    recoveredShare: of((p) => !p.wasted),
    wasteShare: of((p) => p.wasted),
    lossShare,
  };
}
