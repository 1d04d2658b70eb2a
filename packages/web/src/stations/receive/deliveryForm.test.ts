import type { Species } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import {
  bodyOf,
  type DeliveryInput,
  deliveryForm,
  differenceOf,
  emptyDelivery,
  type LineContext,
  netOf,
  nextLine,
  papersOf,
  refusing,
  unweighedForm,
} from './deliveryForm.ts';

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
const context: LineContext = {
  deliveryId: 'd',
  orderId: null,
  orderPosition: null,
  inspection: [],
  boxes: [],
  codes: [],
};

const pounds = { currency: 'GBP', tolerance: { share: 0, massMg: 0 } };

describe('the delivery form', () => {
  it('reads what a cook types into milligrams, pence and hundredths of a degree', () => {
    expect(bodyOf(deliveryForm('GBP').parse(typed), 'fish', context)).toMatchObject({
      grossMg: 3_272_000,
      tareMg: 412_000,
      invoiceMg: 2_900_000,
      paidMinor: 3_176,
      temperatureCentiC: 139,
      landedOn: null,
      origin: null,
      note: null,
      goods: null,
      details: {},
    });
  });

  it('sends of the papers only what this animal has', () => {
    const all = {
      ...typed,
      catchArea: '27.4.b',
      gear: 'trawl',
      shotBy: 'K.',
      killPlace: 'hill',
      healthMark: 'GB 7',
      supplierLot: 'L1',
    };
    const details = (papers: 'fish' | 'game' | 'shellfish' | 'none') =>
      bodyOf(deliveryForm('GBP').parse(all), papers, context).details;
    expect(details('fish')).toEqual({ supplierLot: 'L1', catchArea: '27.4.b', gear: 'trawl' });
    expect(details('game')).toEqual({ supplierLot: 'L1', raised: 'wild', killPlace: 'hill', shotBy: 'K.' });
    expect(details('shellfish')).toEqual({ supplierLot: 'L1', catchArea: '27.4.b', healthMark: 'GB 7' });
    expect(details('none')).toEqual({ supplierLot: 'L1' });
  });

  it('knows which papers an animal has', () => {
    const of = (group: string, allergen: string, id = 'x') => papersOf({ id, group, allergen } as Species);
    expect(of('round-fish', 'fish')).toBe('fish');
    expect(of('mollusc', 'molluscs', 'mussel')).toBe('shellfish');
    expect(of('mollusc', 'molluscs', 'squid')).toBe('fish');
    expect(of('furred-game', 'none')).toBe('game');
    expect(of('poultry', 'none')).toBe('none');
    expect(papersOf(undefined)).toBe('none');
  });

  it('refuses a part or all of a line with its reason', () => {
    const body = bodyOf(deliveryForm('GBP').parse(typed), 'fish', context);
    expect(refusing(body, 'smell', 500_000)).toMatchObject({
      verdict: 'part',
      refusedMg: 500_000,
      refusedReason: 'smell',
    });
    expect(refusing(body, 'warm', 'all')).toMatchObject({ verdict: 'refused', refusedMg: 0 });
  });

  it('refuses unweighed with what can be read, and invents neither weight nor invoice', () => {
    const bare = { ...typed, gross: '', tare: '', invoice: '', price: '' };
    const body = refusing(bodyOf(unweighedForm('GBP').parse(bare), 'fish', context), 'smell', 'all');
    expect(body).toMatchObject({ grossMg: null, tareMg: 0, invoiceMg: null, paidMinor: 0, verdict: 'refused' });
    const said = bodyOf(unweighedForm('GBP').parse({ ...bare, invoice: '2.9 kg', price: '31.46' }), 'fish', context);
    expect(said).toMatchObject({ grossMg: null, invoiceMg: 2_900_000, paidMinor: 3_146 });
    expect(unweighedForm('GBP').safeParse({ ...bare, invoice: 'about three' }).success).toBe(false);
    expect(unweighedForm('GBP').safeParse({ ...bare, species: '' }).success).toBe(false);
    expect(deliveryForm('GBP').safeParse(bare).success).toBe(false);
  });

  it('reads an amount in the house’s own money: a yen has no hundredths, a dinar has thousandths', () => {
    const yen = deliveryForm('JPY');
    expect(bodyOf(yen.parse({ ...typed, price: '3176' }), 'fish', context).paidMinor).toBe(3_176);
    expect(yen.safeParse({ ...typed, price: '31.76' }).success).toBe(false);
    expect(bodyOf(deliveryForm('KWD').parse({ ...typed, price: '31.765' }), 'fish', context).paidMinor).toBe(31_765);
    // 40 g short of 2,900 at 31,760 yen in all
    expect(differenceOf({ ...typed, price: '31760' }, { ...pounds, currency: 'JPY' })?.differenceMinor).toBe(-438);
  });

  it('keeps supplier and invoice number from line to line, and nothing else', () => {
    expect(nextLine({ ...typed, invoiceNumber: 'BQ 1' })).toEqual({
      ...emptyDelivery,
      supplierId: 'someone',
      invoiceNumber: 'BQ 1',
    });
  });

  it('says the difference while it is typed, in mass and money, and whether it passes', () => {
    expect(netOf(typed)).toBe(2_860_000);
    expect(differenceOf(typed, pounds)).toMatchObject({ differenceMg: -40_000, differenceMinor: -44, within: false });
    expect(differenceOf(typed, { ...pounds, tolerance: { share: 0.02, massMg: 0 } })?.within).toBe(true);
    expect(differenceOf({ ...typed, price: '' }, pounds)).toMatchObject({ differenceMg: -40_000, differenceMinor: 0 });
    expect(differenceOf({ ...typed, invoice: 'about three' }, pounds)).toBeUndefined();
    expect(netOf({ gross: '400', tare: '412' })).toBeUndefined();
  });

  it.each([
    ['species', ''],
    ['form', ''],
    ['supplierId', ''],
    ['gross', 'heavy'],
    ['gross', ''],
    ['tare', '4 kg'],
    ['invoice', '0'],
    ['price', 'free'],
    ['temperature', 'cold'],
    ['animals', '0'],
    ['note', 'x'.repeat(501)],
    ['supplierLot', 'x'.repeat(121)],
  ] as const)('refuses %s = %j at that field, in words', (field, value) => {
    const read = deliveryForm('GBP').safeParse({ ...typed, [field]: value });
    expect(read.success).toBe(false);
    expect(read.error?.issues[0]?.path).toEqual([field]);
    expect(read.error?.issues[0]?.message).not.toMatch(/invalid|expected|regex/i);
  });

  it('wants no form of goods', () => {
    expect(deliveryForm('GBP').safeParse({ ...typed, species: '', form: '', goods: 'cream' }).success).toBe(true);
  });
});
