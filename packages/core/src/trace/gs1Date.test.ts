import { describe, expect, it } from 'vitest';
import { gs1Date } from './gs1.ts';

/** GS1 General Specifications 7.12: two digits of the year, the century that is nearest; day 00 is the last of the month. */
describe('six digits of a date', () => {
  it('stand in the century that is nearest', () => {
    expect(gs1Date('991231', 2026)).toBe('1999-12-31');
    expect(gs1Date('760101', 2026)).toBe('2076-01-01');
    expect(gs1Date('770101', 2026)).toBe('1977-01-01');
    expect(gs1Date('490101', 1999)).toBe('2049-01-01');
    expect(gs1Date('500101', 1999)).toBe('1950-01-01');
  });

  it('have a leap day every fourth year, not every hundredth, and every four hundredth', () => {
    expect(gs1Date('280229', 2026)).toBe('2028-02-29');
    expect(() => gs1Date('270229', 2026)).toThrow();
    expect(() => gs1Date('260229', 2026)).toThrow();
    expect(gs1Date('000229', 2026)).toBe('2000-02-29');
    expect(() => gs1Date('000229', 2096)).toThrow();
    expect(gs1Date('000200', 2096)).toBe('2100-02-28');
    expect(gs1Date('000200', 2396)).toBe('2400-02-29');
    expect(gs1Date('280200', 2026)).toBe('2028-02-29');
    expect(gs1Date('270200', 2026)).toBe('2027-02-28');
  });

  it('have no thirteenth month and no thirty-first of April', () => {
    expect(() => gs1Date('261301', 2026)).toThrow();
    expect(() => gs1Date('260001', 2026)).toThrow();
    expect(() => gs1Date('260431', 2026)).toThrow();
    expect(gs1Date('260430', 2026)).toBe('2026-04-30');
  });
});
