import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type TracedMovement, type TracedPosting, traceDown, traceUp } from './lineage.ts';

const lot = (lotId: string, massMg: number): TracedPosting => ({ lotId, sink: null, reason: null, massMg });
const sink = (name: string, massMg: number, reason: string | null = null): TracedPosting => ({
  lotId: null,
  sink: name,
  reason,
  massMg,
});
const move = (n: number, kind: string, ...postings: TracedPosting[]): TracedMovement => ({
  id: `m${n}`,
  kind,
  at: `2026-11-24T${String(10 + n).padStart(2, '0')}:00:00.000Z`,
  postings,
});

/** Two fish; the frames of both and water make a stock; half of it is served. */
const day: readonly TracedMovement[] = [
  move(0, 'receive', sink('supplier', -1_000), lot('hake', 1_000)),
  move(1, 'receive', sink('supplier', -600), lot('plaice', 600)),
  move(2, 'close-stage', lot('hake', -1_000), lot('fillet', 700), lot('frame', 280), sink('loss', 20, 'drip')),
  move(3, 'close-stage', lot('plaice', -600), lot('frame-p', 120), lot('fillet-p', 480)),
  move(
    4,
    'batch',
    lot('frame', -280),
    lot('frame-p', -120),
    sink('pantry', -600),
    lot('stock', 900),
    sink('waste', 100, 'spent'),
  ),
  move(5, 'take-out', lot('stock', -450), sink('served', 450)),
];

describe('downward', () => {
  it('finds everything a fish went into, and how much of each is it', () => {
    const { lots, waysOut } = traceDown('hake', day);
    const stock = lots.find((l) => l.lotId === 'stock');
    // 280 of the 1,000 g that went into the pot
    expect(stock).toMatchObject({ madeMg: 900, onHandMg: 450, depth: 2, via: ['frame'] });
    expect(stock?.partMg).toBeCloseTo(252, 9);
    expect(lots.map((l) => l.lotId)).toEqual(['hake', 'fillet', 'frame', 'stock']);
    expect(waysOut.map((w) => [w.sink, w.massMg, Math.round(w.partMg)])).toEqual([
      ['loss', 20, 20],
      ['waste', 100, 28],
      ['served', 450, 126],
    ]);
  });

  it('of a lot nothing was made of is the lot alone', () => {
    expect(traceDown('fillet', day).lots).toMatchObject([{ lotId: 'fillet', onHandMg: 700, partMg: 700 }]);
  });
});

describe('upward', () => {
  it('finds the fish behind a stock, and how much of it each is', () => {
    const lots = traceUp('stock', day);
    expect(new Map(lots.map((l) => [l.lotId, Math.round(l.partMg)]))).toEqual(
      new Map([
        ['stock', 900],
        ['frame', 252],
        ['frame-p', 108],
        ['plaice', 108],
        ['hake', 252],
      ]),
    );
    expect(lots.find((l) => l.lotId === 'hake')).toMatchObject({ depth: 2, via: ['frame'] });
  });
});

describe('a tub that grows', () => {
  const filled: readonly TracedMovement[] = [
    move(0, 'receive', sink('supplier', -900), lot('early', 900)),
    move(1, 'receive', sink('supplier', -600), lot('late', 600)),
    move(2, 'fill', lot('early', -900), lot('tub', 900)),
    move(3, 'take-out', lot('tub', -600), sink('waste', 600, 'spoiled')),
    move(4, 'fill', lot('late', -600), lot('tub', 600)),
    move(5, 'batch', lot('tub', -450), sink('pantry', -450), lot('stock', 900)),
  ];

  it('gives away only what was in it then', () => {
    // 300 g of early and 600 g of late are in the tub when 450 g go into the pot
    expect(traceDown('late', filled).lots).toMatchObject([
      { lotId: 'late', onHandPartMg: 0 },
      { lotId: 'tub', madeMg: 1_500, partMg: 600, onHandMg: 450, onHandPartMg: 300 },
      { lotId: 'stock', partMg: 300 },
    ]);
    expect(traceDown('late', filled).waysOut).toEqual([]);
    expect(traceUp('stock', filled).map((l) => [l.lotId, l.partMg])).toEqual([
      ['stock', 900],
      ['tub', 450],
      ['late', 300],
      ['early', 150],
    ]);
  });
});

describe('a stock-take', () => {
  const round = [
    move(0, 'receive', sink('supplier', -1_000), lot('hake', 1_000)),
    move(1, 'receive', sink('supplier', -500), lot('plaice', 500)),
    move(2, 'count', lot('hake', -40), sink('count', 40, 'drip'), lot('plaice', 30), sink('count', -30, 'found')),
  ];

  it('puts nothing of the lot that was short into the one that was over', () => {
    const { lots, waysOut } = traceDown('hake', round);
    expect(lots.map((l) => [l.lotId, l.onHandMg])).toEqual([['hake', 960]]);
    expect(waysOut).toMatchObject([{ sink: 'count', reason: 'drip', massMg: 40, partMg: 40, lotId: 'hake' }]);
    expect(traceUp('plaice', round).map((l) => [l.lotId, l.madeMg])).toEqual([['plaice', 530]]);
  });

  it('mixes what was found into the lot it was found in', () => {
    const served = [...round, move(3, 'take-out', lot('plaice', -530), sink('served', 530))];
    const { waysOut } = traceDown('plaice', served);
    expect(waysOut).toMatchObject([{ sink: 'served', massMg: 530, partMg: 530 }]);
  });
});

describe('any kitchen', () => {
  /** A random day: deliveries, cuts, mixes and takings-out that each sum to zero. */
  const kitchen = fc
    .array(
      fc.record({
        what: fc.constantFrom('receive', 'cut', 'mix', 'serve', 'fill'),
        a: fc.nat(),
        b: fc.nat(),
        part: fc.integer({ min: 1, max: 9 }),
      }),
      { minLength: 4, maxLength: 40 },
    )
    .map((acts) => {
      const left = new Map<string, number>();
      const moves: TracedMovement[] = [];
      // what was made out of the tub never goes back into it: the server refuses that
      const outOfTub = new Set(['tub']);
      const add = (id: string, mass: number) => {
        left.set(id, (left.get(id) ?? 0) + mass);
        return lot(id, mass);
      };
      for (const [n, act] of acts.entries()) {
        const there = [...left].filter(([, mass]) => mass > 20).map(([id]) => id);
        const from = there[act.a % Math.max(1, there.length)];
        const other = there[act.b % Math.max(1, there.length)];
        const take = from === undefined ? 0 : Math.ceil(((left.get(from) ?? 0) * act.part) / 10);
        if (act.what === 'receive' || from === undefined || other === undefined)
          moves.push(move(n, 'receive', sink('supplier', -1_000), add(`l${n}`, 1_000)));
        else if (act.what === 'cut')
          moves.push(
            move(
              n,
              'close-stage',
              add(from, -take),
              add(`l${n}a`, take - Math.floor(take / 3) - 1),
              add(`l${n}b`, Math.floor(take / 3)),
              sink('loss', 1, 'drip'),
            ),
          );
        else if (act.what === 'fill' && !outOfTub.has(from))
          moves.push(move(n, 'fill', add(from, -take), add('tub', take)));
        else if (act.what === 'mix' && other !== from)
          moves.push(move(n, 'batch', add(from, -take), add(other, -10), sink('pantry', -50), add(`l${n}`, take + 60)));
        else moves.push(move(n, 'take-out', add(from, -take), sink('served', take)));
        const last = moves.at(-1)?.postings ?? [];
        if (last.some((p) => p.massMg < 0 && outOfTub.has(p.lotId ?? '')))
          for (const p of last) if (p.lotId !== null && p.massMg > 0) outOfTub.add(p.lotId);
      }
      return { moves: moves.map((m, i) => ({ ...m, at: new Date(1e12 + i * 60_000).toISOString() })), left };
    });

  it('accounts for every milligram of every lot downward', () => {
    fc.assert(
      fc.property(kitchen, ({ moves, left }) => {
        for (const id of left.keys()) {
          const down = traceDown(id, moves);
          const onHand = down.lots.reduce((sum, l) => sum + l.onHandPartMg, 0);
          const out = down.waysOut.reduce((sum, w) => sum + w.partMg, 0);
          expect(onHand + out).toBeCloseTo(down.madeMg, 5);
          for (const l of down.lots) expect(l.onHandMg).toBe(left.get(l.lotId));
        }
      }),
    );
  });

  it('sees the same part from above and from below', () => {
    fc.assert(
      fc.property(kitchen, ({ moves, left }) => {
        for (const id of left.keys())
          for (const above of traceUp(id, moves)) {
            const below = traceDown(above.lotId, moves).lots.find((l) => l.lotId === id);
            expect(below?.partMg ?? 0).toBeCloseTo(above.partMg, 5);
          }
      }),
      { numRuns: 60 },
    );
  });
});
