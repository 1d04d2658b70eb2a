import { minor, shareOut } from '../quantity/money.ts';

/** What a component of a plate is: pieces of a kind, a batch of a recipe, or goods that are bought. */
export type ComponentSource =
  | { readonly kind: 'pieces'; readonly category: string; readonly species: string | null }
  | { readonly kind: 'batch'; readonly recipeId: string }
  | { readonly kind: 'goods'; readonly goods: string };

export interface PlateComponent {
  readonly name: string;
  readonly of: ComponentSource;
  /** So many on a plate; null where it is an amount, as of a sauce. */
  readonly count: number | null;
  /** Grams of each, or of the amount. A millilitre of a sauce is taken as a gram. */
  readonly grams: number;
}

export interface Plate {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly components: readonly PlateComponent[];
}

/** A lot as far as plates can be served from it: what nobody has promised, held back, or kept past its date. */
export interface ServableLot {
  readonly massMg: number;
  readonly pieces: number;
  readonly costMinor: number;
}

export interface ComponentFigures {
  /** Plates it is enough for by itself. */
  readonly covers: number;
  readonly onHandMg: number;
  /** What one plate of it costs, minor units, by what lies there; null where nothing does: nobody knows then. */
  readonly perCoverMinor: number | null;
  /** Pieces of the kind that are of another size, and not counted. */
  readonly otherSize: number;
}

export interface PlateFigures {
  readonly covers: number;
  /** The components that keep it from being more. */
  readonly limiting: readonly string[];
  /** What is known of its cost, minor units, and of which components it is not. */
  readonly costMinor: number;
  readonly unknownCost: readonly string[];
  readonly components: readonly ComponentFigures[];
}

/** A portion this far from what the plate asks for is another portion. */
const OTHER_SIZE = 0.15;

const inPieces = (c: PlateComponent): boolean => c.of.kind === 'pieces' && c.count !== null;
const mgOf = (c: PlateComponent): number => c.grams * 1_000 * (c.count ?? 1);

/**
 * How many plates can be served from what lies there, what holds it back, and what one costs.
 *
 * Shapes  stock: the lots of each component, in the components' order. Components of one source share its lots: a carrot in the sauce and beside it.
 * Units   milligrams, minor units.
 * Keeps   portions are counted, and only those within 15 % of the size asked for; all else goes by mass. Never more plates than the scarcest
 *         component allows. Cost is the mean of what lies there, and what its components cost adds up to it; a component of which nothing lies
 *         there has none, and is named.
 * @example 14 portions, 2 l of sauce at 60 ml, 30 strips of carrot of 4 g at 4 a plate from 100 g -> 6 plates, limited by the carrot
 */
export function plateFigures(plate: Plate, stock: readonly (readonly ServableLot[])[]): PlateFigures {
  const sourceOf = (c: PlateComponent): string => JSON.stringify(c.of);
  const lots = plate.components.map((c, i) => {
    const all = stock[i] ?? [];
    const fits = (lot: ServableLot): boolean =>
      !inPieces(c) ||
      (lot.pieces > 0 && Math.abs(lot.massMg / lot.pieces - c.grams * 1_000) <= c.grams * 1_000 * OTHER_SIZE + 1e-6);
    return {
      of: all.filter(fits),
      otherSize: all.filter((lot) => !fits(lot)).reduce((sum, lot) => sum + lot.pieces, 0),
    };
  });
  const sum = (of: readonly ServableLot[], by: keyof ServableLot): number =>
    of.reduce((total, lot) => total + lot[by], 0);
  const exact = plate.components.map((c, i): ComponentFigures => {
    const mine = lots[i] ?? { of: [], otherSize: 0 };
    const sharing = plate.components.filter((other) => sourceOf(other) === sourceOf(c));
    const counted = sharing.every(inPieces);
    const there = sum(mine.of, counted ? 'pieces' : 'massMg');
    const takes = sharing.reduce((total, other) => total + (counted ? (other.count ?? 1) : mgOf(other)), 0);
    const own = inPieces(c) ? (c.count ?? 1) : mgOf(c);
    const ofOwn = sum(mine.of, inPieces(c) ? 'pieces' : 'massMg');
    return {
      covers: takes > 0 ? Math.floor(there / takes + 1e-9) : 0,
      onHandMg: sum(mine.of, 'massMg'),
      perCoverMinor: ofOwn > 0 ? (sum(mine.of, 'costMinor') * own) / ofOwn : null,
      otherSize: mine.otherSize,
    };
  });
  // nine components of a penny and a quarter are eleven pence, and stand there as eleven
  const costs = exact.map((c) => c.perCoverMinor ?? 0);
  const total = Math.round(costs.reduce((sum, cost) => sum + cost, 0));
  const shares = total > 0 ? shareOut(total, costs) : costs.map(() => minor(0));
  const components = exact.map((c, i) => ({ ...c, perCoverMinor: c.perCoverMinor === null ? null : (shares[i] ?? 0) }));
  const covers = components.length === 0 ? 0 : Math.min(...components.map((c) => c.covers));
  const named = (which: (c: ComponentFigures) => boolean): string[] =>
    plate.components.flatMap((c, i) => (components[i] !== undefined && which(components[i]) ? [c.name] : []));
  return {
    covers,
    limiting: named((c) => c.covers === covers),
    costMinor: total,
    unknownCost: named((c) => c.perCoverMinor === null),
    components,
  };
}
