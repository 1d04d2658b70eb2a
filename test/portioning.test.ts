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
import { seededRandom } from '@zabrik/core/twin';
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
    let [ours, theirs, all, oursAway, theirsAway] = [0, 0, 0, 0, 0];
    for (let k = 0; k < 300; k += 1) {
      const { truth, measured, massMg, lengthMm } = simulatedFillet(t, random);
      const target = 160_000;
      const size: PortionSize = { id: 'main', name: '', targetMg: target, toleranceShare: 0.05, valueMinor: 1 };
      const n = Math.floor(massMg / target);
      if (n < 2) continue;
      const profile = fitProfile(t, measured);
      const plan = planCuts(profile, wishOf([{ ...size, most: n }]));
      const knife = (mm: number): number => mm + 1.5 * random.normal();
      const marks = plan.portions.map((p) => ({ from: p.fromMm, to: knife(p.toMm) }));
      for (const [i, p] of marks.entries()) {
        const from = i === 0 ? p.from : (marks[i - 1]?.to ?? p.from);
        const mg = massBetween(truth, from, p.to);
        if (Math.abs(mg / target - 1) <= 0.05) ours += 1;
        oursAway += Math.max(0, mg - target);
      }
      for (let i = 0; i < n; i += 1) {
        const mg = massBetween(
          truth,
          i === 0 ? 0 : knife((i * lengthMm) / n),
          i === n - 1 ? lengthMm : knife(((i + 1) * lengthMm) / n),
        );
        if (Math.abs(mg / target - 1) <= 0.05) theirs += 1;
        theirsAway += Math.max(0, mg - target);
      }
      all += n;
    }
    expect(all).toBeGreaterThan(700);
    expect(ours / all - theirs / all).toBeGreaterThanOrEqual(0.2);
    expect(oursAway).toBeLessThanOrEqual(0.5 * theirsAway);
  });
});

/** A fillet as it is, and what a cook's ruler reads off it: length to half a centimetre, two widths to about 3 mm. */
function simulatedFillet(t: PieceTemplate, random: ReturnType<typeof seededRandom>) {
  const massMg = Math.round(1_000 * (420 + 600 * random.next()));
  const lengthMm = Math.round(usualLength(t, massMg) * (1 + 0.05 * random.normal()));
  const bump = [random.normal(), random.normal(), random.normal()];
  const shaped = (values: readonly number[], sd: number): number[] =>
    values.map((v, i) => {
      const x = i / (values.length - 1);
      return (
        v *
        Math.exp(
          sd *
            ((bump[0] ?? 0) * (0.5 - x) +
              (bump[1] ?? 0) * 0.5 * Math.cos(3 * x) +
              (bump[2] ?? 0) * 0.3 * Math.sin(6 * x)),
        )
      );
    });
  const truth = fitProfile(
    { ...t, widths: shaped(t.widths, 0.1), thicknesses: shaped(t.thicknesses, 0.1) },
    { massMg, lengthMm },
  );
  const widths = t.measureAt.map((at) => ({
    at,
    mm: Math.max(5, (truth.widthMm[Math.round(at * lengthMm)] ?? 0) + 3 * random.normal()),
  }));
  return { truth, massMg, lengthMm, measured: { massMg, lengthMm: 5 * Math.round(lengthMm / 5), widths } };
}
