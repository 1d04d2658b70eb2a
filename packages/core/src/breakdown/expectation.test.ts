import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { drawAnimal, seededRandom } from '../simulator/index.ts';
import { advisePiece } from './advisePiece.ts';
import { effectiveWeighings } from './effectiveWeighings.ts';
import { expectPieces, type PieceState } from './expectPieces.ts';
import { believeShare } from './shareBelief.ts';

describe('believing a share', () => {
  const prior = { mean: 0.43, sd: 0.025 };

  it('is the handbook when there is no record', () => {
    const belief = believeShare(prior, []);
    expect(belief.mean).toBeCloseTo(0.43, 6);
    expect(belief.sd).toBeGreaterThan(0.024);
    expect(belief.sd).toBeLessThan(0.035);
  });

  it('lies between handbook and own records, and nearer the records the more there are', () => {
    const means = [3, 12, 60].map(
      (n) =>
        believeShare(
          prior,
          Array.from({ length: n }, (_, i) => 0.4 + 0.01 * Math.sin(i)),
        ).mean,
    );
    expect(means[0]).toBeGreaterThan(means[1] ?? 0);
    expect(means[1]).toBeGreaterThan(means[2] ?? 0);
    expect(means[2]).toBeGreaterThan(0.4);
    // by hand: of sixty the newest counts one, the tenth a half: 14.7 records in all; so far off the handbook's mean counts less than one
    expect(means[2]).toBeLessThan(0.403);
    // older records fade: sixty that said 0.5 before sixty that say 0.4 leave less than an equal part of them
    const changed = believeShare(prior, [
      ...Array.from({ length: 60 }, () => 0.4),
      ...Array.from({ length: 60 }, () => 0.5),
    ]);
    expect(changed.mean).toBeLessThan(0.415);
  });

  it('is not moved far by one mis-weighed animal', () => {
    const good = Array.from({ length: 20 }, (_, i) => 0.43 + 0.015 * Math.sin(i * 1.7));
    const moved = believeShare(prior, [...good, 0.9]).mean - believeShare(prior, good).mean;
    expect(Math.abs(moved)).toBeLessThan(0.006);
  });

  it('never leaves 0..1 or goes NaN, whatever it is fed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 0.99, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 40 }),
        (mean, sd, records) => {
          const belief = believeShare({ mean, sd }, records);
          expect(belief.mean).toBeGreaterThan(0);
          expect(belief.mean).toBeLessThan(1);
          expect(Number.isFinite(belief.sd)).toBe(true);
        },
      ),
    );
  });

  it('covers the next animal about as often as it says, on a simulated kitchen after 30 records', () => {
    const random = seededRandom('coverage');
    let inside = 0;
    const trials = 2_000;
    for (let t = 0; t < trials; t += 1) {
      const house = 0.43 + 0.02 * random.normal();
      const draw = (): number => house + 0.022 * random.normal();
      const belief = believeShare(prior, Array.from({ length: 30 }, draw));
      if (Math.abs(draw() - belief.mean) < 1.2815515655446004 * belief.sd) inside += 1;
    }
    expect(inside / trials).toBeGreaterThan(0.77);
    expect(inside / trials).toBeLessThan(0.84);
  });
});

const state = (pieceId: string, mean: number, sd: number, units = 1, takenMg: readonly number[] = []): PieceState => ({
  pieceId,
  belief: { mean, sd, records: 0 },
  count: units,
  taken: takenMg.map((massMg) => ({ massMg, count: 1 })),
  accumulates: false,
});
const drip = { mean: 0.02, sd: 0.008 };

describe('what each piece should weigh', () => {
  const fish = (head: readonly number[], fillet: readonly number[]) => [
    state('head', 0.2, 0.02, 1, head),
    state('fillet', 0.5, 0.025, 2, fillet),
    state('frame', 0.28, 0.02),
  ];
  const at = (pieces: readonly PieceState[], id: string) => {
    const found = expectPieces(grams(2_000), pieces, drip).find((e) => e.pieceId === id);
    if (found === undefined) throw new Error(id);
    return found;
  };

  it('starts from the shares', () => {
    expect(at(fish([], []), 'head').nextMg).toBe(grams(400));
    expect(at(fish([], []), 'fillet').nextMg).toBe(grams(500));
    expect(at(fish([], []), 'fillet').remainingMg).toBe(grams(1_000));
  });

  it('takes what a heavy head has cost from the rest', () => {
    expect(at(fish([grams(500)], []), 'fillet').nextMg).toBeLessThan(grams(500));
    expect(at(fish([grams(300)], []), 'fillet').nextMg).toBeGreaterThan(grams(500));
  });

  it('expects the second fillet near the first, and more surely', () => {
    const before = at(fish([], []), 'fillet');
    const after = at(fish([], [grams(540)]), 'fillet');
    expect(after.nextMg).toBeGreaterThan(before.nextMg);
    const spread = (e: typeof before): number => (e.high80Mg - e.low80Mg) / e.nextMg;
    expect(spread(after)).toBeLessThan(spread(before));
  });

  it('agrees with Monte Carlo conditioning on a heavy head and the first fillet', () => {
    // the same model drawn and rejected: totals normal, units alike within 4 %, everything adding up to the animal
    const random = seededRandom('conditioning');
    const second: number[] = [];
    for (let i = 0; i < 1_500_000; i += 1) {
      const head = 0.2 + 0.02 * random.normal();
      if (Math.abs(head - 0.22) > 0.004) continue;
      const total = 0.5 + 0.025 * random.normal();
      const first = (total / 2) * (1 + 0.04 * Math.SQRT1_2 * random.normal());
      if (Math.abs(first - 0.255) > 0.004) continue;
      const sum = head + total + 0.28 + 0.02 * random.normal() + 0.02 + 0.008 * random.normal();
      if (Math.abs(sum - 1) > 0.004) continue;
      second.push(total - first);
    }
    expect(second.length).toBeGreaterThan(1_000);
    const mean = second.reduce((a, b) => a + b, 0) / second.length;
    const sd = Math.sqrt(second.reduce((a, b) => a + (b - mean) ** 2, 0) / second.length);
    // records are of whole animals: their spread is that of the parts conditioned on their sum
    const parts = [0.02, 0.025, 0.02, 0.008].map((x) => x * x);
    const all = parts.reduce((a, b) => a + b, 0);
    const [headSd = 0, filletSd = 0, frameSd = 0, dripSd = 0] = parts.map((v) => Math.sqrt(v * (1 - v / all)));
    const known = (pieceId: string, m: number, sd0: number, units: number, taken: readonly number[]): PieceState => ({
      ...state(pieceId, m, sd0, units, taken),
      belief: { mean: m, sd: sd0, records: 1_000_000 },
    });
    const ours = expectPieces(
      grams(2_000),
      [
        known('head', 0.2, headSd, 1, [grams(440)]),
        known('fillet', 0.5, filletSd, 2, [grams(510)]),
        known('frame', 0.28, frameSd, 1, []),
      ],
      { mean: 0.02, sd: dripSd },
    )[1];
    if (ours === undefined) throw new Error('no fillet');
    expect(ours.nextMg / grams(2_000)).toBeCloseTo(mean, 2);
    expect(Math.abs(ours.nextMg / grams(2_000) - mean)).toBeLessThan(0.002);
    const oursSd = (ours.high95Mg - ours.low95Mg) / (2 * 1.959963984540054) / grams(2_000);
    expect(oursSd / sd).toBeGreaterThan(0.9);
    expect(oursSd / sd).toBeLessThan(1.1);
  });

  it('takes four fillets weighed together as four', () => {
    const [fillet] = expectPieces(
      grams(1_000),
      [{ ...state('fillet', 0.6, 0.03, 6), taken: [{ massMg: grams(420), count: 4 }] }, state('frame', 0.38, 0.02)],
      drip,
    );
    expect(fillet?.openCount).toBe(2);
    expect((fillet?.nextMg ?? 0) / grams(105)).toBeGreaterThan(0.9);
    expect((fillet?.nextMg ?? 0) / grams(105)).toBeLessThan(1.1);
  });

  it('goes on expecting picked meat until the usual is reached, and never below nothing', () => {
    const picked = (g: number) =>
      expectPieces(
        grams(1_000),
        [
          { ...state('white', 0.3, 0.05), taken: [{ massMg: grams(g), count: 1 }], accumulates: true },
          state('shell', 0.68, 0.05),
        ],
        drip,
      )[0];
    expect(picked(100)?.remainingMg).toBeGreaterThan(picked(200)?.remainingMg ?? 0);
    expect(picked(400)?.remainingMg).toBeGreaterThanOrEqual(0);
    expect(picked(400)?.openCount).toBe(1);
  });

  it('keeps the mass: what is expected and the drip add up to what is left', () => {
    fc.assert(
      fc.property(fc.integer({ min: 320, max: 480 }), (headG) => {
        const all = expectPieces(grams(2_000), fish([grams(headG)], []), drip);
        const expected = all.reduce((sum, e) => sum + e.remainingMg, 0);
        const left = grams(2_000) - grams(headG);
        expect(left - expected).toBeGreaterThan(0);
        expect(left - expected).toBeLessThan(grams(2_000) * 0.05);
      }),
    );
  });

  it('gives zero for a piece that is weighed, and never a negative mass', () => {
    expect(at(fish([grams(400)], []), 'head').nextMg).toBe(0);
    for (const e of expectPieces(grams(2_000), fish([grams(1_990)], []), drip))
      expect(e.low95Mg).toBeGreaterThanOrEqual(0);
  });
});

describe('advice', () => {
  const [expected] = expectPieces(grams(1_000), [state('frame', 0.17, 0.02), state('rest', 0.81, 0.03)], drip);
  if (expected === undefined) throw new Error('no expectation');

  it('is quiet inside eight of ten, speaks outside, and is strong outside nineteen of twenty', () => {
    expect(advisePiece(grams(172), expected)).toEqual({ kind: 'usual' });
    expect(advisePiece(expected.high80Mg + 1_000, expected)).toMatchObject({ kind: 'heavy', strong: false });
    expect(advisePiece(grams(300), expected)).toMatchObject({ kind: 'heavy', strong: true });
    expect(advisePiece(grams(40), expected)).toMatchObject({ kind: 'light', strong: true });
  });
});

describe('weighings that count', () => {
  it('drops what is replaced or taken back, and keeps the order', () => {
    const w = (id: string, massMg: number | null, replaces: string | null = null) => ({ id, massMg, replaces });
    const all = [w('a', 1), w('b', 2), w('c', 3, 'a'), w('d', null, 'b'), w('e', 5)];
    expect(effectiveWeighings(all).map((x) => x.id)).toEqual(['c', 'e']);
  });
});

describe('the simulated kitchen', () => {
  it('draws animals whose pieces and drip are exactly the animal, the same for the same seed', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.integer({ min: 100, max: 20_000 }),
        fc.double({ min: -0.05, max: 0.1, noNaN: true }),
        (seed, g, leftOnFrame) => {
          const draw = () =>
            drawAnimal(
              {
                startMg: grams(g),
                shares: [
                  { pieceId: 'fillet', mean: 0.5, sd: 0.03 },
                  { pieceId: 'frame', mean: 0.48, sd: 0.02 },
                ],
                drip,
                mainPieces: ['fillet'],
                framePiece: 'frame',
                leftOnFrame,
                condition: 1,
              },
              seededRandom(seed),
            );
          const animal = draw();
          expect(animal.pieces.reduce((sum, p) => sum + p.massMg, animal.dripMg)).toBe(grams(g));
          for (const piece of animal.pieces) expect(piece.massMg).toBeGreaterThanOrEqual(0);
          expect(draw()).toEqual(animal);
        },
      ),
    );
  });
});
