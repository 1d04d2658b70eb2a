import { expect, it } from 'vitest';
import { sideWords, whatWords } from './changeWords.ts';

const money = (minor: number): string => `£${(minor / 100).toFixed(2)}`;

it('a change is said by what it was, from what to what', () => {
  expect(whatWords('pin', 'Odd Brekke')).toBe('A new PIN: Odd Brekke');
  expect(whatWords('person', 'Odd Brekke')).toBe('Odd Brekke');
  expect(whatWords('labourMinorPerHour', null)).toBe('What an hour costs');
  expect(whatWords('something-of-later', null)).toBe('something-of-later');
  expect(sideWords('labourMinorPerHour', 1_640, money)).toBe('£16.40');
  expect(sideWords('labourMinorPerHour', null, money)).toBe('nothing');
  expect(sideWords('pin', null, money)).toBe('');
  expect(sideWords('viewersSeeCosts', false, money)).toBe('no');
  expect(sideWords('vessels', [{ name: 'Big pot' }, { name: 'Pan' }], money)).toBe('Big pot, Pan');
  expect(sideWords('vessels', [], money)).toBe('none');
  expect(sideWords('tolerance', { share: 0.015, massMg: 10_000 }, money)).toBe('1.5 % or 10 g');
  expect(sideWords('creditMinorPerKg', { bone: 60 }, money)).toBe('bone £0.60');
  expect(sideWords('person', { name: 'Odd', role: 'butcher', hourlyMinor: 1_720, left: true }, money)).toBe(
    'Odd, Butcher, £17.20 an hour, left',
  );
});
