import { describe, expect, it } from 'vitest';
import { bodyOf, type DeliveryInput, deliveryForm, differenceOf, emptyDelivery, netOf } from './deliveryForm.ts';

const typed: DeliveryInput = {
  ...emptyDelivery,
  species: 'hake',
  form: 'gutted',
  supplierId: 'someone',
  gross: '3.272 kg',
  tare: '412',
  invoice: '2900',
  price: '£31.76',
  temperature: '34.5 F',
};

describe('the delivery form', () => {
  it('reads what a cook types into milligrams, pence and hundredths of a degree', () => {
    expect(bodyOf(deliveryForm.parse(typed))).toMatchObject({
      grossMg: 3_272_000,
      tareMg: 412_000,
      invoiceMg: 2_900_000,
      paidMinor: 3_176,
      temperatureCentiC: 139,
      landedOn: null,
      origin: null,
      note: null,
    });
  });

  it('says the difference while it is typed, in mass and money, as soon as it can', () => {
    expect(netOf(typed)).toBe(2_860_000);
    expect(differenceOf(typed)).toEqual({ differenceMg: -40_000, differenceMinor: -44 });
    expect(differenceOf({ ...typed, price: '' })).toEqual({ differenceMg: -40_000, differenceMinor: 0 });
    expect(differenceOf({ ...typed, invoice: 'about three' })).toBeUndefined();
    expect(netOf({ gross: '400', tare: '412' })).toBeUndefined();
  });

  it.each([
    ['species', ''],
    ['supplierId', ''],
    ['gross', 'heavy'],
    ['gross', ''],
    ['tare', '4 kg'],
    ['invoice', '0'],
    ['price', 'free'],
    ['temperature', 'cold'],
    ['animals', '0'],
    ['note', 'x'.repeat(501)],
  ] as const)('refuses %s = %j at that field, in words', (field, value) => {
    const read = deliveryForm.safeParse({ ...typed, [field]: value });
    expect(read.success).toBe(false);
    expect(read.error?.issues[0]?.path).toEqual([field]);
    expect(read.error?.issues[0]?.message).not.toMatch(/invalid|expected|regex/i);
  });
});
