import { grams } from '@zabrik/core';
import { expect, it } from 'vitest';
import { timeTyped } from '../../kit/fieldReaders.ts';
import { supplierOf } from '../../testing/kitchen.ts';
import { supplierForm, supplierTyped } from './supplierForm.ts';

it.each([
  ['16:00', '16:00'],
  ['16.30', '16:30'],
  ['1600', '16:00'],
  ['4 pm', '16:00'],
  ['4:30pm', '16:30'],
  ['12 am', '00:00'],
  ['12 pm', '12:00'],
  ['9', '09:00'],
  ['00:05', '00:05'],
])('%s is %s', (typed, time) => expect(timeTyped(typed)).toBe(time));
it.each(['25:00', '13 pm', '0 am', '16:60', 'noon', ''])('%s is no time', (typed) =>
  expect(timeTyped(typed)).toBeUndefined(),
);

it('what a form shows of a supplier, unchanged, is what was agreed', () => {
  const said = {
    contact: 'Orla',
    phone: '01632 960117',
    email: 'orders@quay.example',
    account: null,
    orderDays: [1, 3],
    cutOff: '16:00',
    deliveryDays: [2],
    leadDays: 2,
    minimumMinor: 8_000,
    carriageMinor: 0,
    carriageFreeMinor: null,
    items: [
      { species: 'hake', form: 'gutted', goods: null, theirCode: 'HK2', theirName: null, packMg: grams(5_000) },
      { species: null, form: null, goods: 'cream', theirCode: null, theirName: 'Double', packMg: null },
    ],
    note: 'rings back',
  };
  const typed = supplierTyped(supplierOf('s', 'Bram Quay Fish', said), 'GBP');
  expect(supplierForm('GBP').parse(typed)).toEqual({ name: 'Bram Quay Fish', terms: said });
  const wrong = supplierForm('GBP').safeParse({
    ...typed,
    name: ' ',
    email: 'orders at quay',
    cutOff: 'noon',
    lead: '15',
    minimum: 'some',
    items: [{ what: '', theirCode: '', theirName: '', pack: 'a lot' }],
  });
  expect(wrong.error?.issues.map((i) => i.path.join('.')).sort()).toEqual([
    'cutOff',
    'email',
    'items.0.pack',
    'items.0.what',
    'lead',
    'minimum',
    'name',
  ]);
});
