import { expect, it } from 'vitest';
import { perBaseWords, readPerBase } from './perBase.ts';

it.each([
  ['250 g', 0.25],
  ['250g a kilo', 0.25],
  ['1.2 kg', 1.2],
  ['1,2 kg', 1.2],
  ['500 ml', 0.5],
  ['3 l', 3],
  ['25 %', 0.25],
  ['2.5%', 0.025],
  ['150 ppm', 0.00015],
  ['12 mg', 0.000012],
  ['1:4', 0.25],
  ['1 to 4', 0.25],
  ['½', 0.5],
  ['1/3', 1 / 3],
  ['0.25', 0.25],
  ['0', 0],
])('%s is %f to one', (typed, perBase) => {
  expect(readPerBase(typed)).toBeCloseTo(perBase, 12);
});

it.each(['', 'a pinch', '1:0', '1:2:3', '-3 g', '% 3', 'g'])('%s is no amount', (typed) => {
  expect(readPerBase(typed)).toBeUndefined();
});

it.each([
  [0.25, '250 g'],
  [1.2, '1200 g'],
  [6, '6 kg'],
  [0.003, '3 g'],
  [0.0185, '18.5 g'],
  [0.00015, '150 ppm'],
  [0, '0 g'],
])('%f is written %s, and read back the same', (perBase, words) => {
  expect(perBaseWords(perBase)).toBe(words);
  expect(readPerBase(words)).toBeCloseTo(perBase, 12);
});
