import { mouldMl } from '@zabrik/core';
import { expect, it } from 'vitest';
import { house } from '../../testing/kitchen.ts';
import { brimLitres, settingsOf, thingsForm, typedOf } from './thingsForm.ts';

const typed = {
  ...typedOf({ ...house, vessels: [], burners: [], machines: [], equipment: [], moulds: [], goods: [] }),
};
const pot = { id: '', name: 'The big one', kind: 'pot', litres: '20', acrossCm: '32', deepCm: '25,5' } as const;

it('a round pot of 32 by 25.5 cm holds 20.5 litres to the brim', () => {
  // pi * 16 * 16 * 25.5 = 20,508 cubic centimetres
  expect(brimLitres(32, 25.5)).toBeCloseTo(20.508, 3);
});

it('things get ids of their names, and no two the same', () => {
  const read = thingsForm.parse({
    ...typed,
    vessels: [pot, { ...pot, name: 'The Big One!' }, { ...pot, id: 'old', name: 'x', acrossCm: '', deepCm: '' }],
    burners: [{ id: '', name: 'Gas, large', kW: '7', percent: '40' }],
    machines: [{ id: '', name: '港', watts: '900' }],
  });
  const settings = settingsOf(read, { vessels: [] });
  expect(settings.vessels.map((v) => v.id)).toEqual(['the-big-one', 'the-big-one-2', 'old']);
  expect(settings.vessels[0]).toMatchObject({
    litres: 20,
    shape: { kind: 'round', diameterMm: 320, heightMm: 255 },
  });
  expect(settings.vessels[2]).not.toHaveProperty('shape');
  expect(settings.burners).toEqual([{ id: 'gas-large', name: 'Gas, large', watts: 7_000, efficiency: 0.4 }]);
  expect(settings.machines).toEqual([{ id: 'thing', name: '港', watts: 900, kind: 'blender' }]);
});

it('a pot that is not round keeps its form, and what it is said to hold must fit in', () => {
  const long = {
    id: 'tray',
    name: 'Tray',
    litres: 3,
    shape: { kind: 'long', lengthMm: 300, widthMm: 200, heightMm: 65 },
  } as const;
  const [row] = typedOf({ ...house, vessels: [long] }).vessels;
  expect(row).toMatchObject({ acrossCm: '', deepCm: '' });
  const read = thingsForm.parse({ ...typed, vessels: [row] });
  expect(settingsOf(read, { vessels: [long] }).vessels[0]).toMatchObject({ shape: long.shape });
  const wrong = (change: object) =>
    thingsForm.safeParse({ ...typed, vessels: [{ ...pot, ...change }] }).error?.issues.map((i) => i.message);
  expect(wrong({ litres: '40' })).toEqual(['It does not hold so much: look at its size']);
  expect(wrong({ deepCm: '' })).toEqual(['Both, or neither']);
  expect(wrong({ litres: 'many' })).toContain('How much it holds, such as 20');
});

const bare = { longCm: '', wideCm: '', kW: '', holds: '', error: '', cuts: '' } as const;

it('of each thing only what its kind has is kept, in the units of the records', () => {
  const read = thingsForm.parse({
    ...typed,
    equipment: [
      { ...bare, id: '', name: 'Combi', kind: 'oven', kW: '11,5', longCm: '40' },
      { ...bare, id: '', name: 'Chiller', kind: 'chiller', holds: '20 kg' },
      { ...bare, id: '', name: 'Probe', kind: 'probe', error: '0.5' },
      // what another kind would have is neither read nor wrong
      { ...bare, id: '', name: 'Board', kind: 'board', cuts: 'fish', kW: 'no figure', longCm: '-' },
      { ...bare, id: '', name: 'Bacon', kind: 'sheet', longCm: '25', wideCm: '4' },
    ],
  });
  const none = { longMm: null, wideMm: null, watts: null, holdsMg: null, errorCentiC: null, cuts: null };
  const { equipment } = settingsOf(read, { vessels: [] });
  expect(equipment).toEqual([
    { ...none, id: 'combi', name: 'Combi', kind: 'oven', watts: 11_500 },
    { ...none, id: 'chiller', name: 'Chiller', kind: 'chiller', holdsMg: 20_000_000 },
    { ...none, id: 'probe', name: 'Probe', kind: 'probe', errorCentiC: 50 },
    { ...none, id: 'board', name: 'Board', kind: 'board', cuts: 'fish' },
    { ...none, id: 'bacon', name: 'Bacon', kind: 'sheet', longMm: 250, wideMm: 40 },
  ]);
  // and as it is typed again
  const again = typedOf({ ...house, equipment });
  expect(settingsOf(thingsForm.parse(again), { vessels: [] }).equipment).toEqual(equipment);
});

it('a mould needs every side its form has, and comes back as it was', () => {
  const terrine = {
    id: '',
    name: 'Long',
    kind: 'terrine',
    sides: { lengthMm: '30', topMm: '10', bottomMm: '8,5', heightMm: '8', diameterMm: 'round' },
  } as const;
  const dome = {
    id: '',
    name: 'Dome',
    kind: 'dome',
    sides: { lengthMm: '', topMm: '', bottomMm: '', heightMm: '', diameterMm: '7' },
  } as const;
  const read = thingsForm.parse({ ...typed, moulds: [terrine, dome] });
  const { moulds } = settingsOf(read, { vessels: [] });
  expect(moulds).toEqual([
    { id: 'long', name: 'Long', mould: { kind: 'terrine', lengthMm: 300, topMm: 100, bottomMm: 85, heightMm: 80 } },
    { id: 'dome', name: 'Dome', mould: { kind: 'dome', diameterMm: 70 } },
  ]);
  // 30 x (10 + 8.5) / 2 x 8 = 2,220 ml; two thirds of pi x 3.5 cubed = 89.8 ml
  expect(moulds.map((m) => Math.round(mouldMl(m.mould)))).toEqual([2_220, 90]);
  expect(settingsOf(thingsForm.parse(typedOf({ ...house, moulds })), { vessels: [] }).moulds).toEqual(moulds);
  const missing = thingsForm.safeParse({
    ...typed,
    moulds: [{ ...terrine, sides: { ...terrine.sides, heightMm: '' } }],
  });
  expect(missing.error?.issues.map((i) => i.path.join('.'))).toEqual(['moulds.0.sides.heightMm']);
});

it('goods of the house’s own have ids that the catalogue has not, and keep them', () => {
  const port = {
    id: '',
    name: 'Port',
    group: 'dry',
    lifeDays: '900',
    place: 'ambient',
    allergens: ['sulphites'],
    ready: false,
  } as const;
  const parsed = thingsForm.parse({ ...typed, goods: [{ ...port, allergens: [...port.allergens] }] });
  const { goods } = settingsOf(parsed, { vessels: [] });
  expect(goods).toEqual([
    {
      id: 'own-port',
      name: 'Port',
      group: 'dry',
      lifeDays: 900,
      place: 'ambient',
      allergens: ['sulphites'],
      ready: false,
    },
  ]);
  const again = thingsForm.parse({
    ...typedOf({ ...house, goods: goods.map((g) => ({ ...g, name: 'Ruby port' })) }),
  });
  expect(settingsOf(again, { vessels: [] }).goods).toMatchObject([{ id: 'own-port', name: 'Ruby port' }]);
  const wrong = thingsForm.safeParse({ ...typed, goods: [{ ...port, lifeDays: '0', allergens: [] }] });
  expect(wrong.error?.issues.map((i) => i.message)).toEqual(['Days, such as 30']);
});

it('what a kind has and nobody can read is said at its field', () => {
  const wrong = thingsForm.safeParse({
    ...typed,
    equipment: [
      { ...bare, id: '', name: 'Combi', kind: 'oven', kW: '400' },
      { ...bare, id: '', name: 'Tray', kind: 'tray', longCm: 'long', wideCm: '' },
    ],
  });
  expect(wrong.error?.issues.map((i) => i.path.join('.'))).toEqual(['equipment.0.kW', 'equipment.1.longCm']);
});
