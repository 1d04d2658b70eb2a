import { type LabelContent, unitsComeFrom, usualUnits } from '@zabrik/core';
import { expect, it } from 'vitest';
import { table } from '../paper/letter.ts';
import { inThread } from './inThread.ts';

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
  const pdf = await inThread(
    'labels',
    { contents: [content('01'), content('02')], copies: [40, 60], size: '57x32', american: false },
    { told: (labels) => heard.push(labels) },
  );
  expect(heard[0]).toBe(1);
  expect(heard).toEqual([...new Set(heard)].sort((a, b) => a - b));
  expect(heard.at(-1)).toBeLessThanOrEqual(100);
  const text = Buffer.from(pdf).toString('latin1');
  expect(text).toMatch(/^%PDF-/);
  // of a hundred labels two are different: their squares are drawn once each, an image and its mask
  expect(text.match(/\/Subtype \/Image/g)).toHaveLength(4);
});

it('a letter of many pages is set while the server goes on answering', async () => {
  let ticks = 0;
  const ticking = setInterval(() => {
    ticks += 1;
  }, 5);
  const rows = Array.from({ length: 1_200 }, (_, i) => [`Hake ${i}`, '£1.00']);
  const pdf = await inThread('letter', {
    title: 'Claim',
    content: [table([{ head: 'What' }, { head: 'Claimed', figures: true }], rows)],
  });
  clearInterval(ticking);
  expect(Buffer.from(pdf).toString('latin1')).toMatch(/^%PDF-/);
  // on the server's own thread not one of them would have come
  expect(ticks).toBeGreaterThan(10);
});

it('called off, it ends at once and what others wait for is begun again; called off before, it is never begun', async () => {
  const off = new AbortController();
  const many = { contents: [content('01')], copies: [20_000], size: '57x32', american: false } as const;
  const long = inThread('labels', many, { told: () => off.abort(new Error('called off')), signal: off.signal });
  const other = inThread('labels', { ...many, copies: [1] });
  await expect(long).rejects.toThrow('called off');
  expect(Buffer.from(await other).toString('latin1')).toMatch(/^%PDF-/);
  await expect(inThread('labels', many, { signal: off.signal })).rejects.toThrow('called off');
});

it('what a task refuses comes back as that refusal, what breaks as an error', async () => {
  const long = { ...content('01'), name: 'x'.repeat(4_000), allergens: Array.from({ length: 400 }, (_, i) => `a${i}`) };
  await expect(
    inThread('labels', { contents: [long], copies: [1], size: '57x32', american: false }),
  ).rejects.toMatchObject({ code: 'label_too_small' });
  await expect(inThread('letter', { title: 'x', content: [{ image: 'no picture' }] })).rejects.toThrow();
});

it('a label is written in the units of whoever asked for it, whatever the one before was in', async () => {
  const asked = { contents: [content('01')], copies: [1], size: '57x32', american: false } as const;
  // what is drawn on the page: its first stream
  const drawn = async (): Promise<string | undefined> =>
    /stream\r?\n([\s\S]*?)endstream/.exec(Buffer.from(await inThread('labels', asked)).toString('latin1'))?.[1];
  const grams = await drawn();
  unitsComeFrom(() => ({ ...usualUnits, mass: 'imperial' }));
  const ounces = await drawn();
  unitsComeFrom(() => usualUnits);
  expect(ounces).not.toBe(grams);
  expect(await drawn()).toBe(grams);
});
