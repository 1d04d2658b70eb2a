import { expect, it } from 'vitest';
import { creditRows, savedOf, typedOf, worthForm } from './worthForm.ts';

const rows = [
  { id: 'frame', name: 'frame', group: 'fish' },
  { id: 'head', name: 'head', group: 'fish' },
];

it('a species with a sum of its own stands under its category; emptied, it is gone', () => {
  const keys = ['head', 'frame/turbot', 'frame', 'other/hake'];
  const all = creditRows(rows, keys, (id) => id.toUpperCase());
  expect(all.map((r) => [r.id, r.name])).toEqual([
    ['frame', 'frame'],
    ['frame/turbot', 'frame, turbot'],
    ['head', 'head'],
  ]);
  expect(savedOf(all, { 'frame/turbot': 240, 'other/hake': 5 }, { 'frame/turbot': null })).toEqual({ 'other/hake': 5 });
});

it('nothing is no price, nought is one, and a price that is not shown stays', () => {
  const before = { frame: 60, gone: 5 };
  expect(typedOf(rows, before, 'GBP')).toEqual({ frame: '0.60', head: '' });
  const read = worthForm('GBP').parse({ credit: { frame: '', head: '0' }, pantry: { cream: '4,80' }, from: {} });
  expect(savedOf(rows, before, read.credit)).toEqual({ gone: 5, head: 0 });
  expect(savedOf([], {}, read.pantry)).toEqual({ cream: 480 });
  expect(worthForm('JPY').safeParse({ credit: { frame: '1.5' }, pantry: {}, from: {} }).success).toBe(false);
});
