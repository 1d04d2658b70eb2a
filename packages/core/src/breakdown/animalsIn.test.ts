import { expect, it } from 'vitest';
import { animalsIn } from './animalsIn.ts';

const part = (root: string, stage: string, breakdown: string, animals: number) => ({ root, stage, breakdown, animals });

it('pieces of one breakdown are of the same animals, in whichever part most of them is there', () => {
  expect(animalsIn([part('a', 's1', 'a', 2), part('a', 's1', 'a', 1)])).toBe(2);
  expect(animalsIn([])).toBe(0);
});

it('two animals are two, and half of the fillets of two fish are one fish’s', () => {
  expect(animalsIn([part('a', 's1', 'a', 1), part('b', 's1', 'b', 1)])).toBe(2);
  expect(animalsIn([part('a', 's1', 'a', 1)])).toBe(1);
});

it('what two stages of one animal made is of that animal once; two goes at one stage are of two halves', () => {
  expect(animalsIn([part('a', 's1', 'a', 1), part('a', 's2', 'b', 1)])).toBe(1);
  expect(animalsIn([part('a', 's2', 'b', 0.5), part('a', 's2', 'c', 0.5), part('a', 's1', 'a', 1)])).toBe(1);
  expect(animalsIn([part('a', 's2', 'b', 1), part('a', 's2', 'c', 1)])).toBe(2);
});
