/**
 * Box codes: the worked samples (invented boxes on the demonstration prefix 952, expected values from the published rules, recalled),
 * and a thousand generated strings read by an independent library of the registry, gs1-barcode-parser-mod.
 */
import { readFileSync } from 'node:fs';
import { checkDigit, gs1Date, parseGs1, Refusal, SEPARATOR, writeGs1 } from '@zabrik/core';
import fc from 'fast-check';
import { parseBarcode } from 'gs1-barcode-parser-mod';
import { describe, expect, it } from 'vitest';

interface Expected {
  readonly raw?: string;
  readonly kg?: number;
  readonly value?: number;
  readonly date?: string;
  readonly time?: string;
  readonly from?: string;
  readonly to?: string;
}
interface Samples {
  readonly thisYear: number;
  readonly valid: readonly {
    readonly id: string;
    readonly raw: string;
    readonly expect: Readonly<Record<string, Expected>>;
  }[];
  readonly invalid: readonly { readonly id: string; readonly raw: string; readonly error: string }[];
  readonly warn: readonly {
    readonly id: string;
    readonly raw: string;
    readonly expect: Readonly<Record<string, Expected>>;
  }[];
}
const samples = JSON.parse(readFileSync(new URL('cases/gs1-samples.json', import.meta.url), 'utf8')) as Samples;
const read = (raw: string) => parseGs1(raw, samples.thisYear);
const whyNot = (raw: string): unknown => {
  try {
    return read(raw);
  } catch (error) {
    return error instanceof Refusal ? error.data['why'] : error;
  }
};

describe('box codes', () => {
  // the example printed in the standard's guidance, and keys on the demonstration prefix; recalled or calculated
  it.each([
    ['629104150021', 3],
    ['9952123400101', 3],
    ['39521234000000042', 7],
    ['952123400001', 3],
  ])('check digit of %s', (body, digit) => {
    expect(checkDigit(body)).toBe(digit);
  });

  it.each([
    ['760101', 2026, '2076-01-01'],
    ['991231', 2026, '1999-12-31'],
    ['260131', 2026, '2026-01-31'],
    ['010101', 2060, '2101-01-01'],
    ['280200', 2026, '2028-02-29'],
  ])('date %s read in %i', (text, year, date) => {
    expect(gs1Date(text, year)).toBe(date);
  });

  it.each([...samples.valid, ...samples.warn])('$id is read', ({ raw, expect: wanted }) => {
    const { fields } = read(raw);
    expect(fields.map((f) => f.ai).sort()).toEqual(Object.keys(wanted).sort());
    for (const field of fields) {
      const w = wanted[field.ai] ?? {};
      if (w.raw !== undefined) expect(field.raw).toBe(w.raw);
      if (w.kg !== undefined) expect((field.massMg ?? Number.NaN) / 1e6).toBeCloseTo(w.kg, 6);
      if (w.value !== undefined) expect(field.value).toBe(w.value);
      if (w.date !== undefined) expect(field.date).toBe(w.date);
      if (w.time !== undefined) expect(field.time).toBe(w.time);
      if (w.from !== undefined) expect([field.date, field.until]).toEqual([w.from, w.to]);
    }
    expect(writeGs1(fields).replaceAll(SEPARATOR, '')).toBe(raw.replace(/^\]C1/, '').replaceAll(SEPARATOR, ''));
  });

  const whys: Readonly<Record<string, string>> = {
    'check digit': 'check-digit',
    'bad month': 'bad-month',
    'bad day': 'bad-day',
    '(02) without (37)': '02-without-37',
    'bad data': 'bad-data',
    'unknown AI': 'unknown-ai',
    '(01) and (02)': '01-and-02',
  };
  it.each(samples.invalid)('$id is refused: $error', ({ raw, error }) => {
    expect(whyNot(raw)).toBe(whys[error]);
  });

  it('suspects a lot that has swallowed a date, and only then', () => {
    expect(read(samples.warn[0]?.raw ?? '').lostSeparator).toEqual({ lot: 'T2611A', ai: '17', date: '2026-11-04' });
    expect(read('10T2611A').lostSeparator).toBeUndefined();
    expect(read('10A17991399').lostSeparator).toBeUndefined();
  });

  it('says when a box of varying weight does not say its weight', () => {
    expect(read('0199521234001013').weightMissing).toBe(true);
    expect(read('01995212340010133103006240').weightMissing).toBe(false);
    expect(read('0109521234002086').weightMissing).toBe(false);
  });

  it.each(['', '   ', SEPARATOR, 'x'.repeat(10_000), '01', '0', '10', '01abc', '10é', '21'.repeat(2_000), '17 61104'])(
    'refuses what is no code: %#',
    (raw) => {
      expect(typeof whyNot(raw)).toBe('string');
    },
  );

  it('never breaks on what a scanner may send', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80, unit: 'binary' }), (raw) => {
        const result = whyNot(raw);
        expect(
          typeof result === 'string' || (typeof result === 'object' && result !== null && 'fields' in result),
        ).toBe(true);
      }),
    );
  });

  it('agrees with an independent library on a thousand generated boxes', () => {
    const digits = (n: number) => fc.integer({ min: 0, max: 10 ** n - 1 }).map((v) => String(v).padStart(n, '0'));
    const key = (n: number) => digits(n - 1).map((body) => body + checkDigit(body));
    const day = fc
      .date({ min: new Date('2020-01-01'), max: new Date('2039-12-31'), noInvalidDate: true })
      .map((d) => d.toISOString().slice(2, 10).replaceAll('-', ''));
    const lot = fc.stringMatching(/^[A-Z0-9/.-]{1,20}$/);
    const box = fc
      .record({
        '01': key(14),
        '3103': fc.option(digits(6)),
        '17': fc.option(day),
        '15': fc.option(day),
        '11': fc.option(day),
        '21': fc.option(lot),
        '422': fc.option(digits(3)),
        '10': lot,
      })
      .map((r) => Object.entries(r).flatMap(([ai, raw]) => (raw === null ? [] : [{ ai, raw }])))
      .chain((fields) => fc.shuffledSubarray(fields, { minLength: fields.length, maxLength: fields.length }));
    fc.assert(
      fc.property(box, (fields) => {
        const code = writeGs1(fields);
        const ours = read(code).fields;
        const theirs = parseBarcode(code).parsedCodeItems;
        expect(ours.map((f) => f.ai)).toEqual(theirs.map((t) => t.ai));
        for (const [i, field] of ours.entries()) {
          const { data } = theirs[i] ?? {};
          if (field.date !== undefined && data instanceof Date) {
            const local = [data.getFullYear(), data.getMonth() + 1, data.getDate()].map((n) =>
              String(n).padStart(2, '0'),
            );
            expect(field.date).toBe(local.join('-'));
          } else if (field.massMg !== undefined) expect(field.massMg / 1e6).toBeCloseTo(Number(data), 6);
          else expect(field.raw).toBe(String(data));
        }
      }),
      { numRuns: 1_000 },
    );
  });
});
