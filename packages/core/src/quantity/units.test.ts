import convert from 'convert';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { formatMass, grams, kilograms, parseMass } from './mass.ts';
import { formatMoney, formatPerMass, fromPerHouseMass, parseMoney, perHouseMass } from './money.ts';
import { readDecimal } from './number.ts';
import { celsius, fahrenheit, formatTemperature, parseTemperature } from './temperature.ts';
import {
  figureTyped,
  formatCount,
  formatDegrees,
  formatDegreesRange,
  fromHouse,
  massFigure,
  massTyped,
  toHouse,
  type Units,
  unitName,
  unitsComeFrom,
  unitsNow,
  usualUnits,
} from './units.ts';
import { formatLitres, parseLitres } from './volume.ts';

const inUnits = (units: Partial<Units>): void => unitsComeFrom(() => ({ ...usualUnits, ...units }));
afterEach(() => unitsComeFrom(() => usualUnits));
const american: Partial<Units> = { mass: 'imperial', temperature: 'F', volume: 'us' };

it('are the usual ones until a house says otherwise, and whose hold now is asked anew each time', () => {
  expect(unitsNow()).toEqual(usualUnits);
  expect(formatMass(grams(2_860))).toBe('2,860 g');
  let units: Units = usualUnits;
  unitsComeFrom(() => units);
  expect(formatTemperature(celsius(63))).toBe('63.0 °C');
  units = { ...usualUnits, temperature: 'F' };
  expect(formatTemperature(celsius(63))).toBe('145.4 °F');
});

describe('against a reference library', () => {
  it('what a field shows and reads is what that comes to, both ways', () => {
    inUnits(american);
    const pairs = [
      ['g', 'oz'],
      ['kg', 'lb'],
    ] as const;
    for (const [inside, shown] of pairs) {
      expect(unitName(inside)).toBe(shown);
      for (const value of [0.5, 1, 160, 2_860])
        expect(toHouse(inside, value)).toBeCloseTo(convert(value, inside).to(shown), 6);
    }
    for (const C of [-18, 0, 3, 63, 100]) expect(toHouse('°C', C)).toBeCloseTo(convert(C, 'C').to('F'), 6);
    fc.assert(
      fc.property(
        fc.constantFrom('g', 'kg', 'l', 'ml', '°C', 'min'),
        fc.double({ min: -80, max: 1e5, noNaN: true }),
        (unit, v) => {
          expect(fromHouse(unit, toHouse(unit, v))).toBeCloseTo(v, 5);
        },
      ),
    );
    expect(unitName('min')).toBe('min');
    expect(toHouse('min', 12)).toBe(12);
  });

  // 231 cubic inches; 4.54609 l
  it.each([
    ['us', 'l', 0.946352946, 'qt'],
    ['imperial', 'l', 1.1365225, 'qt'],
    ['us', 'ml', 29.5735295625, 'fl oz'],
    ['imperial', 'ml', 28.4130625, 'fl oz'],
  ] as const)('one of a %s %s is so much: %d', (volume, inside, one, name) => {
    inUnits({ volume });
    expect(unitName(inside)).toBe(name);
    expect(toHouse(inside, one)).toBeCloseTo(1, 8);
    expect(fromHouse(inside, 1)).toBeCloseTo(one, 8);
  });
});

describe('a mass in pounds and ounces', () => {
  it('is written so, and a bare figure is ounces', () => {
    inUnits(american);
    expect(formatMass(grams(2_860))).toBe('6 lb 4.9 oz');
    expect(parseMass('8')).toBe(226_796);
    expect(parseMass('2 lb 3')).toBe(992_233);
    expect(parseMass('160 g')).toBe(160_000);
    expect(parseMass('1.375')).toBe(parseMass('1.375 oz'));
  });

  it('typed over and not changed it is the same to fifteen milligrams, and never a figure that can be two', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 50_000_000 }), (mass) => {
        for (const units of [american, { decimal: 'comma' }, {}] as const) {
          inUnits(units);
          expect(Math.abs(parseMass(massTyped(mass)) - mass)).toBeLessThanOrEqual(15);
        }
      }),
    );
    inUnits({});
    expect(massTyped(160_000)).toBe('160');
    expect(massTyped(2_860_500)).toBe('2860.5');
    inUnits(american);
    expect(massTyped(226_796)).toBe('8');
    expect(massTyped(160_000)).toBe('5.644');
  });

  it('the figure a scale shows has its thousands apart, and no unit', () => {
    expect(massFigure(grams(1_372))).toBe('1,372');
    expect(massFigure(-400)).toBe('0');
    expect(massFigure(grams(-3))).toBe('−3');
    inUnits(american);
    expect(massFigure(grams(1_372))).toBe('48.4');
  });

  it('a price a kilogram is one a pound, and back', () => {
    // 6.50 a pound = 14.330047 a kilogram (0.45359237 kg to the pound)
    inUnits(american);
    expect(formatPerMass(1_433, 'USD')).toBe('$6.50 a lb');
    expect(fromPerHouseMass(650)).toBe(1_433);
    expect(perHouseMass(1_433)).toBeCloseTo(650, 0);
    inUnits({});
    expect(formatPerMass(1_433, 'GBP')).toBe('£14.33 a kg');
    expect(fromPerHouseMass(1_433)).toBe(1_433);
  });
});

describe('a temperature in Fahrenheit', () => {
  it('a bare figure is in the house’s scale; one with its letter is what it says', () => {
    inUnits(american);
    expect(parseTemperature('145.4')).toBe(celsius(63));
    expect(parseTemperature('63 C')).toBe(celsius(63));
    inUnits({});
    expect(parseTemperature('145.4 F')).toBe(fahrenheit(145.4));
    expect(parseTemperature('63')).toBe(celsius(63));
  });

  it('what is meant has no more figures than it has, and a document’s own Fahrenheit goes first', () => {
    expect(formatDegrees(63)).toBe('63 °C');
    expect(formatDegrees(4.4)).toBe('4.4 °C');
    expect(formatDegrees(-18)).toBe('−18 °C');
    expect(formatDegrees(100)).toBe('100 °C');
    expect(formatDegreesRange(54, 75)).toBe('54 to 75 °C');
    expect(formatDegrees(57, 135)).toBe('57 °C');
    inUnits(american);
    // 57 °C are 134.6 °F; the code says 135
    expect(formatDegrees(57, 135)).toBe('135 °F');
    expect(formatDegrees(57)).toBe('134.6 °F');
    expect(formatDegreesRange(54, 75)).toBe('129.2 to 167 °F');
  });
});

describe('a volume', () => {
  it('is said in the largest part of a gallon it fills', () => {
    expect(formatLitres(12.5)).toBe('12.5 l');
    expect(formatLitres(0.06, 2)).toBe('0.06 l');
    inUnits(american);
    expect(formatLitres(12.5)).toBe('3.3 gal');
    expect(formatLitres(3)).toBe('3.2 qt');
    expect(formatLitres(0.06)).toBe('2.0 fl oz');
    inUnits({ volume: 'imperial' });
    expect(formatLitres(12.5)).toBe('2.7 gal');
    expect(formatLitres(0.06)).toBe('2.1 fl oz');
  });

  it.each([
    ['litres', '6,3', 6.3],
    ['litres', '750 ml', 0.75],
    ['litres', '75 cl', 0.75],
    ['litres', '2 gal', 7.570823568],
    ['us', '6', 5.678117676],
    ['us', '6 l', 6],
    ['us', '1 pt', 0.473176473],
    ['us', '8 fl oz', 0.2365882365],
    ['imperial', '2 pints', 1.1365225],
    ['imperial', '10 fl oz', 0.284130625],
    ['imperial', '1 quart', 1.1365225],
  ] as const)('in %s "%s" is %d litres', (volume, text, litres) => {
    inUnits({ volume });
    expect(parseLitres(text)).toBeCloseTo(litres, 6);
  });
  it.each(['', 'some', '0', '-3', '1,250', '5 kg', '1e9'])('"%s" is none', (text) => {
    expect(() => parseLitres(text)).toThrow(expect.objectContaining({ code: 'not_a_volume' }));
  });
});

describe('a decimal comma', () => {
  it('stands in every figure, and thousands by a thin space that reads back', () => {
    inUnits({ decimal: 'comma' });
    expect(formatCount(1_250.5, 1)).toBe('1\u202f250,5');
    expect(formatMass(kilograms(14.2))).toBe('14,20 kg');
    expect(formatMass(grams(2_860))).toBe('2\u202f860 g');
    expect(parseMass(formatMass(grams(2_860)))).toBe(grams(2_860));
    expect(formatMoney(123_450, 'EUR')).toBe('€1\u202f234,50');
    expect(parseMoney('1\u202f234,50', 'EUR')).toBe(123_450);
    expect(formatTemperature(celsius(1.4))).toBe('1,4 °C');
    expect(formatDegrees(4.4)).toBe('4,4 °C');
  });

  it('the sign that is the house’s decimal one is never taken for thousands, and the other never for a decimal one', () => {
    inUnits({ decimal: 'comma' });
    expect(parseMass('1.372')).toBe(grams(1_372));
    expect(() => parseMass('1,372')).toThrow(expect.objectContaining({ code: 'ambiguous_mass' }));
    expect(readDecimal('1,250')).toBe(1.25);
    expect(readDecimal('1.250')).toBeNaN();
    expect(() => parseMoney('1.250', 'EUR')).toThrow(expect.objectContaining({ code: 'ambiguous_price' }));
    inUnits({});
    expect(parseMass('1,372')).toBe(grams(1_372));
    expect(() => parseMass('1.372')).toThrow(expect.objectContaining({ code: 'ambiguous_mass' }));
    expect(readDecimal('1.250')).toBe(1.25);
    expect(readDecimal('1,250')).toBeNaN();
    expect(parseMoney('1.250', 'BHD')).toBe(1_250);
  });
});

it.each([
  {},
  american,
  { decimal: 'comma' as const },
  { ...american, decimal: 'comma' as const },
  { volume: 'imperial' as const },
])('a figure put into a field for typing over is read there as what it was, in %j', (units) => {
  inUnits(units);
  fc.assert(
    fc.property(fc.integer({ min: -300, max: 2_500 }), fc.integer({ min: 1, max: 90_000 }), (tenths, ml) => {
      expect(parseTemperature(figureTyped('°C', tenths / 10, 2)) / 100).toBeCloseTo(tenths / 10, 1);
      expect(parseLitres(figureTyped('l', ml / 1_000, 3)) * 1_000).toBeCloseTo(ml, -1);
    }),
  );
  // what stands on a probe at the door: a degree is a degree in whatever the house reads
  expect(Math.abs(parseTemperature(figureTyped('°C', 1.2, 1)) - 120)).toBeLessThanOrEqual(5);
});
