import type { LabelContent } from '@zabrik/core';
import { expect, it } from 'vitest';
import { drawLabels } from './drawLabels.ts';

const content = (code: string): LabelContent => ({
  code,
  element: `91019a00000000700080000000000000${code}`,
  name: 'Hake fillet',
  massMg: 420_000,
  pieces: 1,
  dates: [{ kind: 'use-by', day: '2026-11-30' }],
  allergens: ['fish'],
  ready: false,
  place: 'Walk-in, shelf 2',
  from: null,
  by: 'Ines',
  reprint: false,
});

it('says how many labels there are by now, from the first, and draws a page for each', async () => {
  const heard: number[] = [];
  const pdf = await drawLabels([content('01'), content('02')], [40, 60], '57x32', false, (labels) =>
    heard.push(labels),
  );
  expect(heard[0]).toBe(1);
  expect(heard).toEqual([...new Set(heard)].sort((a, b) => a - b));
  expect(heard.at(-1)).toBeLessThanOrEqual(100);
  const text = Buffer.from(pdf).toString('latin1');
  expect(text).toMatch(/^%PDF-/);
  // of a hundred labels two are different: their squares are drawn once each, an image and its mask
  expect(text.match(/\/Subtype \/Image/g)).toHaveLength(4);
});
