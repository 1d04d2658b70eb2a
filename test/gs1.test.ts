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
    expect(read(samples.warn[0]?.raw ?? '').lostSeparator).toEqual({
      inAi: '10',
      kept: 'T2611A',
      ai: '17',
      date: '2026-11-04',
    });
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

describe('what boxes carry without identifiers', () => {
  const ais = (code: string) => parseGs1(code, 2026).fields.map((f) => [f.ai, f.raw]);

  // GTIN-13 and GTIN-14 of the GS1 General Specifications' own examples; recalled
  it('is an item number when its check digit says so, whatever identifier it could begin with', () => {
    expect(ais('10614141000415')).toEqual([['01', '10614141000415']]);
    const looksLikeWeight = `310234567890${checkDigit('310234567890')}`;
    expect(ais(looksLikeWeight)).toEqual([['01', looksLikeWeight.padStart(14, '0')]]);
    expect(ais('6291041500213')).toEqual([['01', '06291041500213']]);
    expect(ais(']E06291041500213')).toEqual([['01', '06291041500213']]);
    expect(ais(']I110614141000415')).toEqual([['01', '10614141000415']]);
    // with a prefix that says element string, it is one
    expect(ais(']C110614141000415')).toEqual([['10', '614141000415']]);
  });

  it('is refused when a digit of it was misread, and not taken for a lot', () => {
    for (const code of ['10614141000416', ']E06291041500214', '2161414100041'])
      expect(() => parseGs1(code, 2026)).toThrow('not_a_box_code');
  });

  it('is read out of a Digital Link', () => {
    expect(ais('https://id.example.org/01/9521234543213/10/ABC%2F1?17=261104&3103=000195')).toEqual([
      ['01', '09521234543213'],
      ['10', 'ABC/1'],
      ['17', '261104'],
      ['3103', '000195'],
    ]);
    expect(() => parseGs1('https://example.org/menu', 2026)).toThrow('not_a_box_code');
  });

  it('comes with separators doubled, written out or in front', () => {
    const wanted = [
      ['01', '99521234001013'],
      ['10', 'T2611A'],
      ['21', '7'],
    ];
    for (const code of [
      '019952123400101310T2611A\u001d\u001d217',
      '019952123400101310T2611A<GS>217',
      '\u001d019952123400101310T2611A\u001d217\u001d',
      ']d2019952123400101310T2611A\u001d217',
    ])
      expect(ais(code)).toEqual(wanted);
  });

  it('keeps a well-formed element nobody here knows, and the rest of the box', () => {
    for (const odd of [
      '3111001234',
      '39991234',
      '242123',
      '401X1',
      '4201AB',
      '7011261104',
      '8006952123400101300102',
      '4300Harrow',
    ]) {
      const read = ais(`0199521234001013${odd}\u001d10T1`);
      expect(read.at(0), odd).toEqual(['01', '99521234001013']);
      expect(read.at(-1), odd).toEqual(['10', 'T1']);
      expect(read, odd).toHaveLength(3);
    }
    expect(() => parseGs1('0199521234001013(5', 2026)).toThrow('not_a_box_code');
  });

  it('has no net weight when it says only gross, and suspects a swallowed weight', () => {
    expect(parseGs1('01995212340010133302000624', 2026).weightMissing).toBe(true);
    expect(parseGs1('01995212340010133102000624', 2026).weightMissing).toBe(false);
    expect(parseGs1('019952123400101310T26113103006240', 2026).lostSeparator).toMatchObject({
      kept: 'T2611',
      massMg: 6_240_000,
    });
    expect(parseGs1('019952123400101321SER17261104', 2026).lostSeparator).toMatchObject({
      inAi: '21',
      date: '2026-11-04',
    });
  });
});
