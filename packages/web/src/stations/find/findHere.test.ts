import { QueryClient } from '@tanstack/react-query';
import { expect, it } from 'vitest';
import { lotOf } from '../../testing/kitchen.ts';
import { screens } from '../screens.ts';
import { findKept, findPlaces, lineOf } from './findHere.ts';
import { settings } from './settings.ts';

const client = new QueryClient();
client.setQueryData(['lots', 'list'], {
  lots: [
    lotOf(1, { code: '0417-L', name: 'Hake fillet', supplierName: 'Bram Quay Fish' }),
    lotOf(2, { code: '0418-J', name: 'Hake frame', supplierName: null }),
  ],
});
client.setQueryData(['catalogue'], {
  plans: [{ id: 'round-fish-two-fillets', title: 'Two fillets', retired: false }],
  species: [{ id: 'hake', name: 'Hake' }],
});
client.setQueryData(['suppliers'], { suppliers: [{ id: 's', name: 'Bram Quay Fish' }] });
// what is read otherwise, with lists of other shapes: a search goes by it
client.setQueryData(['cuttings', 'one'], { lots: [{ lotId: 'x', name: 'Loin', pieces: 2 }] });
client.setQueryData(['me'], null);
client.setQueryData(['scale'], 5);

const names = (text: string): string[] => findKept(client, text).map((l) => `${l.group}: ${l.name}`);

it('without the server a lot is found by its code with and without its letter, and by words of it and its supplier', () => {
  for (const text of ['417', '0417-l', '0417L']) expect(names(text), text).toEqual(['Lots: Hake fillet']);
  expect(names('fillet quay')).toEqual(['Lots: Hake fillet']);
  expect(names('hake').sort()).toEqual(['Lots: Hake fillet', 'Lots: Hake frame']);
  expect(names('bram')).toEqual(expect.arrayContaining(['Suppliers: Bram Quay Fish', 'Lots: Hake fillet']));
  expect(names('two fillets')).toEqual(['Cut plans: Two fillets']);
  expect(names('loin')).toEqual([]);
  expect(names(' ')).toEqual([]);
});

it('where each leads: work under way to its bench, what is closed to its sheet', () => {
  const found = { id: 'b', name: 'Hake', code: '0417-L', massMg: 1, of: 'Ines', at: null };
  expect(lineOf({ ...found, kind: 'breakdown', open: true }).to).toBe('/bench/b');
  expect(lineOf({ ...found, kind: 'breakdown', open: false })).toMatchObject({
    to: '/ledger/b',
    about: 'Ines · closed',
  });
  expect(lineOf({ ...found, kind: 'lot', massMg: 0, open: false })).toMatchObject({ about: 'Ines · used up' });
});

it('screens and settings by name and by other words for them, the house for chefs alone', () => {
  const places = (text: string, role: 'butcher' | 'head-chef') =>
    findPlaces(screens, role, text).map((l) => `${l.group}: ${l.name} ${l.to}`);
  expect(places('stock-take', 'butcher')).toEqual(['Screens: Stock-take /larder/count']);
  expect(places('fahrenheit', 'head-chef')).toEqual(['Settings: Units /house']);
  expect(places('fahrenheit', 'butcher')).toEqual([]);
  expect(places('pin', 'butcher')).toEqual(['Settings: Your PIN /server']);
  expect(places('people', 'butcher')).toEqual([]);
});

it('every setting leads to a screen there is', () => {
  const paths = new Set(screens.map((s) => s.path));
  expect(settings.filter((s) => !paths.has(s.to))).toEqual([]);
});
