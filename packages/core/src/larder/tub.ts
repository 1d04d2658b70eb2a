/** A collecting tub: many lots go in over days, and one day there is enough for a pot. */

import type { Recipe } from '../pots/recipe.ts';
import type { TracedMovement } from '../trace/lineage.ts';
import { eachAlone } from '../trace/stockTake.ts';

export interface TubKind {
  readonly kind: string;
  readonly massMg: number;
}

/**
 * What a tub holds by kind. What is taken out is taken evenly of everything in it at that moment, as out of a mixed tub.
 *
 * Shapes  movements: all that touch the tub. kindOf: the kind of a lot that went in. Result: largest first, kinds that ran out left out.
 * Units   milligrams, not rounded; they add up to what the tub holds.
 */
export function tubContents(
  tubId: string,
  movements: readonly TracedMovement[],
  kindOf: (lotId: string) => string,
): TubKind[] {
  const held = new Map<string, number>();
  let total = 0;
  // another lot that was short in the same stock-take put nothing into it
  const order = movements.flatMap(eachAlone).sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
  for (const { postings } of order) {
    const change = postings.reduce((sum, p) => sum + (p.lotId === tubId ? p.massMg : 0), 0);
    if (change < 0) {
      const keep = total > 0 ? Math.max(0, (total + change) / total) : 0;
      for (const [kind, mass] of held) held.set(kind, mass * keep);
    } else if (change > 0) {
      const from = postings.filter((p) => p.lotId !== null && p.lotId !== tubId && p.massMg < 0);
      const given = from.reduce((sum, p) => sum - p.massMg, 0);
      for (const { lotId, massMg } of from) {
        const kind = kindOf(lotId ?? '');
        held.set(kind, (held.get(kind) ?? 0) - (massMg * change) / given);
      }
      // counted more than was known to be in it: nobody saw what
      if (from.length === 0) held.set('', (held.get('') ?? 0) + change);
    }
    total += change;
  }
  return [...held]
    .filter(([, mass]) => mass >= 1)
    .map(([kind, massMg]) => ({ kind, massMg }))
    .sort((a, b) => b.massMg - a.massMg || a.kind.localeCompare(b.kind));
}

/** What a tub collects for: a recipe, or a collection that only has to become enough. */
export interface TubPurpose extends Pick<Recipe, 'id' | 'title' | 'accepts' | 'refuses' | 'caps'> {
  readonly litresPerKg?: number;
  readonly gramsPerPlate?: number;
  /** Where there is no recipe to work it out from. */
  readonly enoughMg?: number;
}

export interface PotDue {
  /** What of the tub the recipe takes, caps and all. */
  readonly usableMg: number;
  /** What the smallest pot wants to be worth lighting a burner for. */
  readonly enoughMg: number;
  readonly due: boolean;
}

/** How far a pot is filled before it is worth its burner: a common rule of the kitchen, no source. */
const WORTH_FILLING = 0.5;

/**
 * Whether a tub has enough for a pot of a recipe: half of the smallest vessel, with its water and vegetables, as far as it may be filled.
 *
 * Shapes  contents: what the tub holds by piece category. litres: the house's vessels; a recipe that needs none wants ten plates, or 1 kg.
 * Units   milligrams; litres; the fill is three quarters of the vessel's name.
 * @example a fumet of 2.5 l a kg of bones in a 12 l pot: 12 x 0.75 x 0.5 / 2.5 = 1.8 kg
 */
export function potDue(recipe: TubPurpose, contents: readonly TubKind[], litres: readonly number[]): PotDue {
  const accepted = contents.filter((c) => recipe.accepts.includes(c.kind));
  const usableMg = accepted.reduce((sum, c) => {
    const cap = recipe.caps.find((k) => k.category === c.kind);
    if (cap === undefined) return sum + c.massMg;
    const rest = accepted.reduce((s, o) => s + (o.kind === c.kind ? 0 : o.massMg), 0);
    return sum + (cap.maxShare >= 1 ? c.massMg : Math.min(c.massMg, (rest * cap.maxShare) / (1 - cap.maxShare)));
  }, 0);
  const usable = litres.filter((l) => Number.isFinite(l) && l > 0);
  const smallest = usable.length === 0 ? undefined : Math.min(...usable);
  const enoughMg =
    recipe.enoughMg ??
    (recipe.litresPerKg !== undefined && recipe.litresPerKg > 0 && smallest !== undefined
      ? Math.round(((smallest * 0.75 * WORTH_FILLING) / recipe.litresPerKg) * 1_000_000)
      : recipe.gramsPerPlate !== undefined
        ? recipe.gramsPerPlate * 10_000
        : 1_000_000);
  return { usableMg: Math.floor(usableMg), enoughMg, due: usableMg >= enoughMg };
}
