/** Countries with the clocks they have and the money they use: what a kitchen says of itself by one word. */
import { type Units, usualUnits } from '@zabrik/core';
import { getCountry, getCountryForTimezone } from 'countries-and-timezones';
import currencyOf from 'country-to-currency';

export interface Country {
  readonly id: string;
  readonly name: string;
  readonly timezones: readonly string[];
  readonly currency: string;
}

const names = new Intl.DisplayNames(['en'], { type: 'region' });

const readCountry = (id: string): Country | undefined => {
  const found = getCountry(id as 'GB');
  const currency = currencyOf[id as 'GB'] as string | undefined;
  if (found === null || currency === undefined || !Intl.supportedValuesOf('currency').includes(currency))
    return undefined;
  return { id, name: names.of(id) ?? found.name, timezones: found.timezones, currency };
};

/** All that have a clock and money, by name. */
export const countries: readonly Country[] = Object.keys(currencyOf)
  .flatMap((id) => readCountry(id) ?? [])
  .sort((a, b) => a.name.localeCompare(b.name));

/** Where kitchens weigh in pounds, cook in Fahrenheit and write the month first. Common practice; of others the house says so itself. */
const inPounds = new Set(['US', 'LR', 'FM', 'MH', 'PW']);
export const usualUnitsOf = (country: string): Units =>
  inPounds.has(country)
    ? { mass: 'imperial', temperature: 'F', volume: 'us', clock: '12', dates: 'month-first', decimal: 'point' }
    : usualUnits;

/** The country whose clock this device shows. */
export const countryHere = (timezone: string): string => getCountryForTimezone(timezone)?.id ?? '';
