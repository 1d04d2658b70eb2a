import { Refusal } from '../refusal.ts';
import type { Recipe } from './recipe.ts';

export interface OfferedLot {
  readonly lotId: string;
  readonly name: string;
  /** Kind of piece; empty for a batch. */
  readonly category: string;
  /** The recipe whose batch this is. */
  readonly recipeId?: string;
  /** What of the vegetables, dairy and dry goods it is. */
  readonly goods?: string;
  readonly massMg: number;
  /** How many pieces it is, where it is pieces: a head goes in whole or not at all. */
  readonly pieces?: number;
  /** Its use-by date is behind it: it goes in nothing. */
  readonly pastDate: boolean;
  /** Cooked, ready to eat: kept apart from what is raw. */
  readonly ready: boolean;
  /** What a tub holds by kind: each is held to its share, and none may be refused. Empty kind: nobody knows what. */
  readonly kinds?: readonly { readonly category: string; readonly massMg: number }[];
}

export interface ScaleLimits {
  /** What there is of a bought-in ingredient, milligrams; absent means as much as it takes. */
  readonly onHandMg: Readonly<Record<string, number>>;
  /** Litres the vessel holds when filled as far as it may be (usually three quarters of its name). */
  readonly vesselLitres: number | undefined;
  /** The floor of the pan, square metres, where what goes in lies in one layer. */
  readonly panFloorM2?: number;
  /** No more base than this, milligrams: what is wanted. Absent means all there is. */
  readonly wantedBaseMg?: number;
}

export interface ScaledRecipe {
  /** `as`: "base", or the ingredient the lot is. */
  readonly taken: readonly {
    readonly lotId: string;
    readonly massMg: number;
    readonly leftMg: number;
    readonly as: string;
  }[];
  readonly refused: readonly { readonly lotId: string; readonly reason: string }[];
  readonly baseMg: number;
  /** `fromLotsMg`: the part of it that comes out of the lots taken. */
  readonly ingredients: readonly {
    readonly id: string;
    readonly name: string;
    readonly massMg: number;
    readonly fromLotsMg: number;
  }[];
  readonly output: { readonly lowMg: number; readonly meanMg: number; readonly highMg: number };
  readonly plates: number | undefined;
  readonly pieces: number | undefined;
  /** What keeps the batch from being larger, in the kitchen's words. */
  readonly limiting: { readonly kind: 'base' | 'ingredient' | 'vessel' | 'want'; readonly name: string };
  readonly capped: readonly { readonly category: string; readonly heldBackMg: number; readonly reason: string }[];
  /** What is missing to make all that is wanted, or to use up all the base there is. */
  readonly short: readonly { readonly id: string; readonly name: string; readonly massMg: number }[];
}

/** What is taken evenly together: all of a kind, or one tub. */
const heapOf = (lot: OfferedLot): string => (lot.kinds === undefined ? lot.category : lot.lotId);
/** Kinds of piece that go in whole: nobody sets a third of a head aside. */
const whole: ReadonlySet<string> = new Set(['white-fish-head', 'oily-fish-head', 'crustacean-whole', 'pork-trotter']);

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** How much of a lot is of a kind, milligrams. */
function massOfKind(lot: OfferedLot, category: string): number {
  if (lot.kinds === undefined) return lot.category === category ? lot.massMg : 0;
  const all = sum(lot.kinds.map((k) => k.massMg));
  const own = sum(lot.kinds.map((k) => (k.category === category ? k.massMg : 0)));
  return all <= 0 ? 0 : Math.round((lot.massMg * own) / all);
}

/** So much of a lot as whole pieces come nearest to; never more of a kind that is held back. */
function wholeOf(lot: OfferedLot, mostMg: number, heldBack: boolean, only: boolean): number {
  const pieces = lot.pieces ?? 0;
  if (pieces < 1 || !whole.has(lot.category) || mostMg >= lot.massMg) return mostMg;
  const count = (mostMg / lot.massMg) * pieces;
  const taken = heldBack ? Math.floor(count + 1e-9) : Math.max(only ? 1 : 0, Math.round(count));
  return Math.round((taken * lot.massMg) / pieces);
}

/** What a lot would be in a recipe: its base, one of its ingredients, or nothing. */
export function roleIn(recipe: Recipe, lot: Pick<OfferedLot, 'category' | 'recipeId' | 'goods'>): string | undefined {
  const fits = ({ accepts = [], acceptsUses = [], acceptsGoods = [] }: Partial<Taking>): boolean =>
    (lot.category !== '' && accepts.includes(lot.category)) ||
    (lot.recipeId !== undefined && acceptsUses.includes(lot.recipeId)) ||
    (lot.goods !== undefined && acceptsGoods.includes(lot.goods));
  if (fits(recipe)) return 'base';
  return recipe.ingredients.find(fits)?.id;
}
type Taking = Pick<Recipe, 'accepts' | 'acceptsUses' | 'acceptsGoods'>;

/** Why this recipe does not take such a lot, or undefined when it does. */
export function refusalOf(recipe: Recipe, lot: Omit<OfferedLot, 'lotId' | 'name' | 'massMg'>): string | undefined {
  if (lot.pastDate) return 'Past its use-by date';
  const role = roleIn(recipe, lot);
  if (role === undefined) {
    const named = recipe.refuses.find((refusal) => refusal.category === lot.category);
    return named?.reason ?? `${recipe.title} is not made with this`;
  }
  const odd = lot.kinds?.find(
    (k) => k.category !== '' && k.massMg > 0 && roleIn(recipe, { category: k.category }) === undefined,
  );
  if (odd !== undefined) {
    const why = recipe.refuses.find((refusal) => refusal.category === odd.category)?.reason;
    return `It holds ${odd.category.replaceAll('-', ' ')}${why === undefined ? '' : `: ${why.charAt(0).toLowerCase()}${why.slice(1)}`}`;
  }
  // a vegetable or a cream is neither raw nor cooked as flesh is
  if (lot.goods !== undefined) return undefined;
  if (recipe.takes === 'raw' && lot.ready && role === 'base')
    return 'Cooked already: raw and cooked are kept apart, this is made of raw pieces';
  if (recipe.takes === 'cooked' && !lot.ready && lot.category !== 'spent-bones' && lot.category !== 'bivalve-liquor')
    return 'Raw: raw and cooked are kept apart, this is made of cooked pieces';
  return undefined;
}

/** What is wanted: so much of it, so many plates, so many pieces. */
export type Want =
  | { readonly kind: 'mass'; readonly massMg: number }
  | { readonly kind: 'plates'; readonly count: number }
  | { readonly kind: 'pieces'; readonly count: number };

/**
 * Base it takes to make what is wanted, milligrams; undefined where the recipe has no such measure.
 *
 * @example 3 litres of a stock that gives 0.9 a kilo -> 3.33 kg of bones; 14 plates of 140 g of fish -> 1.96 kg
 */
export function baseForWant(recipe: Recipe, want: Want): number | undefined {
  switch (want.kind) {
    case 'mass':
      return Math.ceil(want.massMg / recipe.output.mean);
    case 'plates':
      return recipe.gramsPerPlate === undefined ? undefined : Math.ceil(want.count * recipe.gramsPerPlate * 1_000);
    case 'pieces':
      return recipe.piece === undefined
        ? undefined
        : Math.ceil((want.count * recipe.piece.grams * 1_000) / recipe.output.mean);
  }
}

/**
 * Scales a recipe to the lots offered: refuses what may not go in, holds capped kinds to their share, and stops at whichever runs
 * out first (pieces, an ingredient on hand, room in the vessel, what is wanted).
 *
 * Shapes  offered: in the order they should be used up, oldest first. `taken` keeps that order within base and ingredients and
 *         leaves out untouched lots.
 * Units   milligrams and litres.
 * Keeps   heads, trotters and whole crustaceans are taken whole, the nearest number, fewer where a cap holds them back.
 *         Sum of taken as base = base; no category above its cap; no ingredient above what is on hand: its lots, and what is bought
 *         in, as much as it takes unless said.
 * Errors  `nothing_accepted`: no lot offered may go in, or nothing at all fits.
 * @example 740 g of trim in a mousseline of 1 : 1 : 0.06 : 0.014 -> cream 740 g, egg white 44.4 g, salt 10.36 g
 */
export function scaleRecipe(recipe: Recipe, offered: readonly OfferedLot[], limits: ScaleLimits): ScaledRecipe {
  const refused: { lotId: string; reason: string }[] = [];
  const base: OfferedLot[] = [];
  const parts = new Map<string, OfferedLot[]>();
  for (const lot of offered) {
    const reason = refusalOf(recipe, lot);
    const role = roleIn(recipe, lot);
    if (reason !== undefined) refused.push({ lotId: lot.lotId, reason });
    else if (lot.massMg <= 0) continue;
    else if (role === 'base') base.push(lot);
    else if (role !== undefined) parts.set(role, [...(parts.get(role) ?? []), lot]);
  }

  // a cap of share c lets a category be at most c / (1 - c) of all the rest
  const allowance = new Map<string, number>();
  const capped = recipe.caps.flatMap((cap) => {
    const own = sum(base.map((lot) => massOfKind(lot, cap.category)));
    const rest = sum(base.map((lot) => lot.massMg)) - own;
    const most = Math.floor((rest * cap.maxShare) / (1 - cap.maxShare));
    if (own <= most) return [];
    allowance.set(cap.category, most);
    return [{ category: cap.category, heldBackMg: own - most, reason: cap.reason }];
  });
  // what is too much of a lot of one kind stays where it is, and so it does in a tub: the heads are left lying in it
  const usable = base.map((lot) => {
    let massMg = lot.massMg;
    for (const [category, left] of allowance) {
      const own = massOfKind(lot, category);
      const goes = Math.min(own, left);
      allowance.set(category, left - goes);
      massMg -= own - goes;
    }
    return { lot, massMg };
  });
  const available = sum(usable.map((u) => u.massMg));
  const wanted = limits.wantedBaseMg;
  const hoped = wanted ?? available;

  let baseMg = available;
  let limiting: ScaledRecipe['limiting'] = { kind: 'base', name: recipe.baseName };
  if (wanted !== undefined && wanted < baseMg) {
    baseMg = wanted;
    limiting = { kind: 'want', name: 'what is wanted' };
  }
  const short: { id: string; name: string; massMg: number }[] =
    hoped > available ? [{ id: 'base', name: recipe.baseName, massMg: hoped - available }] : [];
  for (const ingredient of recipe.ingredients) {
    const bought = limits.onHandMg[ingredient.id];
    if (bought === undefined || ingredient.perBase === 0) continue;
    const onHand = bought + sum((parts.get(ingredient.id) ?? []).map((l) => l.massMg));
    const missing = Math.round(hoped * ingredient.perBase) - onHand;
    if (missing > 0) short.push({ id: ingredient.id, name: ingredient.name, massMg: missing });
    const most = Math.floor(onHand / ingredient.perBase);
    if (most < baseMg) {
      baseMg = most;
      limiting = { kind: 'ingredient', name: ingredient.name };
    }
  }
  if (limits.vesselLitres !== undefined && recipe.litresPerKg !== undefined) {
    const most = Math.floor((limits.vesselLitres / recipe.litresPerKg) * 1_000_000);
    if (most < baseMg) {
      baseMg = most;
      limiting = { kind: 'vessel', name: `${limits.vesselLitres} l of room in the pot` };
    }
  }
  if (limits.panFloorM2 !== undefined && recipe.layerKgPerM2 !== undefined) {
    const most = Math.floor(limits.panFloorM2 * recipe.layerKgPerM2 * 1_000_000);
    if (most < baseMg) {
      baseMg = most;
      limiting = { kind: 'vessel', name: 'one layer in the pan' };
    }
  }
  if (baseMg <= 0) throw new Refusal('nothing_accepted', { recipe: recipe.id });

  // shrink to the base evenly over capped and free kinds so that the caps still hold, oldest lots first within a kind
  const factor = baseMg / available;
  const budget = new Map<string, number>();
  for (const { lot, massMg } of usable) budget.set(heapOf(lot), (budget.get(heapOf(lot)) ?? 0) + massMg);
  let spent = 0;
  const kinds = [...budget.entries()];
  kinds.forEach(([category, mass], i) => {
    const share = i === kinds.length - 1 ? baseMg - spent : Math.floor(mass * factor);
    budget.set(category, share);
    spent += share;
  });
  const leftWhole = new Map<string, number>();
  let taken = usable.flatMap(({ lot, massMg }) => {
    const left = budget.get(heapOf(lot)) ?? 0;
    const most = Math.min(massMg, left);
    const take = wholeOf(
      lot,
      most,
      allowance.has(lot.category) || limiting.kind === 'vessel' || limiting.kind === 'ingredient',
      base.length === 1,
    );
    leftWhole.set(lot.category, (leftWhole.get(lot.category) ?? 0) + most - take);
    budget.set(heapOf(lot), left - most);
    return take > 0 ? [{ lotId: lot.lotId, massMg: take, leftMg: lot.massMg - take, as: 'base' }] : [];
  });
  // a head more or less is made up by what can be divided and is not held back; else the batch is what is taken
  let owed = baseMg - sum(taken.map((t) => t.massMg));
  // the oldest is used first, and the youngest spared first
  for (const { lot } of owed < 0 ? [...usable].reverse() : usable) {
    if (owed === 0 || whole.has(lot.category) || allowance.has(lot.category)) continue;
    const mine = taken.find((t) => t.lotId === lot.lotId) ?? {
      lotId: lot.lotId,
      massMg: 0,
      leftMg: lot.massMg,
      as: 'base',
    };
    const more = Math.max(-mine.massMg, Math.min(owed, mine.leftMg));
    if (mine.massMg === 0 && more > 0) taken.push(mine);
    mine.massMg += more;
    mine.leftMg -= more;
    owed -= more;
  }
  const order = new Map(usable.map(({ lot }, i) => [lot.lotId, i]));
  taken.sort((a, b) => (order.get(a.lotId) ?? 0) - (order.get(b.lotId) ?? 0));
  taken = taken.filter((t) => t.massMg > 0);
  baseMg -= owed;
  if (baseMg <= 0) throw new Refusal('nothing_accepted', { recipe: recipe.id });
  const ingredients = recipe.ingredients.map((ingredient) => {
    const massMg = Math.round(baseMg * ingredient.perBase);
    let wantedMg = massMg;
    for (const lot of parts.get(ingredient.id) ?? []) {
      const take = Math.min(lot.massMg, wantedMg);
      if (take <= 0) continue;
      wantedMg -= take;
      taken.push({ lotId: lot.lotId, massMg: take, leftMg: lot.massMg - take, as: ingredient.id });
    }
    return { id: ingredient.id, name: ingredient.name, massMg, fromLotsMg: massMg - wantedMg };
  });
  const meanMg = Math.round(baseMg * recipe.output.mean);

  return {
    taken,
    refused,
    baseMg,
    ingredients: ingredients.filter((i) => i.massMg > 0),
    output: {
      lowMg: Math.round(baseMg * recipe.output.low),
      meanMg,
      highMg: Math.round(baseMg * recipe.output.high),
    },
    plates: recipe.gramsPerPlate === undefined ? undefined : Math.floor(baseMg / (recipe.gramsPerPlate * 1_000)),
    pieces: recipe.piece === undefined ? undefined : Math.floor(meanMg / (recipe.piece.grams * 1_000)),
    limiting,
    capped: capped.map((c) => ({ ...c, heldBackMg: c.heldBackMg + Math.max(0, leftWhole.get(c.category) ?? 0) })),
    short,
  };
}
