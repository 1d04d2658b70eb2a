import { expect, it } from 'vitest';
import { house } from '../../testing/kitchen.ts';
import { brimLitres, settingsOf, thingsForm, typedOf } from './thingsForm.ts';

const typed = { ...typedOf({ ...house, vessels: [], burners: [], machines: [] }) };
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
