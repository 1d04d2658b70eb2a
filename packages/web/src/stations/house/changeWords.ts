/** A change of the house in words. */

import { roleNames } from '@zabrik/contract/roles';
import { formatMass } from '@zabrik/core';

const names: Readonly<Record<string, string>> = {
  'set-up': 'The kitchen was set up',
  recovery: 'PIN and password were set by the recovery code',
  pin: 'A new PIN',
  name: 'Name of the kitchen',
  school: 'What a piece costs',
  labourMinorPerHour: 'What an hour costs',
  energyMinorPerKwh: 'What a kilowatt-hour costs',
  tolerance: 'What scales may differ',
  viewersSeeCosts: 'Viewers see costs',
  vessels: 'Pots and pans',
  burners: 'Burners',
  machines: 'Machines',
  places: 'Places',
  scales: 'Scales',
  units: 'Units, clock and dates',
  probeAt: 'Where the probe answers',
  printerAt: 'Where the label printer answers',
  creditMinorPerKg: 'What bones and trim are worth',
  pantryMinorPerKg: 'What the pantry costs',
};

/** What was changed, and of whom. */
export const whatWords = (what: string, about: string | null): string =>
  about === null ? (names[what] ?? what) : what === 'person' ? about : `${names[what] ?? what}: ${about}`;

interface Named {
  readonly name?: unknown;
  readonly role?: unknown;
  readonly left?: unknown;
  readonly hourlyMinor?: unknown;
}

/** One side of a change: nothing, a word, an amount, a list by its names, a person. */
export function sideWords(what: string, value: unknown, money: (minor: number) => string): string {
  // what is never shown has no sides
  if (what === 'pin' || what === 'recovery') return '';
  if (value === null || value === undefined) return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return /Minor/.test(what) ? money(value) : String(value);
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map((v: Named) => String(v.name)).join(', ');
  if (what === 'person') {
    const { name, role, left, hourlyMinor } = value as Named;
    return [
      String(name),
      roleNames[role as keyof typeof roleNames] ?? '',
      ...(typeof hourlyMinor === 'number' ? [`${money(hourlyMinor)} an hour`] : []),
      ...(left === true ? ['left'] : []),
    ].join(', ');
  }
  if (what === 'tolerance') {
    const { share, massMg } = value as { share: number; massMg: number };
    return `${Number((share * 100).toFixed(2))} % or ${formatMass(massMg)}`;
  }
  return Object.entries(value)
    .map(([key, v]) => `${key} ${typeof v === 'number' && /Minor/.test(what) ? money(v) : String(v)}`)
    .join(', ');
}
