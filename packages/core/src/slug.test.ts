import { expect, it } from 'vitest';
import { slugOf } from './slug.ts';

it.each([
  ['Crème fraîche, thick', 'creme-fraiche-thick'],
  ['  Lemon crust ', 'lemon-crust'],
  ['½ stock', '1-2-stock'],
  ['–', ''],
  [`${'a'.repeat(59)} b`, 'a'.repeat(59)],
])('the id of %j is %j', (name, id) => {
  expect(slugOf(name)).toBe(id);
});
