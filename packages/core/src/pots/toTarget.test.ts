import { describe, expect, it } from 'vitest';
import { fillingBalance } from './fillingBalance.ts';
import { toTarget } from './toTarget.ts';

const shoulder = { water: 70, protein: 19, fat: 10, salt: 0.1 };
const backFat = { water: 8, protein: 2, fat: 90, salt: 0 };
const pure = { water: 0, protein: 0, fat: 0, salt: 100 };
const lean = { name: 'shoulder', massMg: 1_000_000, of: shoulder };

describe('a sausage to a target', () => {
  it('takes as much fat as Pearson’s square says: 10 and 90 to 25 is 15 parts to 65', () => {
    const found = toTarget([lean], { of: backFat, massMg: 0 }, 0, { fat: 0.25 });
    expect(found).toEqual({ fatMg: Math.round((1_000_000 * 15) / 65), saltMg: 0 });
  });
  it('with fat and salt both comes out at both, weighed back by the balance', () => {
    const found = toTarget(
      [lean, { name: 'water', massMg: 80_000, of: { water: 100, protein: 0, fat: 0, salt: 0 } }],
      { of: backFat, massMg: 1 },
      1,
      {
        fat: 0.25,
        salt: 0.018,
      },
    );
    if (typeof found === 'string') throw new Error(found);
    const balance = fillingBalance(
      [
        lean,
        { name: 'water', massMg: 80_000, of: { water: 100, protein: 0, fat: 0, salt: 0 } },
        { name: 'fat', massMg: found.fatMg, of: backFat },
        { name: 'salt', massMg: found.saltMg, of: pure },
      ],
      [],
    );
    expect(balance?.fat).toBeCloseTo(25, 3);
    expect(balance?.salt).toBeCloseTo(1.8, 3);
  });
  it('leaves alone what has no target', () => {
    expect(toTarget([lean], { of: backFat, massMg: 300_000 }, 22_000, {})).toEqual({ fatMg: 300_000, saltMg: 22_000 });
    const salted = toTarget([lean], { of: backFat, massMg: 300_000 }, 0, { salt: 0.018 });
    expect(salted).toEqual({ fatMg: 300_000, saltMg: Math.round((0.018 * 1_300_000 - 1_000) / 0.982) });
  });
  it('says why it does not come to it', () => {
    const to = (fat: number, salt?: number) =>
      toTarget([lean], { of: backFat, massMg: 0 }, 0, { fat, ...(salt === undefined ? {} : { salt }) });
    expect(to(0.08)).toBe('too_fat_already');
    expect(to(0.92)).toBe('fat_too_lean');
    expect(to(0.2, 0.0001)).toBe('too_salt_already');
    expect(toTarget([{ ...lean, of: undefined }], { of: backFat, massMg: 0 }, 0, { fat: 0.25 })).toBe('nobody_knows');
    expect(toTarget([lean], { of: undefined, massMg: 0 }, 0, { fat: 0.25 })).toBe('nobody_knows');
  });
});
