import { expect, it } from 'vitest';
import { house } from '../../testing/kitchen.ts';
import { stillToSay } from './stillToSay.ts';

const said = {
  ...house,
  labourMinorPerHour: 1_640,
  energyMinorPerKwh: 24,
  creditMinorPerKg: { 'white-fish-frame': 60 },
  vessels: [{ id: 'pot', name: 'Pot', litres: 20 }],
  burners: [{ id: 'gas', name: 'Gas', watts: 7_000, efficiency: 0.4 }],
};

it('says what is missing and where it is said, in the order in which it is missed', () => {
  expect(stillToSay(said, 2, 2)).toEqual([]);
  const bare = {
    ...said,
    vessels: [],
    burners: [],
    labourMinorPerHour: null,
    energyMinorPerKwh: null,
    creditMinorPerKg: {},
  };
  expect(stillToSay(bare, 0, 0).map((s) => s.to)).toEqual([
    '/receive',
    '/larder/count',
    '/house/things',
    '/house',
    '/house/things',
    '/house/worth',
  ]);
  expect(stillToSay({ ...said, energyMinorPerKwh: null }, 1, 1)).toMatchObject([{ to: '/house' }]);
});
