import { describe, expect, it } from 'vitest';
import { Refusal } from '../refusal.ts';
import { codeTyped, lotCode, parseLotCode } from './lotCode.ts';

const reads = (text: string): boolean => {
  try {
    parseLotCode(text);
    return true;
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
};

describe('a lot’s code', () => {
  it('reads back, however it is typed', () => {
    const code = lotCode(417);
    expect(parseLotCode(code)).toEqual({ serial: 417, code });
    expect(parseLotCode(` ${code.toLowerCase().replace('-', ' ')} `).code).toBe(code);
  });

  it('notices any one digit misheard and any two neighbours swapped, for every number to 9,999 and a sample beyond', () => {
    const missed: string[] = [];
    const check = (digits: string, letter: string): void => {
      if (reads(`${digits}-${letter}`)) missed.push(`${digits}-${letter}`);
    };
    const serials = [
      ...Array.from({ length: 9_999 }, (_, i) => i + 1),
      ...Array.from({ length: 500 }, (_, i) => 10_000 + i * 1_979),
    ];
    for (const serial of serials) {
      const [digits = '', letter = ''] = lotCode(serial).split('-');
      for (let i = 0; i < digits.length; i += 1) {
        const wrong = String((Number(digits[i]) + 1 + (serial % 9)) % 10);
        if (wrong !== digits[i]) check(`${digits.slice(0, i)}${wrong}${digits.slice(i + 1)}`, letter);
        const a = digits[i];
        const b = digits[i + 1];
        if (b !== undefined && a !== b) check(`${digits.slice(0, i)}${b}${a}${digits.slice(i + 2)}`, letter);
      }
    }
    expect(missed).toEqual([]);
  });

  it('refuses what is no code', () => {
    for (const text of ['', '417', 'ABCD', '0417-', '0417-?', '0417-AA']) expect(reads(text)).toBe(false);
  });
});

describe('a code as somebody types or scans it', () => {
  it.each([
    ['417', '0417-'],
    ['0417', '0417-'],
    ['417l', '0417-L'],
    [' 0417 L ', '0417-L'],
    ['0417-', '0417-'],
    // the square of a label, with and without what a scanner puts before it
    ['910417-L', '0417-L'],
    [']d2910417-L', '0417-L'],
    ['(91)0417-L', '0417-L'],
    ['0', '0000-'],
  ])('%s is %s', (typed, code) => expect(codeTyped(typed)).toBe(code));

  it.each(['hake', '4 hake', '', '-F', '0417-LF', '12345678901234'])('%s is none', (typed) =>
    expect(codeTyped(typed)).toBeUndefined(),
  );

  it('of figures that begin with 91 the letter says whether that announces a code; six of them always do', () => {
    expect(codeTyped(`91${lotCode(9_999)}`)).toBe(lotCode(9_999));
    expect(codeTyped(`91${lotCode(12_345)}`)).toBe(lotCode(12_345));
    expect(codeTyped(lotCode(9_112_345))).toBe(lotCode(9_112_345));
    expect(codeTyped(`]d291${lotCode(9_112_345)}`)).toBe(lotCode(9_112_345));
    // both letters are the same: no house has made so many lots
    expect(codeTyped(lotCode(910_418))).toBe(lotCode(418));
  });
});
