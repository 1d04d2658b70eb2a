/** A change of the house in words. */

import type { Shift, Skill } from '@zabrik/contract';
import { roleNames } from '@zabrik/contract/roles';
import { allergenWords, formatMass, type TaxSaid, taxWords } from '@zabrik/core';
import { weekdays } from '../../app/dates.ts';
import { shiftWords, skillNames } from './peopleWords.ts';

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
  equipment: 'Ovens, chillers, probes, boards, trays, sheets',
  moulds: 'Moulds',
  goods: 'Goods of the house’s own',
  places: 'Places',
  scales: 'Scales',
  practiceScale: 'Practice scale',
  tax: 'Tax on what is bought',
  idleMinutes: 'How long a tablet may lie untouched, minutes',
  units: 'Units, clock and dates',
  probeAt: 'Where the probe answers',
  printerAt: 'Where the label printer answers',
  creditMinorPerKg: 'What bones and trim are worth',
  pantryMinorPerKg: 'What the pantry costs',
  pantryFrom: 'From which list a price is read',
  supplier: 'Supplier',
  token: 'Token',
  webhook: 'Address that is called',
};

/** What is agreed with a supplier, by its name in the records. */
const termNames: Readonly<Record<string, string>> = {
  name: 'called',
  retired: 'bought from no more',
  contact: 'ask for',
  phone: 'telephone',
  email: 'e-mail',
  account: 'our number',
  orderDays: 'orders taken',
  cutOff: 'by',
  deliveryDays: 'brought',
  leadDays: 'days between',
  minimumMinor: 'at least',
  carriageMinor: 'carriage',
  carriageFreeMinor: 'free from',
  items: 'things:',
  note: 'note:',
};

/** What was changed, and of whom. */
export const whatWords = (what: string, about: string | null): string =>
  about === null ? (names[what] ?? what) : what === 'person' ? about : `${names[what] ?? what}: ${about}`;

interface Named {
  readonly name?: unknown;
  readonly role?: unknown;
  readonly left?: unknown;
  readonly hourlyMinor?: unknown;
  readonly skills?: readonly Skill[];
  readonly mustNotTouch?: readonly string[];
  readonly shifts?: readonly Shift[];
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
    const { name, role, left, hourlyMinor, skills, mustNotTouch, shifts } = value as Named;
    return [
      String(name),
      roleNames[role as keyof typeof roleNames] ?? '',
      ...(typeof hourlyMinor === 'number' ? [`${money(hourlyMinor)} an hour`] : []),
      ...(left === true ? ['left'] : []),
      ...(skills === undefined ? [] : [skills.map((s) => skillNames[s]).join(' and ')]),
      ...(mustNotTouch === undefined ? [] : [`must not touch ${allergenWords(mustNotTouch).join(', ')}`]),
      ...(shifts === undefined ? [] : [shifts.map(shiftWords).join('; ')]),
    ].join(', ');
  }
  if (what === 'tax') return `prices ${taxWords(value as TaxSaid)}`;
  if (what === 'tolerance') {
    const { share, massMg } = value as { share: number; massMg: number };
    return `${Number((share * 100).toFixed(2))} % or ${formatMass(massMg)}`;
  }
  if (what === 'supplier')
    return Object.entries(value)
      .flatMap(([key, v]) =>
        v === null || v === false || (Array.isArray(v) && v.length === 0)
          ? []
          : [
              `${termNames[key] ?? key} ${Array.isArray(v) ? v.map((d) => weekdays[Number(d) - 1]).join(' ') : /Minor$/.test(key) ? money(Number(v)) : String(v)}`,
            ],
      )
      .join(', ');
  if (what === 'pantryFrom')
    return Object.entries(value as Readonly<Record<string, { readonly item: string }>>)
      .map(([id, { item }]) => `${id}: ${item}`)
      .join(', ');
  return Object.entries(value)
    .map(([key, v]) => `${key} ${typeof v === 'number' && /Minor/.test(what) ? money(v) : String(v)}`)
    .join(', ');
}
