import { expect, it } from 'vitest';
import { countries, countryHere, usualUnitsOf } from './countries.ts';

it('a country has its clocks and its money', () => {
  const of = (id: string) => countries.find((c) => c.id === id);
  expect(countries.length).toBeGreaterThan(200);
  expect(of('PT')).toMatchObject({ name: 'Portugal', currency: 'EUR' });
  expect(of('PT')?.timezones).toContain('Atlantic/Azores');
  expect(of('JP')).toMatchObject({ currency: 'JPY', timezones: ['Asia/Tokyo'] });
  expect(of('GB')).toMatchObject({ name: 'United Kingdom', currency: 'GBP' });
  // every clock is one this runtime knows
  for (const { timezones } of countries)
    for (const timeZone of timezones) expect(() => new Intl.DateTimeFormat('en', { timeZone })).not.toThrow();
});

it('weighs as kitchens of the country do', () => {
  expect(usualUnitsOf('US')).toMatchObject({ mass: 'imperial', temperature: 'F', volume: 'us', clock: '12' });
  expect(usualUnitsOf('GB')).toMatchObject({ mass: 'metric', temperature: 'C', volume: 'litres', clock: '24' });
});

it('the clock of the device says where it stands', () => {
  expect(countryHere('Europe/Lisbon')).toBe('PT');
  expect(countryHere('UTC')).toBe('');
});
