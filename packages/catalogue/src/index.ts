/** The handbook that ships with the app: species, cut plans, recipes, piece categories. Data in ../data, provenance beside each figure. */
import type {
  CutPlan,
  InspectionClass,
  LimitProfile,
  PlaceKind,
  PlanPiece,
  Provenance,
  Recipe,
  Species,
  TubPurpose,
} from '@zabrik/core';
import categoriesFile from '../data/categories.json' with { type: 'json' };
import cautionsFile from '../data/cautions.json' with { type: 'json' };
import collectionsFile from '../data/collections.json' with { type: 'json' };
import goodsFile from '../data/goods.json' with { type: 'json' };
import inspectionFile from '../data/inspection.json' with { type: 'json' };
import keepingFile from '../data/keeping.json' with { type: 'json' };
import limitsFile from '../data/limits.json' with { type: 'json' };
import neverFile from '../data/never.json' with { type: 'json' };
import speciesFile from '../data/species.json' with { type: 'json' };
import { rulesByCategory } from './categoryRules.ts';
import { planFiles } from './planFiles.ts';
import { recipeFiles } from './recipeFiles.ts';

/** A kind of piece. `useWithinHours`: at 0 to 3 °C after cutting (estimate); 0 means to the bin at once. */
export interface PieceCategory {
  readonly id: string;
  readonly label: string;
  readonly group: string;
  readonly edible: boolean;
  readonly useWithinHours: number;
}

/** Something bought that is no animal. `trim`: the share of the purchase that comes off, and whether it is worth collecting. */
export interface Goods {
  readonly id: string;
  readonly name: string;
  readonly group: 'vegetable' | 'herb' | 'dairy' | 'dry' | 'bought-stock';
  readonly lifeDays: number;
  readonly place: PlaceKind;
  readonly allergens: readonly string[];
  readonly ready?: boolean;
  /** The ingredient of the recipes that it can be. */
  readonly ingredient?: string;
  readonly trim?: {
    readonly mean: number;
    readonly low: number;
    readonly high: number;
    readonly goesTo?: string;
    /** Why no pot takes it. */
    readonly never?: string;
    readonly provenance: Provenance;
    readonly source: string;
  };
}

/** A usual caution of the trade. `show`: when. open: as a screen opens; first: once a person and day; log: beside a field; block: before it is saved; print: on paper. */
export interface Caution {
  readonly id: string;
  readonly area: 'work' | 'food';
  readonly show: readonly ('open' | 'first' | 'log' | 'block' | 'print')[];
  readonly text: string;
}

// JSON modules type their strings as string; catalogue.test.ts checks every file against the contract's schemas
export const allSpecies = speciesFile.species as readonly Species[];
export const allPlans = planFiles as readonly CutPlan[];
/** Pieces that go in nothing, whatever the batch: added to what each recipe refuses by itself. */
export const neverIn: Recipe['refuses'] = neverFile.never;
export const allRecipes = (recipeFiles as readonly Recipe[]).map((recipe) => ({
  ...recipe,
  refuses: [...recipe.refuses, ...neverIn],
}));
/** Limits as three documents publish them, recalled from memory: each says how sure we are of it. The house chooses one. */
export const limitProfiles = limitsFile.profiles as readonly unknown[] as readonly LimitProfile[];
export const allCategories: readonly PieceCategory[] = categoriesFile.categories;

export const allGoods = goodsFile.goods as readonly unknown[] as readonly Goods[];
export const allCautions = cautionsFile.cautions as readonly unknown[] as readonly Caution[];
/** Stands under every sheet of cautions. */
export const standingCaution: string = cautionsFile.standing;
export const inspectionClasses = inspectionFile.classes as readonly unknown[] as readonly InspectionClass[];

const byId = <T extends { readonly id: string }>(items: readonly T[]): ReadonlyMap<string, T> =>
  new Map(items.map((item) => [item.id, item]));

export const speciesById = byId(allSpecies);
export const planById = byId(allPlans);
export const recipeById = byId(allRecipes);
export const categoryById = byId(allCategories);
export const goodsById = byId(allGoods);

/** What a collecting tub may be for: every recipe, and what is collected without one. */
export const tubPurposes = new Map<string, TubPurpose>([
  ...allRecipes.map((recipe): [string, TubPurpose] => [recipe.id, recipe]),
  ...collectionsFile.collections.map((c): [string, TubPurpose] => [
    c.id,
    { ...c, refuses: [], caps: [], enoughMg: c.enoughGrams * 1_000 },
  ]),
]);
export const inspectionById = byId(inspectionClasses);

/** What each kind of piece may be used for, and where it usually goes. */
export const categoryRules = rulesByCategory(allPlans);
/** What a piece of this kind may be used for, of a plan or of none. */
export const pieceRules = (category: string): Pick<PlanPiece, 'edible' | 'refused'> => ({
  edible: categoryById.get(category)?.edible ?? false,
  refused: categoryRules.get(category)?.refused ?? [],
});

/** A form that enters a plan at a later stage is what an earlier one would have made: of one kind where all that leads there is. */
const enteredAs = allPlans.flatMap((plan) =>
  plan.starts.flatMap(({ species, forms, at }) => {
    const before = plan.stages.flatMap((s) => s.pieces).filter((p) => at !== undefined && p.next === at);
    const [first, ...others] = new Set(before.map((p) => p.category));
    return first === undefined || others.length > 0
      ? []
      : forms.map((form): [string, string] => [`${species}/${form}`, first]);
  }),
);
const formCategory = new Map([
  ...enteredAs,
  ...allPlans.flatMap((plan) =>
    plan.stages.flatMap((stage) =>
      stage.pieces.flatMap((piece) =>
        [piece.yieldForm, piece.becomes].flatMap((form) =>
          form === undefined ? [] : plan.starts.map((s): [string, string] => [`${s.species}/${form}`, piece.category]),
        ),
      ),
    ),
  ),
]);
/** What kind of piece an animal bought in this form is, where a cut plan makes that form: a fillet bought is a fillet. */
export const categoryOfForm = (species: string, form: string): string | null =>
  formCategory.get(`${species}/${form}`) ?? null;

/** The kind of piece a lot is to a pot: a whole crustacean nobody has cut is one as well. Empty for what is no piece. */
export const categoryInPots = (category: string | null, species: string | null): string =>
  category ?? (speciesById.get(species ?? '')?.group === 'crustacean' ? 'crustacean-whole' : '');

/** Days after thawing, the day of thawing as day one. UK guidance as recalled, 24 h from full thaw; the house may be stricter. */
export const THAWED_DAYS = keepingFile.thawedDays + 1;
/** How long an opened pack keeps where the profile is silent of it: kitchen practice, no single source; the label wins when it is shorter. */
export const openedByPractice = (ready: boolean) => ({
  value: { max_days: ready ? keepingFile.openedDays.ready : keepingFile.openedDays.raw, day_of_opening_is: 1 as const },
  citation: { document: 'kitchen practice', section: '' },
});

/** Days a lot keeps its quality frozen, by the group of its category. Estimate. */
export const frozenDays = (category: string | null): number =>
  (keepingFile.frozenDays as Readonly<Record<string, number>>)[categoryById.get(category ?? '')?.group ?? 'batch'] ??
  90;

/** Days a bought animal keeps from receipt, by group, when the delivery gives no date. Estimate: the house's own plan decides. */
const RECEIPT_DAYS: Readonly<Record<string, number>> = {
  'round-fish': 2,
  flatfish: 3,
  'large-pelagic': 3,
  crustacean: 1,
  mollusc: 2,
  poultry: 4,
  'feathered-game': 4,
  'furred-game': 4,
  'farmed-meat': 5,
};
export const receiptDays = (group: string): number => RECEIPT_DAYS[group] ?? 2;
