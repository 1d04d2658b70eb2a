import convert from 'convert';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Refusal } from '../refusal.ts';
import { formatMass, grams, inGrams, kilograms, ounces, parseMass, pounds } from './mass.ts';
import {
  amountText,
  formatMoney,
  fromMajor,
  inMajor,
  minor,
  minorDigits,
  parseMoney,
  priceOf,
  shareOut,
  taxWords,
} from './money.ts';
import { figureWords, readDecimal } from './number.ts';
import { celsius, fahrenheit, formatTemperature, inFahrenheit, parseTemperature } from './temperature.ts';

const refusalCode = (act: () => unknown): string | undefined => {
  try {
    act();
    return undefined;
  } catch (error) {
    return error instanceof Refusal ? error.code : String(error);
  }
};

describe('mass', () => {
  // reference library: convert 8.0.2, from the npm registry
  it('agrees with a reference library on pounds, ounces, grams and kilograms', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5_000, noNaN: true }), (value) => {
        expect(Math.abs(pounds(value) - convert(value, 'lb').to('mg'))).toBeLessThanOrEqual(1);
        expect(Math.abs(ounces(value) - convert(value, 'oz').to('mg'))).toBeLessThanOrEqual(1);
        expect(kilograms(value)).toBe(Math.round(convert(value, 'kg').to('mg')));
      }),
    );
  });

  it('knows the handbook’s conversions', () => {
    // NIST Handbook 44, Appendix C, recalled: 6 oz, 8 lb, a larder weight of 12 stone
    expect(inGrams(ounces(6))).toBeCloseTo(170.09713875, 2);
    expect(inGrams(pounds(8)) / 1_000).toBeCloseTo(3.62873896, 5);
    expect(inGrams(pounds(12 * 14)) / 1_000).toBeCloseTo(76.20351816, 5);
  });

  it.each([
    ['2860', 2_860_000],
    ['2,860', 2_860_000],
    ['2.86 kg', 2_860_000],
    ['2,86kg', 2_860_000],
    ['6 lb 4 oz', 2_834_952],
    ['500mg', 500],
    ['0', 0],
  ])('reads %s', (text, expected) => {
    expect(parseMass(text)).toBe(expected);
  });

  it.each([
    ['0,412 kg', 412_000],
    ['1,372 kg', 1_372_000],
    ['12,5 kg', 12_500_000],
    ['1,372', 1_372_000],
    ['1,372 g', 1_372_000],
    ['12,5', 12_500],
    ['1,234.50 kg', 1_234_500_000],
    ['1,5 lb', 680_389],
    ['2 860', 2_860_000],
    ['1 372 g', 1_372_000],
    ['1\u00a0372 g', 1_372_000],
    ['1\u2009372\u202fg', 1_372_000],
    ['1’372 g', 1_372_000],
    ['1 kg 200', 1_200_000],
    ['1 kg 200 g', 1_200_000],
    ['6 lbs', 2_721_554],
    ['.5 kg', 500_000],
    ['1½ lb', 680_389],
    ['½ lb', 226_796],
    ['2 lb 3', 992_233],
    ['3 pounds', 1_360_777],
    ['0.412 g', 412],
    ['1.372 kg', 1_372_000],
    ['12 400 g', 12_400_000],
  ])('knows a decimal comma from thousands: %j', (text, expected) => {
    expect(parseMass(text)).toBe(expected);
  });

  it.each([
    '1 kg 200 g 3 kg',
    '200 g 150 g',
    '4 oz 2 lb',
    '12 34',
    '1 2',
    '2 oz 3',
    '',
    'fish',
    '-3',
    '3 stone',
    '12..5',
    '1,2,3',
    '1.372.000',
    '1e9 kg',
    '200000 kg',
  ])('refuses %j', (text) => {
    expect(refusalCode(() => parseMass(text))).toBe('not_a_mass');
  });

  it.each(['1.372', '2.860', '1.372 g', '0.412', '0,412', '.412'])('asks what %j is: it can be two weights', (text) => {
    expect(refusalCode(() => parseMass(text))).toBe('ambiguous_mass');
    try {
      parseMass(text);
    } catch (error) {
      expect(figureWords(error, 'other')).toMatch(/^Is that .+ or .+\? Type it so/);
    }
  });

  it('reads any whole grams the same, however the thousands stand apart', () => {
    const signs = fc.constantFrom(',', ' ', '\u00a0', '\u2009', '\u202f', "'", '');
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999_999 }), signs, fc.boolean(), (g, sign, unit) => {
        const text = String(g).replace(/\B(?=(\d{3})+$)/g, sign);
        expect(parseMass(`${text}${unit ? ' g' : ''}`)).toBe(grams(g));
      }),
    );
  });

  it('reads back what it shows, to the gram', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9_999 }), fc.integer({ min: 1_000, max: 900_000 }), (g, tens) => {
        expect(parseMass(formatMass(grams(g)))).toBe(grams(g));
        expect(parseMass(formatMass(grams(tens * 10)))).toBe(grams(tens * 10));
      }),
    );
  });

  it('shows grams to 10 kg and kilograms above, and never minus nothing', () => {
    expect(formatMass(grams(2860))).toBe('2,860 g');
    expect(formatMass(kilograms(14.2))).toBe('14.20 kg');
    expect(formatMass(-400)).toBe('0 g');
    expect(formatMass(grams(-46))).toBe('−46 g');
    expect(formatMass(pounds(6.5), 'imperial')).toBe('6 lb 8.0 oz');
  });
});

describe('figures', () => {
  it.each([
    ['1,5', 1.5],
    ['1.250', 1.25],
    ['−3,5', -3.5],
    ['2 860', 2_860],
    ['1 1/2', 1.5],
    ['¾', 0.75],
    ['12.', 12],
  ])('reads %j as %d', (text, value) => expect(readDecimal(text)).toBeCloseTo(value, 12));

  it.each(['', 'x', '1,250', '1.2.3', '3/0', '1e5', 'Infinity', '--3'])('reads nothing of %j', (text) =>
    expect(readDecimal(text)).toBeNaN(),
  );
});

describe('money', () => {
  // reference: the tables of the Unicode CLDR that this runtime ships, for every currency it knows
  it.each(Intl.supportedValuesOf('currency'))('%s has the decimals that the CLDR gives it', (currency) => {
    const { maximumFractionDigits } = new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions();
    expect(minorDigits(currency)).toBe(maximumFractionDigits);
  });

  it('goes between minor units and the currency’s own', () => {
    expect(inMajor(1_250, 'GBP')).toBe(12.5);
    expect(inMajor(1_250, 'JPY')).toBe(1_250);
    expect([amountText(1_250, 'GBP'), amountText(1_250, 'JPY')]).toEqual(['12.50', '1250']);
    expect(fromMajor(12.345, 'KWD')).toBe(12_345);
    expect(fromMajor(12.345, 'GBP')).toBe(1_235);
    expect(fromMajor(inMajor(31_765, 'KWD'), 'KWD')).toBe(31_765);
  });

  it('reads and shows amounts', () => {
    expect(parseMoney('£1,031.46', 'GBP')).toBe(103_146);
    expect(parseMoney('12.5', 'GBP')).toBe(1_250);
    expect(formatMoney(418, 'GBP')).toBe('£4.18');
    expect(formatMoney(-30, 'GBP')).toBe('−£0.30'); // with the minus a mass has
    expect(formatMoney(-0.4, 'GBP')).toBe('£0.00');
    // ISO 4217: the yen has no minor unit, the Kuwaiti dinar a thousand
    expect(formatMoney(1_250, 'JPY')).toBe('JPY 1,250');
    expect(formatMoney(1_250, 'KWD')).toBe('KWD 1.250');
    expect(parseMoney('1250', 'JPY')).toBe(1_250);
    expect(parseMoney('1.25', 'KWD')).toBe(1_250);
    expect(() => parseMoney('12.5', 'JPY')).toThrow();
    expect(refusalCode(() => parseMoney('12.345', 'GBP'))).toBe('not_a_price');
    expect(parseMoney('0,500', 'GBP')).toBe(50);
    expect(parseMoney('1 250', 'GBP')).toBe(125_000);
    expect(parseMoney('1.250,50 €', 'GBP')).toBe(125_050);
    expect(parseMoney('0,5', 'GBP')).toBe(50);
    for (const either of ['1,250', '£2,500'])
      expect(refusalCode(() => parseMoney(either, 'GBP'))).toBe('ambiguous_price');
    for (const none of ['', '-3', 'free', '3..4'])
      expect(refusalCode(() => parseMoney(none, 'GBP'))).toBe('not_a_price');
  });

  it('turns a price per pound into one per kilogram as the handbook does', () => {
    // 6.50 a pound = 14.330047 a kilogram (0.45359237 kg to the pound)
    expect(priceOf(kilograms(1), 650 / 0.45359237)).toBe(1_433);
  });

  it('shares out without losing a unit, each share within one unit of its exact part', () => {
    const weights = fc
      .array(fc.integer({ min: 0, max: 1e9 }), { minLength: 1, maxLength: 12 })
      .filter((w) => w.some((x) => x > 0));
    fc.assert(
      fc.property(fc.integer({ min: -1e7, max: 1e7 }), weights, (total, w) => {
        const shares = shareOut(total, w);
        const sum = w.reduce((a, b) => a + b, 0);
        expect(shares.reduce<number>((a, b) => a + b, 0)).toBe(total);
        shares.forEach((share, i) => {
          expect(Math.abs(share - (total * (w[i] ?? 0)) / sum)).toBeLessThan(1 + 1e-6);
        });
      }),
    );
  });

  it('gives ties to the earlier and refuses to share over nothing', () => {
    expect(shareOut(1_000, [2, 1])).toEqual([667, 333]);
    expect(shareOut(1, [1, 1])).toEqual([1, 0]);
    expect(refusalCode(() => shareOut(minor(5), []))).toBe('no_pieces');
    expect(refusalCode(() => shareOut(minor(5), [0, 0]))).toBe('no_usable_mass');
  });
});

describe('temperature', () => {
  it('agrees with a reference library both ways', () => {
    for (const f of [-40, 0, 32, 41, 135, 145.4, 212]) {
      expect(fahrenheit(f) / 100).toBeCloseTo(convert(f, 'F').to('C'), 2);
      expect(inFahrenheit(fahrenheit(f))).toBeCloseTo(f, 1);
    }
  });

  it('reads what cooks type and refuses what no probe shows', () => {
    expect(parseTemperature('1.4')).toBe(140);
    expect(parseTemperature('-18 C')).toBe(-1_800);
    expect(parseTemperature('34.7F')).toBe(150);
    expect(formatTemperature(celsius(-18))).toBe('−18.0 °C');
    expect(refusalCode(() => parseTemperature('500'))).toBe('not_a_temperature');
    expect(refusalCode(() => parseTemperature('cold'))).toBe('not_a_temperature');
  });
});

it.each([
  [null, ''],
  [undefined, ''],
  [{ name: 'VAT', prices: 'without' } as const, 'without VAT'],
  [{ name: 'IVA', prices: 'with' } as const, 'with IVA'],
])('of a tax %o is said %o', (tax, words) => expect(taxWords(tax)).toBe(words));
