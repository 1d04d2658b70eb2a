import { Refusal } from '../refusal.ts';
import type { Use } from './use.ts';

export interface OfferedLot {
  readonly lotId: string;
  readonly name: string;
  readonly category: string;
  readonly massMg: number;
  /** Its use-by date is behind it: it goes in nothing. */
  readonly pastDate: boolean;
}

export interface ScaleLimits {
  /** What there is of a bought-in ingredient, milligrams; absent means as much as it takes. */
  readonly onHandMg: Readonly<Record<string, number>>;
  /** Litres the vessel holds when filled as far as it may be (usually three quarters of its name). */
  readonly vesselLitres: number | undefined;
}

export interface ScaledUse {
  readonly taken: readonly { readonly lotId: string; readonly massMg: number; readonly leftMg: number }[];
  readonly refused: readonly { readonly lotId: string; readonly reason: string }[];
  readonly baseMg: number;
  readonly ingredients: readonly { readonly id: string; readonly name: string; readonly massMg: number }[];
  readonly output: { readonly lowMg: number; readonly meanMg: number; readonly highMg: number };
  readonly plates: number | undefined;
  /** What keeps the batch from being larger, in the kitchen's words. */
  readonly limiting: { readonly kind: 'base' | 'ingredient' | 'vessel'; readonly name: string };
  readonly capped: readonly { readonly category: string; readonly heldBackMg: number; readonly reason: string }[];
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Why this use does not take such a lot, or undefined when it does. */
export function refusalOf(
  use: Use,
  { category, pastDate }: { readonly category: string; readonly pastDate: boolean },
): string | undefined {
  if (pastDate) return 'Past its use-by date';
  const named = use.refuses.find((refusal) => refusal.category === category);
  if (named !== undefined) return named.reason;
  return use.accepts.includes(category) ? undefined : `${use.title} is not made with this`;
}

/**
 * Scales a use to the lots offered: refuses what may not go in, holds capped kinds to their share, and stops at whichever runs
 * out first (pieces, an ingredient on hand, room in the vessel).
 *
 * Shapes  offered: in the order they should be used up, oldest first. `taken` keeps that order and leaves out untouched lots.
 * Units   milligrams and litres.
 * Keeps   sum of taken = base; no category above its cap; no ingredient above what is on hand.
 * Errors  `nothing_accepted`: no lot offered may go in, or nothing at all fits.
 * @example 740 g of trim in a mousseline of 1 : 1 : 0.06 : 0.014 -> cream 740 g, egg white 44.4 g, salt 10.36 g
 */
export function scaleUse(use: Use, offered: readonly OfferedLot[], limits: ScaleLimits): ScaledUse {
  const refused = offered.flatMap((lot) => {
    const reason = refusalOf(use, lot);
    return reason === undefined ? [] : [{ lotId: lot.lotId, reason }];
  });
  const isRefused = new Set(refused.map((r) => r.lotId));
  const accepted = offered.filter((lot) => !isRefused.has(lot.lotId) && lot.massMg > 0);

  // a cap of share c lets a category be at most c / (1 - c) of all the rest
  const allowance = new Map<string, number>();
  const capped = use.caps.flatMap((cap) => {
    const own = sum(accepted.filter((lot) => lot.category === cap.category).map((lot) => lot.massMg));
    const rest = sum(accepted.filter((lot) => lot.category !== cap.category).map((lot) => lot.massMg));
    const most = Math.floor((rest * cap.maxShare) / (1 - cap.maxShare));
    if (own <= most) return [];
    allowance.set(cap.category, most);
    return [{ category: cap.category, heldBackMg: own - most, reason: cap.reason }];
  });
  const usable = accepted.map((lot) => {
    const left = allowance.get(lot.category);
    if (left === undefined) return { lot, massMg: lot.massMg };
    const massMg = Math.min(lot.massMg, left);
    allowance.set(lot.category, left - massMg);
    return { lot, massMg };
  });
  const available = sum(usable.map((u) => u.massMg));

  let baseMg = available;
  let limiting: ScaledUse['limiting'] = { kind: 'base', name: use.baseName };
  for (const ingredient of use.ingredients) {
    const onHand = limits.onHandMg[ingredient.id];
    if (onHand === undefined || ingredient.perBase === 0) continue;
    const most = Math.floor(onHand / ingredient.perBase);
    if (most < baseMg) {
      baseMg = most;
      limiting = { kind: 'ingredient', name: ingredient.name };
    }
  }
  if (limits.vesselLitres !== undefined && use.litresPerKg !== undefined) {
    const most = Math.floor((limits.vesselLitres / use.litresPerKg) * 1_000_000);
    if (most < baseMg) {
      baseMg = most;
      limiting = { kind: 'vessel', name: `${limits.vesselLitres} l of room in the pot` };
    }
  }
  if (baseMg <= 0) throw new Refusal('nothing_accepted', { use: use.id });

  // shrink to the base evenly over capped and free kinds so that the caps still hold, oldest lots first within a kind
  const factor = baseMg / available;
  const budget = new Map<string, number>();
  for (const { lot, massMg } of usable) budget.set(lot.category, (budget.get(lot.category) ?? 0) + massMg);
  let spent = 0;
  const kinds = [...budget.entries()];
  kinds.forEach(([category, mass], i) => {
    const share = i === kinds.length - 1 ? baseMg - spent : Math.floor(mass * factor);
    budget.set(category, share);
    spent += share;
  });
  const taken = usable.flatMap(({ lot, massMg }) => {
    const left = budget.get(lot.category) ?? 0;
    const take = Math.min(massMg, left);
    budget.set(lot.category, left - take);
    return take > 0 ? [{ lotId: lot.lotId, massMg: take, leftMg: lot.massMg - take }] : [];
  });

  return {
    taken,
    refused,
    baseMg,
    ingredients: use.ingredients.map((ingredient) => ({
      id: ingredient.id,
      name: ingredient.name,
      massMg: Math.round(baseMg * ingredient.perBase),
    })),
    output: {
      lowMg: Math.round(baseMg * use.output.low),
      meanMg: Math.round(baseMg * use.output.mean),
      highMg: Math.round(baseMg * use.output.high),
    },
    plates: use.gramsPerPlate === undefined ? undefined : Math.floor(baseMg / (use.gramsPerPlate * 1_000)),
    limiting,
    capped,
  };
}
