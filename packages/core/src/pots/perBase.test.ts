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

it('so many to so many is a share, whatever blanks stand around it; to none of the base, and of less than nothing, is none', () => {
  expect(readPerBase(' 1 : 4 ')).toBe(0.25);
  expect(readPerBase('10 to 40')).toBe(0.25);
  expect(readPerBase('12:40')).toBeCloseTo(0.3, 12);
  expect(readPerBase('0:4')).toBe(0);
  for (const none of ['1:0', '-1:4', '1:-4', '-1:-4', 'x:4', '1:x', '1:2:3'])
    expect(readPerBase(none), none).toBeUndefined();
});
