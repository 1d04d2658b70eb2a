import { expect, it } from 'vitest';
import { sizeWords } from './sizeWords.ts';

it('says how large a file is', () => {
  expect([215_772, 999_999, 14_200_000].map(sizeWords)).toEqual(['216 kB', '1000 kB', '14.2 MB']);
});
