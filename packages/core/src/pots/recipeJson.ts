import { readFigure } from '../quantity/number.ts';
import type { Recipe, RecipeStep } from './recipe.ts';

/** A duration as ISO 8601 writes it. */
const duration = (minutes: number): string => {
  const whole = Math.round(minutes);
  return `PT${Math.floor(whole / 60) > 0 ? `${Math.floor(whole / 60)}H` : ''}${whole % 60 > 0 || whole < 60 ? `${whole % 60}M` : ''}`;
};

const words = (step: RecipeStep): string =>
  [
    step.text,
    step.tempC === undefined ? '' : `${step.tempC.low} to ${step.tempC.high} °C.`,
    step.watch === undefined ? '' : `Look: ${step.watch}.`,
  ]
    .filter((w) => w !== '')
    .join(' ');

/**
 * A recipe as a schema.org Recipe in JSON-LD, for a batch of so much base.
 *
 * Keeps   what schema.org has no word for (ranges, ways, refusals, limits) is under one property, "zabrik:recipe", so that it comes back whole.
 * Units   grams in the words of the ingredients. Source  schema.org Recipe, HowToStep.
 */
export function recipeOf(recipe: Recipe, baseGrams = 1_000): Record<string, unknown> {
  const grams = (g: number): string => `${g >= 10 ? Math.round(g) : Math.round(g * 10) / 10} g`;
  return {
    '@context': ['https://schema.org', { zabrik: 'urn:zabrik:' }],
    '@type': 'Recipe',
    '@id': `urn:zabrik:recipe:${recipe.id}:${recipe.version}`,
    name: recipe.title,
    recipeCategory: recipe.kind,
    recipeYield: `${grams(baseGrams * recipe.output.mean)} ${recipe.output.name}`,
    totalTime: duration(recipe.minutes.typical),
    recipeIngredient: [
      `${grams(baseGrams)} ${recipe.baseName}`,
      ...recipe.ingredients.filter((i) => i.perBase > 0).map((i) => `${grams(baseGrams * i.perBase)} ${i.name}`),
    ],
    recipeInstructions: recipe.steps.map((step, i) => ({
      '@type': 'HowToStep',
      position: i + 1,
      text: words(step),
      ...(step.minutes === undefined ? {} : { timeRequired: duration(step.minutes.typical) }),
    })),
    'zabrik:recipe': recipe,
  };
}

/** What a Recipe lacks to become a use by itself. */
export interface ReadRecipe {
  readonly name: string;
  readonly ingredients: readonly { readonly name: string; readonly grams: number | undefined }[];
  readonly steps: readonly RecipeStep[];
  /** The recipe as it was written by us, unread: the contract's schema says whether it still is one. */
  readonly whole: unknown;
}

const minutesIn = (iso: unknown): number | undefined => {
  const match = typeof iso === 'string' ? /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?)?$/.exec(iso) : null;
  if (match === null) return undefined;
  return Number(match[1] ?? 0) * 1_440 + Number(match[2] ?? 0) * 60 + Number(match[3] ?? 0) || undefined;
};

/** Grams in each unit that a line may name; a litre counts as a kilogram. */
const UNITS: Readonly<Record<string, number>> = {
  g: 1,
  gram: 1,
  grams: 1,
  kg: 1_000,
  ml: 1,
  l: 1_000,
  litre: 1_000,
  litres: 1_000,
  oz: 28.349_523_125,
  lb: 453.592_37,
};

/** "1.2 kg frames" as a name and grams. Of "1,200" nobody who writes grams means 1.2, and nobody who writes kilograms 1,200. */
const readIngredient = (line: string): { name: string; grams: number | undefined } => {
  const match = /^\s*([\d.,½¼¾⅓⅔ /’']+?)\s*([a-zA-Z]+)\s+(.*)$/.exec(line);
  const unit = UNITS[(match?.[2] ?? '').toLowerCase()];
  const figure = readFigure(match?.[1] ?? '');
  if (match === null || unit === undefined || figure === undefined) return { name: line.trim(), grams: undefined };
  const amount =
    figure.kind === 'one' ? figure.value : unit === 1 && figure.sign === ',' ? figure.thousands : figure.decimal;
  return { name: (match[3] ?? '').trim(), grams: amount * unit };
};

/**
 * Reads a schema.org Recipe: ours comes back whole, another's as a name, ingredients and steps to be completed.
 *
 * Errors  undefined when it is no Recipe. Plain text steps, HowToStep and HowToSection are read; what else stands there is left.
 */
export function readRecipe(json: unknown): ReadRecipe | undefined {
  const graph = (json as { '@graph'?: unknown } | null)?.['@graph'];
  const nodes: readonly unknown[] = Array.isArray(json) ? json : Array.isArray(graph) ? graph : [json];
  const found = nodes.find((n): n is Record<string, unknown> => {
    const type = (n as { '@type'?: unknown } | null)?.['@type'];
    return type === 'Recipe' || (Array.isArray(type) && type.includes('Recipe'));
  });
  if (found === undefined) return undefined;
  const texts = (value: unknown): RecipeStep[] => {
    if (typeof value === 'string')
      return value
        .split(/\r?\n/)
        .map((t) => t.trim())
        .filter((t) => t !== '')
        .map((text) => ({ kind: 'cook', text }));
    if (Array.isArray(value)) return value.flatMap(texts);
    const step = value as { text?: unknown; name?: unknown; itemListElement?: unknown; timeRequired?: unknown } | null;
    if (step?.itemListElement !== undefined) return texts(step.itemListElement);
    const text = typeof step?.text === 'string' ? step.text : typeof step?.name === 'string' ? step.name : '';
    if (text.trim() === '') return [];
    const minutes = minutesIn(step?.timeRequired);
    return [
      {
        kind: 'cook',
        text: text.trim().slice(0, 400),
        ...(minutes === undefined ? {} : { minutes: { low: minutes, typical: minutes, high: minutes } }),
      },
    ];
  };
  const { recipeIngredient, ingredients, name, recipeInstructions } = found as Readonly<
    Record<'recipeIngredient' | 'ingredients' | 'name' | 'recipeInstructions', unknown>
  >;
  const lines = recipeIngredient ?? ingredients;
  return {
    name: typeof name === 'string' ? name : '',
    ingredients: (Array.isArray(lines) ? lines : [])
      .filter((l): l is string => typeof l === 'string')
      .map(readIngredient),
    steps: texts(recipeInstructions),
    // files of versions before called it a use
    whole: found['zabrik:recipe'] ?? found['zabrik:use'],
  };
}

const isText = (value: unknown): value is string => typeof value === 'string';
const isList = (value: unknown, of: (item: unknown) => boolean): boolean => Array.isArray(value) && value.every(of);
const has = (value: unknown, shape: Readonly<Record<string, (v: unknown) => boolean>>): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.entries(shape).every(([key, fits]) => fits((value as Readonly<Record<string, unknown>>)[key]));

/**
 * Whether something has the form of a recipe, as far as a screen needs it to show it. What it means is judged where it is saved, by the
 * contract's schema: that is too much to carry into a browser for one file.
 */
export function looksLikeOurs(json: unknown): json is Recipe {
  const number = (v: unknown): boolean => typeof v === 'number' && Number.isFinite(v);
  const texts = (v: unknown): boolean => isList(v, isText);
  const anything = (v: unknown): boolean => isList(v, () => true);
  return has(json, {
    id: isText,
    title: isText,
    baseName: isText,
    kind: isText,
    vessel: isText,
    version: number,
    shelfLifeDays: number,
    accepts: texts,
    acceptsUses: texts,
    trays: texts,
    allergens: texts,
    cautions: texts,
    keeps: anything,
    caps: anything,
    marks: anything,
    refuses: (v) => isList(v, (r) => has(r, { category: isText, reason: isText })),
    ingredients: (v) =>
      isList(v, (i) =>
        has(i, { id: isText, name: isText, perBase: number, low: number, high: number, allergens: texts }),
      ),
    questions: (v) =>
      isList(v, (q) =>
        has(q, { id: isText, question: isText, ways: (w) => isList(w, (x) => has(x, { id: isText, name: isText })) }),
      ),
    output: (v) => has(v, { name: isText, low: number, mean: number, high: number, measure: isText }),
    minutes: (v) => has(v, { low: number, typical: number, high: number }),
    steps: (v) => isList(v, (s) => has(s, { kind: isText, text: isText })),
  });
}
