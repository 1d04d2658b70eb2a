import type { Destination, Provenance } from '../breakdown/plan.ts';
import type { CookedAs } from '../safety/food.ts';
import type { MinutesUpTo } from '../timing/minutesBySize.ts';

export const recipeKinds = [
  'stock',
  'pan-sauce',
  'reduction',
  'sauce',
  'liquor',
  'filling',
  'assembly',
  'rendering',
  'preserve',
  'garnish',
  'staff-dish',
] as const;
export type RecipeKind = (typeof recipeKinds)[number];

export interface Spread {
  readonly low: number;
  readonly typical: number;
  readonly high: number;
}

export interface RecipeIngredient {
  readonly id: string;
  readonly name: string;
  /** Mass per unit of base mass (the pieces the recipe is built on): 1 kg of bones to 1 kg of water is 1. */
  readonly perBase: number;
  /** The range in which cooks keep it. */
  readonly low: number;
  readonly high: number;
  readonly allergens: readonly string[];
  /** Nobody has said yet which allergens it has: a recipe of the house's own cannot be saved before. */
  readonly unsaid?: true;
  /** What becomes of it where it is no part of what comes out: strained out with the solids, or poured away with the water. */
  readonly becomes?: 'strained' | 'poured';
  /** Kinds of pieces that are this ingredient: fat for a forcemeat, a trotter for a stock. They do not count as base. */
  readonly accepts?: readonly string[];
  /** Batches of these recipes are this ingredient: a stock for a pan sauce. */
  readonly acceptsUses?: readonly string[];
  /** Bought-in goods that are this ingredient: flour of the larder for the roux. */
  readonly acceptsGoods?: readonly string[];
}

/** Whether what goes in must be raw, must be cooked, or is cooked through together whatever it was. */
export type TakesState = 'raw' | 'cooked' | 'any';

/** One way of doing what cooks do in several ways, and what it buys. */
export interface RecipeVariant {
  readonly id: string;
  readonly name: string;
  readonly gives: string;
  /** What it changes: an ingredient's share, the time, the output (times this), what state the pieces must be in. */
  readonly perBase?: Readonly<Record<string, number>>;
  readonly minutes?: number;
  readonly outputFactor?: number;
  /** Bands of its own that the mix is held against. */
  readonly balance?: string;
  readonly takes?: TakesState;
  /** Curing salt goes in: its kind and the nitrite aimed at are asked for. */
  readonly cures?: true;
}
/** A question on which schools disagree. The first way is the handbook's; the house sets its own. */
export interface RecipeQuestion {
  readonly id: string;
  readonly question: string;
  readonly ways: readonly RecipeVariant[];
}

export const stepKinds = [
  'prepare',
  'brown',
  'sweat',
  'deglaze',
  'heat',
  'skim',
  'simmer',
  'boil',
  'reduce',
  'mix',
  'cook',
  'season',
  'rest',
  'strain',
  'cool',
  'keep',
] as const;
export interface RecipeStep {
  readonly kind: (typeof stepKinds)[number];
  readonly text: string;
  /** Where it takes its time: a timer is offered. */
  readonly minutes?: Spread;
  /** The same by the mass of one piece, the smallest first. */
  readonly bySize?: readonly MinutesUpTo[];
  /** What the probe should show meanwhile, °C. */
  readonly tempC?: { readonly low: number; readonly high: number };
  /** What to look at before going on. */
  readonly watch?: string;
  /** Only where one of these ways was chosen. */
  readonly ways?: readonly string[];
  /** It cooks through or boils whatever is in it: from here what was raw has a new life. */
  readonly kills?: true;
  /** How it looks when it is right: a photograph this house keeps. */
  readonly photo?: string;
}

export const keptAs = ['raw', 'chilled', 'cured', 'under-fat', 'vacuum', 'dry', 'hot', 'frozen'] as const;
export type KeptAs = (typeof keptAs)[number];

/** Something that comes out of a batch beside what it is for: it has its own field at the end, and its own lot or the bin. */
export interface ByProduct {
  readonly id: string;
  readonly name: string;
  /** Kind of piece it is from then on; left out: it is a batch of its own, as a liquor is. */
  readonly category?: string;
  readonly destination: Destination;
  readonly keepDays: number;
  /** Usually thrown away unless somebody keeps it. */
  readonly usuallyWaste?: true;
}

/** How long it keeps in a state. `maxC` null: not cold. Days of quality and of practice; the house's limits come on top. */
export interface RecipeKeep {
  readonly state: string;
  readonly as: KeptAs;
  /** The profiles it speaks of; left out: of all. */
  readonly profiles?: readonly string[];
  readonly days: number;
  readonly maxC: number | null;
  readonly jurisdiction: string;
  readonly source: string;
  readonly provenance: Provenance;
}

/** A batch formula that eats pieces. */
export interface Recipe {
  readonly id: string;
  readonly version: number;
  readonly kind: RecipeKind;
  readonly title: string;
  /** What the base mass is called in the kitchen: "bones", "fish", "trim". */
  readonly baseName: string;
  readonly accepts: readonly string[];
  /** Batches of these recipes are its base: a stock for a reduction. */
  readonly acceptsUses: readonly string[];
  /** Vegetables, dairy and dry goods that are its base: leeks for a soup, cream for a butter. */
  readonly acceptsGoods?: readonly string[];
  readonly takes: TakesState;
  /** Trays this recipe empties. */
  readonly trays: readonly Destination[];
  readonly refuses: readonly { readonly category: string; readonly reason: string }[];
  /** The most of the base a category may be, 0..1. */
  readonly caps: readonly { readonly category: string; readonly maxShare: number; readonly reason: string }[];
  readonly ingredients: readonly RecipeIngredient[];
  readonly questions: readonly RecipeQuestion[];
  /** Finished mass per unit of base mass. A stock is measured in litres; a litre of it is taken as a kilogram. */
  readonly output: {
    readonly name: string;
    readonly low: number;
    readonly mean: number;
    readonly high: number;
    readonly measure: 'litres' | 'mass';
  };
  /** Whether what comes out is ready to eat; else it is raw, and lives no longer than what is in it. */
  readonly ready: boolean;
  /**
   * What goes in stays what it was, only cooked or cured: it is named after the pieces ("Rabbit hind legs, confit"), counted as they were,
   * and an animal that has a form of that name goes on to the bench.
   */
  readonly keepsPieces?: { readonly word: string; readonly form?: string };
  /** How meat or fish is when it is cooked through here: which cooking limits cover it. */
  readonly cooksAs?: CookedAs;
  /** The pieces it is built on are strained out: bones. */
  readonly baseStrained?: true;
  readonly byProducts?: readonly ByProduct[];
  /** The kind of piece it is from then on, where it is one: rendered fat. */
  readonly category?: string;
  /** Strengths cooks take it to afterwards, as a share of its volume. */
  readonly marks: readonly { readonly name: string; readonly factor: number; readonly note?: string }[];
  readonly vessel: 'pot' | 'pan' | 'oven' | 'blender' | 'bath' | 'fryer' | 'bowl' | 'none';
  /** What it is kept at while it cooks, °C. */
  readonly heatC?: { readonly low: number; readonly high: number };
  /** Volume the raw batch takes in the vessel, litres per kilogram of base, water and all; undefined where none is needed. */
  readonly litresPerKg?: number;
  /** Base in one layer, kilograms to a square metre of pan: where the pan's floor decides how much goes in. */
  readonly layerKgPerM2?: number;
  /** How it looks when it is right: a photograph this house keeps. */
  readonly photo?: string;
  /** For dishes: base mass a plate takes, grams. */
  readonly gramsPerPlate?: number;
  /** For fillings: what one piece takes of the finished filling. */
  readonly piece?: { readonly name: string; readonly grams: number };
  /** Which bands its balance of fat, protein, water and salt is held against. */
  readonly balance?: string;
  /** It goes into what was boned out: how much is worked out from what came out. */
  readonly fills?: boolean;
  /** Must stay colder than this while it is worked, °C. */
  readonly splitsAboveC?: number;
  readonly minutes: Spread;
  readonly steps: readonly RecipeStep[];
  readonly cautions: readonly string[];
  readonly keeps: readonly RecipeKeep[];
  readonly shelfLifeDays: number;
  readonly allergens: readonly string[];
  readonly provenance: Provenance;
  readonly source: string;
}

/** Every way of a recipe that stands when these are chosen: the chosen one of each question, else its first. */
export const waysOf = (recipe: Recipe, chosen: readonly string[]): readonly RecipeVariant[] =>
  recipe.questions.flatMap((q) => q.ways.find((w) => chosen.includes(w.id)) ?? q.ways[0] ?? []);

/**
 * The recipe as it is made when these ways are chosen and these shares are set: no questions left.
 *
 * Shapes  chosen: ids of ways, at most one of each question counts. shares: ingredient id to mass per base.
 * Keeps   low, mean and high of the output move together, and never above what goes in; steps of ways not chosen are left out.
 * @example fumet with water 1.2 instead of 1: 1.1 litres a kilo instead of 0.9
 * @example fumet, "min-45": 45 minutes, the step of the 20-minute school is gone
 */
export function withWays(
  recipe: Recipe,
  chosen: readonly string[],
  shares: Readonly<Record<string, number>> = {},
): Recipe {
  const ways = waysOf(recipe, chosen);
  const standing = new Set(ways.map((w) => w.id));
  const factor = ways.reduce((f, w) => f * (w.outputFactor ?? 1), 1);
  const usualShare = (id: string, usual: number): number => ways.reduce((share, w) => w.perBase?.[id] ?? share, usual);
  const perBase = (id: string, usual: number): number => shares[id] ?? usualShare(id, usual);
  // more water is more stock, more cream more filling: what is set beside the ways moves the output by as much as goes in, unless it is
  // strained out or poured away again
  const moved = recipe.ingredients.reduce(
    (sum, i) =>
      sum +
      (shares[i.id] === undefined || i.becomes !== undefined
        ? 0
        : perBase(i.id, i.perBase) - usualShare(i.id, i.perBase)),
    0,
  );
  // nothing gives more than goes into it
  const goesIn = 1 + recipe.ingredients.reduce((sum, i) => sum + perBase(i.id, i.perBase), 0);
  const output = (of: number): number => Math.min(goesIn, Math.max(of * factor * 0.1, of * factor + moved));
  const minutes = ways.reduce<number | undefined>((m, w) => w.minutes ?? m, undefined);
  const takes = ways.reduce<TakesState>((t, w) => w.takes ?? t, recipe.takes);
  const balance = ways.reduce<string | undefined>((b, w) => w.balance ?? b, recipe.balance);
  return {
    ...recipe,
    ...(balance === undefined ? {} : { balance }),
    takes,
    ingredients: recipe.ingredients.map((i) => ({ ...i, perBase: perBase(i.id, i.perBase) })),
    output: {
      ...recipe.output,
      low: output(recipe.output.low),
      mean: output(recipe.output.mean),
      high: output(recipe.output.high),
    },
    minutes:
      minutes === undefined
        ? recipe.minutes
        : {
            low: Math.min(minutes, recipe.minutes.low),
            typical: minutes,
            high: Math.max(minutes, recipe.minutes.high),
          },
    steps: recipe.steps.filter((s) => s.ways === undefined || s.ways.some((w) => standing.has(w))),
  };
}

/** Shares of ingredients that were set outside the range cooks keep them in, in words. */
export const outsideRange = (recipe: Recipe, shares: Readonly<Record<string, number>>): readonly string[] =>
  recipe.ingredients.flatMap((i) => {
    const share = shares[i.id];
    if (share === undefined || (share >= i.low && share <= i.high)) return [];
    const side = share < i.low ? `less than the ${i.low}` : `more than the ${i.high}`;
    return [`${share} ${i.name} to 1 ${recipe.baseName} is ${side} usually kept to`];
  });
