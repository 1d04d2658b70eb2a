import { limitProfiles } from '@zabrik/catalogue';
import type { Limit } from '@zabrik/core';
import { unitsComeFrom, usualUnits, withFigure } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { askedOf, heldAgainst } from './heldAgainst.ts';
import { figureRead, figureTyped, figureUnit, figureWords, topicName } from './limitWords.ts';

const limit = (id: string): Limit => {
  const found = limitProfiles.flatMap((p) => p.limits).find((l) => l.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};

describe('limits in words', () => {
  it.each([
    ['us.recv.tcs', 'at most 5 °C (41 °F)'],
    ['uk.hot', 'at least 63 °C'],
    ['uk.parasite', '−20 °C for 24 h, or −35 °C for 15 h'],
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

describe('a figure held against a limit by hand', () => {
  it.each([
    ['us.hot', { C: '57' }, 'within'],
    ['us.hot', { C: '56.5' }, 'outside'],
    ['us.hot', { C: 'hot' }, 'not-shown'],
    ['uk.reheat', { C: '70', s: '120' }, 'within'],
    ['uk.reheat', { C: '70', s: '119' }, 'outside'],
    ['uk.parasite', { C: '-20', h: '24' }, 'within'],
    ['uk.parasite', { C: '-20', h: '23' }, 'outside'],
    ['us.tphc.4h', { h: '4', start: '5' }, 'within'],
    ['us.tphc.4h', { h: '5', start: '5' }, 'outside'],
  ] as const)('%s and %o: %s', (id, typed, verdict) => {
    expect(heldAgainst(limit(id), typed)).toBe(verdict);
  });

  it('says nothing while a figure is missing, and asks nothing of a rule without one', () => {
    expect(heldAgainst(limit('uk.reheat'), { C: '70' })).toBeUndefined();
    expect(heldAgainst(limit('us.date7'), { day: 'soon' })).toBeUndefined();
    expect(heldAgainst(limit('us.date7'), { day: '2026-11-29' })).toEqual({ lastDay: '2026-12-05' });
    expect(askedOf(limit('eu.bivalve.rewater'))).toEqual([]);
  });

  it('every limit that the table says is judged on Limits asks for its figures', () => {
    const kinds = [
      'max_temp',
      'min_temp',
      'cook_time_temp',
      'freeze_treatment',
      'time_limit',
      'sampling_plan',
      'shelf_life',
    ];
    for (const l of limitProfiles.flatMap((p) => p.limits))
      if (kinds.includes(l.kind)) expect(askedOf(l).length, l.id).toBeGreaterThan(0);
  });

  it('a figure of the house’s own is typed in its own scale, and kept in Celsius', () => {
    const chilled = limit('us.recv.tcs');
    const days = limit('us.date7');
    expect([figureUnit(chilled), figureTyped(chilled, 5), figureRead(chilled, '4')]).toEqual(['°C', '5', 4]);
    unitsComeFrom(() => ({ ...usualUnits, temperature: 'F' }));
    try {
      expect(figureTyped(chilled, 5)).toBe('41');
      // 40 °F are 4.44 °C: forty degrees Celsius would let everything through
      expect(figureRead(chilled, '40')).toBe(4.44);
      expect(figureRead(chilled, figureTyped(chilled, 4.44))).toBe(4.44);
      expect(figureRead(days, '2')).toBe(2);
      expect(figureRead(chilled, 'cold')).toBeNaN();
      expect(figureWords(chilled)).toBe('at most 41 °F (5 °C)');
      expect(figureWords(withFigure(chilled, 4.44))).toBe('at most 40 °F (4.4 °C)');
    } finally {
      unitsComeFrom(() => usualUnits);
    }
  });
});
