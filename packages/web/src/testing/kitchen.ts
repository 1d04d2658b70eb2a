/** One kitchen for tests of screens: who is signed in, its house, a lot of it. */
import { type Answer, type api, type House, type Lot, type Me, noTerms } from '@zabrik/contract';
import { usualIdleMinutes } from '@zabrik/contract/roles';
import { usualUnits } from '@zabrik/core';

type Supplier = Answer<typeof api.receive.saveSupplier>;

export const me: Me = {
  person: { id: '019a0000-0000-7000-8000-00000000000a', name: 'Ines Calloway', role: 'sous-chef' },
  house: { id: '019a0000-0000-7000-8000-00000000000b', slug: 'netloft', name: 'The Netloft' },
  mustNotTouch: [],
  firstDay: false,
  restored: null,
};
export const house: House = {
  ...me.house,
  currency: 'GBP',
  timezone: 'Europe/London',
  school: 'weight',
  scales: [{ id: 'bench', name: 'Bench scale', accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 }],
  creditMinorPerKg: {},
  pantryMinorPerKg: {},
  pantryFrom: {},
  labourMinorPerHour: 1_638,
  vessels: [],
  burners: [],
  machines: [],
  equipment: [],
  moulds: [],
  goods: [],
  energyMinorPerKwh: null,
  places: [{ id: 'cold-room', name: 'Cold room', kind: 'cold-room', holds: 'raw' }],
  tolerance: { share: 0.01, massMg: 10_000 },
  limits: { profileId: 'uk', title: 'United Kingdom' },
  costs: 'shown',
  viewersSeeCosts: true,
  version: 1,
  units: usualUnits,
  practiceScale: false,
  tax: null,
  idleMinutes: usualIdleMinutes,
  probeAt: null,
  printerAt: null,
  simulated: false,
};

/** A lot on hand; its id and code are of the number given. */
export const lotOf = (n: number, o: Partial<Lot> = {}): Lot => ({
  id: `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`,
  code: `${n}-K`,
  kind: 'piece',
  name: 'Hake portion',
  species: 'hake',
  form: null,
  category: null,
  destination: 'portion',
  pieces: 1,
  massMg: 160_000,
  freeMg: o.massMg ?? 160_000,
  freePieces: o.pieces ?? 1,
  madeMg: 160_000,
  costMinor: 300,
  useBy: '2026-11-27',
  madeAt: '2026-11-25T08:00:00.000Z',
  supplierName: null,
  parentCodes: [],
  allergens: ['fish'],
  note: null,
  nextStage: null,
  breakdownId: null,
  pieceId: null,
  placeId: 'cold-room',
  state: 'fresh',
  ready: false,
  frozenOn: null,
  thawedOn: null,
  openedOn: null,
  dateBasis: null,
  dateLimit: null,
  dateMaxC: null,
  raised: null,
  reservedFor: null,
  held: null,
  goods: null,
  tubRecipe: null,
  recipeId: null,
  potKind: '',
  labels: 0,
  ...o,
});

/** A supplier of whom nothing is said but what is given. */
export const supplierOf = (id: string, name: string, terms: Partial<Supplier['terms']> = {}): Supplier => ({
  id,
  name,
  version: 1,
  retired: false,
  terms: { ...noTerms, ...terms },
});
