import type { TracedLotHead } from '@zabrik/contract';
import type { TracedMovement } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { outName, viewOf } from './traceWords.ts';

const head = (id: string, o: Partial<TracedLotHead> = {}): TracedLotHead => ({
  id,
  code: id.toUpperCase(),
  kind: 'piece',
  name: id,
  destination: 'stock',
  madeMg: 1,
  massMg: 0,
  useBy: null,
  madeAt: '2026-11-24T10:00:00.000Z',
  by: 'Ines Calloway',
  supplierName: null,
  origin: null,
  landedOn: null,
  allergens: [],
  placeId: 'cold-room',
  state: 'fresh',
  held: null,
  ...o,
});
const lot = (lotId: string, massMg: number) => ({ lotId, sink: null, reason: null, massMg });
const sink = (name: string, massMg: number, reason: string | null = null) => ({
  lotId: null,
  sink: name,
  reason,
  massMg,
});
const move = (n: number, kind: string, postings: TracedMovement['postings']): TracedMovement => ({
  id: `m${n}`,
  kind,
  at: `2026-11-24T1${n}:00:00.000Z`,
  postings,
});
// head and frame of one fish both go into one stock: a family with two ways to the same lot
const movements = [
  move(0, 'receive', [sink('supplier', -1_000), lot('fish', 1_000)]),
  move(1, 'close-stage', [
    lot('fish', -1_000),
    lot('head', 300),
    lot('frame', 250),
    lot('fillet', 430),
    sink('loss', 20, 'drip'),
  ]),
  move(2, 'batch', [
    lot('head', -300),
    lot('frame', -250),
    sink('pantry', -450),
    lot('stock', 900),
    sink('waste', 100, 'spent'),
  ]),
  move(3, 'take-out', [lot('stock', -300), sink('served', 300)]),
];
const heads = ['fish', 'head', 'frame', 'fillet', 'stock'].map((id) => head(id));

describe('the words of a trace', () => {
  it('hang each lot once under the first it comes through, and name the other ways', () => {
    const view = viewOf('fish', heads, movements);
    expect(view?.up).toEqual([]);
    expect(view?.down.map((r) => [r.lot.id, r.indent, r.also])).toEqual([
      ['head', 0, []],
      ['stock', 1, ['FRAME']],
      ['frame', 0, []],
      ['fillet', 0, []],
    ]);
  });

  it('say where the grams of the lot are, and all of them', () => {
    const now = viewOf('fish', heads, movements)?.now ?? [];
    expect(now.map((p) => p.says)).toEqual(['still in the house', 'drip and steam', 'thrown away', 'served']);
    expect(now.reduce((sum, p) => sum + p.massMg, 0)).toBe(1_000);
  });

  it('go up to the fish from the stock', () => {
    const view = viewOf('stock', heads, movements);
    expect(view?.up.map((r) => [r.lot.id, r.indent])).toEqual([
      ['head', 0],
      ['fish', 1],
      ['frame', 0],
    ]);
    expect(view?.up.find((r) => r.lot.id === 'fish')?.also).toEqual(['FRAME']);
  });

  it('of a lot that is not there are none', () => {
    expect(viewOf('gone', heads, movements)).toBeUndefined();
    expect(outName({ sink: 'waste', reason: 'shot-damage' })).toBe('thrown away, shot damage');
    expect(outName({ sink: 'waste', reason: 'round-fish-two-fillets/gills' })).toBe('thrown away, gills');
    expect(outName({ sink: 'loss', reason: 'drip' })).toBe('drip');
    expect(outName({ sink: 'served', reason: null })).toBe('served');
  });
});
