/** Forms of pieces, usual portion sizes, moulds and courses: what cutting to weight starts from before the house has its own. */
import type { MinutesRange, Mould, PieceTemplate, Zone } from '@zabrik/core';
import file from '../data/portioning.json' with { type: 'json' };

export interface UsualSize {
  readonly id: string;
  readonly name: string;
  readonly grams: number;
  readonly toleranceShare: number;
  readonly valueMinor: number;
  readonly from: readonly Zone[];
}

export const allTemplates = file.templates as readonly unknown[] as readonly PieceTemplate[];
export const templateById: ReadonlyMap<string, PieceTemplate> = new Map(allTemplates.map((t) => [t.id, t]));
export const usualMoulds = file.moulds as readonly unknown[] as readonly {
  readonly id: string;
  readonly name: string;
  readonly mould: Mould;
}[];
export const usualCourses: readonly { readonly id: string; readonly name: string; readonly grams: number }[] =
  file.courses;

const byCategory = new Map(file.forCategory.map((c) => [c.category, c]));
/** Lots of these categories are cut to weight. */
export const cutCategories: readonly string[] = [...byCategory.keys()];
export const cutToWeight = (category: string | null): boolean => category !== null && byCategory.has(category);
/** The forms a lot of this category may have, the usual one first; of others any. */
export function templatesFor(category: string | null): readonly PieceTemplate[] {
  const ids = byCategory.get(category ?? '')?.templates;
  return ids === undefined ? allTemplates : ids.flatMap((id) => templateById.get(id) ?? []);
}
/**
 * The form a piece has by what the plan made: a barrel is a barrel, a fillet of a flatfish is flat. Undefined where nothing tells.
 *
 * Shapes  piece: its id in the plan that made it. group: of its animal.
 */
export function formOfPiece(
  piece: string | null,
  species: string | null,
  group: string | null,
): PieceTemplate | undefined {
  const found = file.formOfPiece.find(
    (f) => f.piece === piece && (!('species' in f) || f.species === species) && (!('group' in f) || f.group === group),
  );
  return templateById.get(found?.form ?? '');
}
/** What the ends of a piece of this category are. */
export const trimCategory = (category: string | null): string | null =>
  byCategory.get(category ?? '')?.trim ?? category;
/** Usual sizes; invented values, the house's last ones replace them. */
export const usualSizes = (category: string | null): readonly UsualSize[] =>
  file.sizes[byCategory.get(category ?? '')?.sizes === 'meat' ? 'meat' : 'fish'] as readonly UsualSize[];

/**
 * How long a raw portion of this kind stands out of the chiller before it goes into the pan, so that its middle is not fridge-cold: whole
 * muscle of meat only. Undefined for fish, birds and everything else, which go from the cold.
 *
 * Units   minutes.
 * Source  common practice; the house's own limit on time out of the chiller comes first.
 */
export const outBeforePan = (category: string | null): MinutesRange | undefined =>
  category !== null && file.beforePan.categories.includes(category) ? file.beforePan.minutes : undefined;
