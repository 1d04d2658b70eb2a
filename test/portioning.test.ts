/** Cutting to weight against an independent solver: HiGHS (highs on the registry, MIT), which knows nothing of how we cut. */
import { allTemplates, templateById, usualSizes } from '@zabrik/catalogue/portioning';
import {
  type CutWish,
  fitProfile,
  massBetween,
  type PieceTemplate,
  type PortionSize,
  planCuts,
  usualLength,
} from '@zabrik/core';
import { type CutResult, cutByLength, cutByRuler, drawFillet, seededRandom } from '@zabrik/core/simulator';
import loadHighs from 'highs';
import { describe, expect, it } from 'vitest';

const template = (id: string): PieceTemplate => {
  const found = templateById.get(id);
  if (found === undefined) throw new Error(id);
  return found;
};
const wishOf = (sizes: readonly PortionSize[], change: Partial<CutWish> = {}): CutWish => ({
  sizes,
  angleDeg: 0,
  squareMm: [0, 0],
  kerfMm: 0,
  clingMg: 0,
  tail: 'end',
  endMinorPerKg: 0,
  ...change,
});

/**
 * The same question as a flow on the ruler: binary arcs for portions, a loose arc a millimetre, limits on sizes. The portions worth the
 * most; of those, the least left over. Odd pieces are not counted, so it may leave less than we do, never more worth.
 */
function asProgramme(masses: readonly number[], sizes: readonly PortionSize[]): string {
  const n = masses.length;
  const sums = [0];
  for (const m of masses) sums.push((sums.at(-1) ?? 0) + m);
  const out: string[][] = Array.from({ length: n + 1 }, () => []);
  const into: string[][] = Array.from({ length: n + 1 }, () => []);
  const bySize: string[][] = sizes.map(() => []);
  const objective: string[] = [];
  const binaries: string[] = [];
  for (let x = 0; x < n; x += 1) {
    out[x]?.push(`l${x}`);
    into[x + 1]?.push(`l${x}`);
    binaries.push(`l${x}`);
    for (let y = x + 1; y <= n; y += 1)
      for (const [s, size] of sizes.entries()) {
        const mg = (sums[y] ?? 0) - (sums[x] ?? 0);
        if (Math.abs(mg - size.targetMg) > size.toleranceShare * size.targetMg + 0.5) continue;
        const arc = `p${x}_${y}_${s}`;
        out[x]?.push(arc);
        into[y]?.push(arc);
        bySize[s]?.push(arc);
        binaries.push(arc);
        objective.push(`${size.valueMinor} ${arc}`);
      }
  }
  const balance = Array.from({ length: n + 1 }, (_, x) => {
    const terms = [...(out[x] ?? []).map((a) => `+ ${a}`), ...(into[x] ?? []).map((a) => `- ${a}`)].join(' ');
    return ` n${x}: ${terms} = ${x === 0 ? 1 : x === n ? -1 : 0}`;
  });
  const limits = sizes.flatMap((size, s) =>
    size.most == null || bySize[s]?.length === 0
      ? []
      : [` m${s}: ${bySize[s]?.map((a) => `+ ${a}`).join(' ')} <= ${size.most}`],
  );
  return `Maximize\n obj: ${objective.length === 0 ? '0 l0' : objective.join(' + ')}\nSubject To\n${[...balance, ...limits].join('\n')}\nBinary\n ${binaries.join(' ')}\nEnd`;
}

describe('cutting to weight', () => {
  it('is worth as much as HiGHS finds, on 200 random pieces with limits on sizes', async () => {
    const highs = await loadHighs();
    const random = seededRandom('pieces to part');
    let portions = 0;
    for (let k = 0; k < 200; k += 1) {
      const n = random.whole(18, 34);
      const masses = Array.from({ length: n }, () => 1_000 * random.whole(2, 30));
      const sizes = Array.from(
        { length: random.whole(1, 3) },
        (_, i): PortionSize => ({
          id: String(i),
          name: '',
          targetMg: 1_000 * random.whole(25, 160),
          toleranceShare: random.whole(0, 15) / 100,
          valueMinor: random.whole(1, 40),
          most: random.whole(0, 2) === 0 ? null : random.whole(1, 3),
        }),
      );
      const sums = [0];
      for (const m of masses) sums.push((sums.at(-1) ?? 0) + m);
      const shape = fitProfile(template('block'), { massMg: sums.at(-1) ?? 1, lengthMm: n });
      const plan = planCuts({ ...shape, upToMg: sums }, wishOf(sizes));
      const solved = highs.solve(asProgramme(masses, sizes));
      expect(solved.Status, `piece ${k}`).toBe('Optimal');
      expect(plan.valueMinor, `piece ${k}`).toBe(Math.round(solved.ObjectiveValue));
      portions += plan.portions.length;
    }
    expect(portions).toBeGreaterThan(400);
  }, 60_000);
});

describe('forms of pieces', () => {
  it('are whole: ends, zones and a length that gives the mass back', () => {
    expect(new Set(allTemplates.map((t) => t.id)).size).toBe(allTemplates.length);
    for (const t of allTemplates) {
      expect(Math.max(...t.widths), t.id).toBe(1);
      expect(Math.max(...t.thicknesses), t.id).toBe(1);
      for (const [from, to] of Object.values(t.zones)) expect(from < to && from >= 0 && to <= 1, t.id).toBe(true);
      const profile = fitProfile(t, { massMg: 500_000, lengthMm: usualLength(t, 500_000) });
      const widest = Math.max(...profile.widthMm);
      expect(profile.lengthMm / widest / t.lengthToWidth, t.id).toBeCloseTo(1, 1);
      expect(widest / Math.max(...profile.thicknessMm) / t.widthToThickness, t.id).toBeCloseTo(1, 0);
    }
    for (const size of usualSizes('white-fish-portion')) expect(size.grams).toBeGreaterThan(0);
  });

  it('integrate to Simpson’s bound: halving the step of the rule changes a portion by next to nothing', () => {
    // error of the rule on [a, b] is at most (b - a) h^4 / 180 times the greatest fourth derivative (any numerical analysis text);
    // width x thickness is a quadratic within a millimetre where no knot falls, so only the 9 millimetres with a knot in them err
    const t = template('fillet-round');
    const fine = fitProfile(t, { massMg: 689_000, lengthMm: 830 });
    const coarse = fitProfile(t, { massMg: 689_000, lengthMm: 415 });
    for (let mm = 0; mm < 415; mm += 5)
      expect(Math.abs(massBetween(coarse, 0, mm) - massBetween(fine, 0, 2 * mm))).toBeLessThan(5);
  });
});

describe('cutting by the ruler against cutting by equal lengths', () => {
  it('brings at least 20 in 100 more portions within 5 % and gives away at most half, on simulated fillets', () => {
    const t = template('fillet-round');
    const random = seededRandom('fillets on the board');
    const size: PortionSize = { id: 'main', name: '', targetMg: 160_000, toleranceShare: 0.05, valueMinor: 1 };
    const ruler = { portions: 0, inTolerance: 0, giveAwayMg: 0 };
    const eye = { portions: 0, inTolerance: 0, giveAwayMg: 0 };
    const add = (to: typeof ruler, r: CutResult): void => {
      to.portions += r.portions;
      to.inTolerance += r.inTolerance;
      to.giveAwayMg += r.giveAwayMg;
    };
    for (let k = 0; k < 150; k += 1) {
      const fillet = drawFillet(t, 420_000, 1_020_000, random);
      const n = Math.floor(fillet.measures.massMg / size.targetMg);
      add(ruler, cutByRuler(t, fillet, wishOf([{ ...size, most: n }]), random));
      add(eye, cutByLength(fillet, n, size.targetMg, size.toleranceShare, random));
    }
    expect(eye.portions).toBeGreaterThan(500);
    expect(ruler.portions).toBeGreaterThan(0.97 * eye.portions);
    expect(ruler.inTolerance / ruler.portions - eye.inTolerance / eye.portions).toBeGreaterThanOrEqual(0.2);
    expect(ruler.giveAwayMg / ruler.portions).toBeLessThanOrEqual((0.5 * eye.giveAwayMg) / eye.portions);
  }, 30_000);
});
