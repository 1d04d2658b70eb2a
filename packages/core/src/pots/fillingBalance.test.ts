import { describe, expect, it } from 'vitest';
import { type FillingBand, type FillingPart, fillingBalance } from './fillingBalance.ts';

const fish: FillingPart = {
  name: 'lean fish',
  massMg: 100_000,
  of: { water: 80, protein: 18, fat: 1, salt: 0.2 },
};
const cream: FillingPart = { name: 'cream', massMg: 100_000, of: { water: 47, protein: 1.6, fat: 48, salt: 0.1 } };
const egg: FillingPart = {
  name: 'egg white',
  massMg: 50_000,
  of: { water: 88, protein: 11, fat: 0, salt: 0.4 },
  binder: true,
};
const band = (of: FillingBand['of'], low: number, high: number): FillingBand => ({
  of,
  low,
  high,
  below: 'dry',
  above: 'splits',
});

describe('what a hundred grams of a filling are made of', () => {
  it('is the mean of its parts by mass', () => {
    const found = fillingBalance([fish, cream], []);
    expect(found?.fat).toBeCloseTo(24.5, 9);
    expect(found?.protein).toBeCloseTo(9.8, 9);
    expect(found?.water).toBeCloseTo(63.5, 9);
    expect(found?.salt).toBeCloseTo(0.15, 9);
    // twice the fish: (2 x 80 + 47) / 3
    expect(fillingBalance([{ ...fish, massMg: 200_000 }, cream], [])?.water).toBeCloseTo(69, 9);
  });

  it('counts what binds, in a hundred grams of what is known', () => {
    expect(fillingBalance([fish, cream, egg], [])?.binder).toBeCloseTo(20, 9);
    expect(fillingBalance([fish, cream], [])?.binder).toBe(0);
    expect(fillingBalance([egg], [])?.binder).toBe(100);
  });

  it('says how much water the protein has to hold', () => {
    expect(fillingBalance([fish, cream], [])?.waterPerProtein).toBeCloseTo(63.5 / 9.8, 9);
    const fat: FillingPart = { name: 'fat', massMg: 1, of: { water: 5, protein: 0, fat: 95, salt: 0 } };
    expect(fillingBalance([fat], [])?.waterPerProtein).toBe(Number.POSITIVE_INFINITY);
  });

  it('leaves out what nobody knows, and names it where there is some of it', () => {
    const herbs: FillingPart = { name: 'herbs', massMg: 30_000, of: undefined };
    const none: FillingPart = { name: 'nothing of it', massMg: 0, of: undefined };
    const found = fillingBalance([fish, herbs, none], []);
    expect(found).toMatchObject({ water: 80, protein: 18, unknown: ['herbs'] });
    expect(fillingBalance([fish], [])?.unknown).toEqual([]);
    expect(fillingBalance([{ ...fish, massMg: 0 }, herbs], [])).toBeUndefined();
  });

  it('holds between its marks and on them, and is low or high beyond', () => {
    const verdictOf = (low: number, high: number) => fillingBalance([fish], [band('protein', low, high)])?.judged[0];
    expect(verdictOf(18, 20)).toMatchObject({ value: 18, verdict: 'holds' });
    expect(verdictOf(10, 18)?.verdict).toBe('holds');
    expect(verdictOf(18.1, 20)?.verdict).toBe('low');
    expect(verdictOf(10, 17.9)?.verdict).toBe('high');
  });
});
