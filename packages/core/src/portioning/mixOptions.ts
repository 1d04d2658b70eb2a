import type { PieceProfile } from './pieceProfile.ts';
import { type CutsForWeight, type CutWish, cutEqually, planCuts, readMarks } from './planCuts.ts';

/** One way to cut a piece, beside others. */
export interface MixOption extends CutsForWeight {
  /** How it came about: the most worth, one size only, without one of the sizes, or alike with nothing left. */
  readonly kind: 'best' | 'single' | 'without' | 'even';
}

const signature = (option: CutsForWeight): string => {
  const counts = new Map<string, number>();
  for (const p of option.portions) counts.set(p.sizeId, (counts.get(p.sizeId) ?? 0) + 1);
  return `${[...counts].sort().join(';')}/${option.ends.length === 0}`;
};

/** Whether nobody gets less than was promised. */
const asPromised = (option: CutsForWeight, wish: CutWish): boolean =>
  option.portions.every((p) => {
    const size = wish.sizes.find((s) => s.id === p.sizeId);
    return size === undefined || p.massMg >= size.targetMg * (1 - size.toleranceShare) - 1;
  });

/**
 * The ways worth showing side by side: the plan worth most, each size alone, the plan without each of its sizes, and portions all
 * alike with nothing left over (as many as the main size gives, and one more). Alike ones once. What holds the promise stands
 * first, of that the one worth most, whatever it is called; then what is lighter than promised.

 *
 * Shapes  at most `limit` options, at least one when any portion is possible.
 */
export function mixOptions(profile: PieceProfile, wish: CutWish, limit = 4): readonly MixOption[] {
  const best = planCuts(profile, wish);
  const options: MixOption[] = [{ ...best, kind: 'best' }];
  for (const size of wish.sizes) options.push({ ...planCuts(profile, { ...wish, sizes: [size] }), kind: 'single' });
  const used = new Set(best.portions.map((p) => p.sizeId));
  if (used.size > 1)
    for (const id of used)
      options.push({
        ...planCuts(profile, { ...wish, sizes: wish.sizes.filter((s) => s.id !== id) }),
        kind: 'without',
      });
  const [main] = wish.sizes;
  if (main !== undefined && wish.kerfMm === 0 && wish.angleDeg === 0 && (wish.locked ?? []).length === 0) {
    const from = wish.fromMm ?? 0;
    const whole = profile.massMg - (profile.upToMg[from] ?? 0);
    const about = Math.floor(whole / main.targetMg);
    for (const n of [about, about + 1])
      if (n >= 1 && Math.abs(whole / n / main.targetMg - 1) <= 0.25) {
        // worth its price only while nobody gets less than was promised
        const fair = whole / n >= main.targetMg * (1 - main.toleranceShare);
        const even = readMarks(profile, { ...wish, sizes: [main] }, cutEqually(profile, n, from));
        options.push({
          ...even,
          valueMinor: fair ? n * main.valueMinor : Math.round((n * main.valueMinor * whole) / n / main.targetMg),
          kind: 'even',
        });
      }
  }
  const seen = new Set<string>();
  return options
    .filter((o) => o.portions.length > 0)
    .filter((o) => {
      const key = signature(o);
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    })
    .sort(
      (a, b) =>
        Number(asPromised(b, wish)) - Number(asPromised(a, wish)) ||
        b.valueMinor - a.valueMinor ||
        Number(b.kind === 'best') - Number(a.kind === 'best') ||
        a.endMg - b.endMg,
    )
    .slice(0, limit);
}
