import { expect, it } from 'vitest';
import { wordsOf } from './searchWords.ts';

it('words are found by themselves, whatever parts them, and a mark alone is none', () => {
  expect(wordsOf('  Hake,  BRAM; 0417-F ')).toEqual(['hake', 'bram', '0417-f']);
  expect(wordsOf('- % _ ,;')).toEqual([]);
  expect(wordsOf('pot-au-feu é')).toEqual(['pot-au-feu', 'é']);
});
