import { limitProfiles } from '@zabrik/catalogue';
import type { Limit } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { figureWords, topicName } from './limitWords.ts';

const limit = (id: string): Limit => {
  const found = limitProfiles.flatMap((p) => p.limits).find((l) => l.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};

describe('limits in words', () => {
  it.each([
    ['us.recv.tcs', 'at most 5 °C (41 °F)'],
    ['uk.hot', 'at least 63 °C'],
    ['uk.parasite', '-20 °C for 24 h, or -35 °C for 15 h'],
    ['us.cool.cooked', 'from 57 °C to 21 °C within 2 h, to 5 °C within 6 h'],
    ['us.date7', '7 days at most 5 °C, the day itself is day one'],
    ['us.hist.fresh', '8 h above 4.4 °C, 4 h once above 21 °C'],
    ['uk.reheat', '70 °C for 2 min, or 1 other points of the table'],
    ['eu.hist', '9 samples, at most 2 above 100, none above 200'],
    ['us.tags.shellstock', '90 days'],
  ])('%s: %s', (id, says) => {
    expect(figureWords(limit(id))).toBe(says);
  });

  it('say something of every limit there is, and never that it is safe', () => {
    for (const l of limitProfiles.flatMap((p) => p.limits)) {
      expect(figureWords(l).length, l.id).toBeGreaterThan(2);
      expect(figureWords(l), l.id).not.toMatch(/undefined|NaN|\[object/);
    }
    expect(topicName('cold-holding')).toBe('Cold holding');
  });
});
