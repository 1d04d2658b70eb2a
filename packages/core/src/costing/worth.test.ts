import { expect, it } from 'vitest';
import { worthKey, worthKeyParts, worthOf, worthSaidOn } from './worth.ts';

const worth = { 'flatfish-frame': 80, 'flatfish-frame/turbot': 240, 'fish-belly/hake': 0 };

it.each([
  ['flatfish-frame', 'turbot', 240],
  ['flatfish-frame', 'plaice', 80],
  ['flatfish-frame', null, 80],
  ['fish-belly', 'hake', 0],
  ['fish-belly', 'cod', undefined],
  ['venison-bone', 'roe-deer', undefined],
])('a kilogram of %s of %s is worth %s', (category, species, minor) =>
  expect(worthOf(worth, category, species)).toBe(minor),
);

it('a name comes apart as it was put together', () => {
  expect(worthKeyParts(worthKey('flatfish-frame', 'turbot'))).toEqual({
    category: 'flatfish-frame',
    species: 'turbot',
  });
  expect(worthKeyParts(worthKey('flatfish-frame'))).toEqual({ category: 'flatfish-frame', species: undefined });
});

it('what changes is said today, what stays when it was said, and what was there before days were kept has none', () => {
  const said = { 'flatfish-frame': '2026-11-02', 'fish-belly/hake': '2026-10-01' };
  const after = { 'flatfish-frame': 80, 'flatfish-frame/turbot': 260, 'venison-bone': 0 };
  expect(worthSaidOn(worth, after, said, '2026-12-01')).toEqual({
    'flatfish-frame': '2026-11-02',
    'flatfish-frame/turbot': '2026-12-01',
    'venison-bone': '2026-12-01',
  });
  expect(worthSaidOn(worth, worth, {}, '2026-12-01')).toEqual({});
});
