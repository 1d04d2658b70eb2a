import type { ThroughStage } from './yieldThrough.ts';

/** What a cutting to weight took of one lot of the purchase. */
export interface CutInput {
  readonly usedMg: number;
  /** The stage that made the lot, or the cutting that did (a roll made of loins, then cut). */
  readonly stage: { readonly startMg: number; readonly startShare: number } | { readonly cuttingId: string };
}

/** A cutting that is done, oldest first in a list. */
export interface DoneCutting {
  readonly id: string;
  /** All that was cut, of other purchases too. */
  readonly usedMg: number;
  readonly inputs: readonly CutInput[];
  readonly made: readonly {
    readonly massMg: number;
    readonly portion: boolean;
    readonly wasted: boolean;
    /** So much of it went on into a later cutting or stage. */
    readonly wentOnMg: number;
  }[];
}

/**
 * Cuttings to weight as stages of a purchase, so that both yields multiply: a barrel that is 0.3 of the saddle, of which 0.94 became
 * portions, is 0.282 of the saddle in portions.
 *
 * Shapes  cuttings: makers before what they made. Result: one stage a cutting, same order.
 * Keeps   a lot that went on in part is two pieces: what went on, and what did not.
 */
export function cutThrough(cuttings: readonly DoneCutting[]): (ThroughStage & { readonly id: string })[] {
  const done = new Map<string, { readonly startShare: number; readonly usedMg: number }>();
  return cuttings.map((c) => {
    const startShare = c.inputs.reduce((sum, { usedMg, stage }) => {
      if ('startMg' in stage) return sum + (stage.startShare * usedMg) / Math.max(1, stage.startMg);
      const maker = done.get(stage.cuttingId);
      // a roll of two purchases carries of each what each brought
      return sum + (maker === undefined ? 0 : (maker.startShare * usedMg) / Math.max(1, maker.usedMg));
    }, 0);
    done.set(c.id, { startShare, usedMg: c.usedMg });
    return {
      id: c.id,
      startShare,
      pieces: c.made.flatMap((m) =>
        partOn(m.massMg / Math.max(1, c.usedMg), m.wentOnMg / Math.max(1, m.massMg)).map((p) => ({
          ...p,
          wasted: m.wasted,
          edible: !m.wasted,
          portion: m.portion,
        })),
      ),
    };
  });
}

/** A share of which a part went on, as what went on and what did not. */
export function partOn(share: number, on: number): { readonly share: number; readonly wentOn: boolean }[] {
  const part = Math.min(1, Math.max(0, on));
  return [
    ...(part > 0 ? [{ share: share * part, wentOn: true }] : []),
    ...(part < 1 ? [{ share: share * (1 - part), wentOn: false }] : []),
  ];
}
