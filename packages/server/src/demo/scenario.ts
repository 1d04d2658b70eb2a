/** The demo's invented house: names, people, suppliers and prices made up for it. Nothing here is data about the world. */
import type { SupplierTerms } from '@zabrik/contract';
import type { HouseSettings } from '../db/houseSettings.ts';

export const house = { slug: 'netloft', name: 'The Netloft, Port Marrow', currency: 'GBP' } as const;

export const settings: HouseSettings = {
  school: 'by-product-credit',
  labourMinorPerHour: 1_640,
  scales: [
    { id: 'bench', name: 'Bench scale', accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 },
    { id: 'floor', name: 'Floor scale', accuracyClass: 'III', intervalMg: 20_000, maxMg: 150_000_000 },
  ],
  creditMinorPerKg: {
    'white-fish-frame': 60,
    'white-fish-head': 50,
    'flatfish-frame': 80,
    'flatfish-fringe': 150,
    'fish-bone-strip': 20,
    'white-fish-trim': 650,
    'fish-belly': 500,
    'fish-roe-liver': 400,
    'crustacean-shell': 120,
    'venison-bone': 110,
    'venison-trim': 620,
    'gamebird-carcass': 90,
    'gamebird-trim': 350,
    'poultry-carcass': 90,
    'poultry-wing-neck': 250,
    'poultry-skin-fat': 100,
    'poultry-trim': 450,
  },
  pantryMinorPerKg: {
    water: 0,
    vegetables: 140,
    'white-wine': 520,
    cream: 480,
    'egg-white': 390,
    salt: 60,
    'white-sauce': 210,
    mash: 150,
    'tomato-paste': 320,
    'red-wine': 560,
    wine: 540,
    brandy: 1_900,
    butter: 720,
    egg: 410,
    breadcrumb: 260,
    panade: 180,
    bread: 180,
    potato: 110,
    oil: 340,
    sugar: 130,
    vinegar: 210,
    onion: 90,
    mushroom: 480,
    tomato: 190,
    rice: 120,
    noodles: 240,
    milk: 95,
    cheese: 1_450,
    mayonnaise: 380,
    'curry-sauce': 330,
    'soy-sauce': 420,
    fat: 350,
    stock: 180,
    trotter: 160,
    ice: 0,
  },
  energyMinorPerKwh: 24,
  equipment: [
    {
      id: 'combi',
      name: 'Combi oven',
      kind: 'oven',
      longMm: null,
      wideMm: null,
      watts: 11_000,
      holdsMg: null,
      errorCentiC: null,
      cuts: null,
    },
    {
      id: 'chiller',
      name: 'Blast chiller',
      kind: 'chiller',
      longMm: null,
      wideMm: null,
      watts: null,
      holdsMg: 20_000_000,
      errorCentiC: null,
      cuts: null,
    },
    {
      id: 'probe',
      name: 'Probe at the stove',
      kind: 'probe',
      longMm: null,
      wideMm: null,
      watts: null,
      holdsMg: null,
      errorCentiC: 50,
      cuts: null,
    },
    {
      id: 'fish-board',
      name: 'Long fish board',
      kind: 'board',
      longMm: null,
      wideMm: null,
      watts: null,
      holdsMg: null,
      errorCentiC: null,
      cuts: 'fish',
    },
    {
      id: 'bacon',
      name: 'Smoked bacon, long slices',
      kind: 'sheet',
      longMm: 250,
      wideMm: 40,
      watts: null,
      holdsMg: null,
      errorCentiC: null,
      cuts: null,
    },
  ],
  moulds: [
    {
      id: 'long-terrine',
      name: 'Long terrine of the house',
      mould: { kind: 'terrine', lengthMm: 300, topMm: 100, bottomMm: 85, heightMm: 80 },
    },
  ],
  machines: [{ id: 'cutter', name: 'Bowl cutter', kind: 'blender', watts: 900 }],
  burners: [
    { id: 'gas-large', name: 'Large gas ring, 7 kW', watts: 7_000, efficiency: 0.4 },
    { id: 'gas-small', name: 'Small gas ring, 3.5 kW', watts: 3_500, efficiency: 0.4 },
    { id: 'induction', name: 'Induction, 3.5 kW', watts: 3_500, efficiency: 0.85 },
  ],
  vessels: [
    { id: 'pot-12', name: '12 l pot', litres: 12, shape: { kind: 'round', diameterMm: 260, heightMm: 230 } },
    { id: 'pot-20', name: '20 l pot', litres: 20, shape: { kind: 'round', diameterMm: 320, heightMm: 250 } },
    { id: 'pot-40', name: '40 l pot', litres: 40, shape: { kind: 'round', diameterMm: 400, heightMm: 320 } },
    {
      id: 'pan-28',
      name: '28 cm sauté pan',
      litres: 5,
      kind: 'pan',
      shape: { kind: 'round', diameterMm: 280, heightMm: 85 },
    },
    {
      id: 'pan-24',
      name: '24 cm sauce pan',
      litres: 6,
      kind: 'pan',
      shape: { kind: 'round', diameterMm: 240, heightMm: 135 },
    },
  ],
};

export const people = [
  { name: 'Maren Ostle', role: 'head-chef', leftOnFrame: 0 },
  { name: 'Tobin Arkwell', role: 'sous-chef', leftOnFrame: 0.01 },
  { name: 'Ines Calloway', role: 'butcher', leftOnFrame: -0.015 },
  { name: 'Jory Pellam', role: 'butcher', leftOnFrame: 0.05 },
  { name: 'Wren Haldane', role: 'viewer', leftOnFrame: 0 },
] as const;

export const suppliers = [
  {
    name: 'Bram Quay Fish',
    driftPerMonth: 0,
    species: [
      'hake',
      'plaice',
      'cod',
      'haddock',
      'gurnard',
      'lemon-sole',
      'brill',
      'sea-bass',
      'pollack',
      'turbot',
      'monkfish',
      'squid',
      'mussel',
      'brown-crab',
    ],
  },
  {
    // fish held a little longer every month: the main cut shrinks
    name: 'Outer Skerry Boats',
    driftPerMonth: -0.012,
    species: ['hake', 'plaice', 'cod', 'gurnard', 'haddock', 'pollack'],
  },
  { name: 'Hollin Farm Poultry', driftPerMonth: 0.002, species: ['guinea-fowl', 'chicken', 'duck'] },
  {
    name: 'Marrowfell Game and Meat',
    driftPerMonth: 0,
    species: ['wood-pigeon', 'roe-deer', 'hare', 'rabbit', 'lamb', 'pork'],
  },
] as const;

export interface MenuItem {
  readonly species: string;
  readonly form: string;
  readonly plan: string;
  readonly minorPerKg: number;
}

const round = (species: string, form: string, minorPerKg: number): MenuItem => ({
  species,
  form,
  plan: 'round-fish-two-fillets',
  minorPerKg,
});
const flat = (species: string, minorPerKg: number): MenuItem => ({
  species,
  form: 'gutted',
  plan: 'flatfish-four-fillets',
  minorPerKg,
});
const bird = (species: string, minorPerKg: number): MenuItem => ({
  species,
  form: 'whole',
  plan: 'whole-bird-joints',
  minorPerKg,
});

const hake = round('hake', 'gutted', 1_095);
const plaice = flat('plaice', 780);
const guineaFowl = bird('guinea-fowl', 920);

/** What comes in, in turn: the dishes on the menu more often than the rest. */
export const menu: readonly MenuItem[] = [
  hake,
  plaice,
  guineaFowl,
  round('gurnard', 'whole', 640),
  hake,
  round('cod', 'gutted', 1_150),
  plaice,
  bird('chicken', 610),
  hake,
  round('haddock', 'gutted', 890),
  flat('lemon-sole', 1_480),
  guineaFowl,
  round('sea-bass', 'whole', 1_720),
  hake,
  flat('brill', 1_650),
  round('pollack', 'gutted', 760),
  plaice,
  flat('turbot', 2_640),
  { species: 'monkfish', form: 'tail', plan: 'tail-two-loins', minorPerKg: 2_150 },
  { species: 'wood-pigeon', form: 'whole', plan: 'small-game-bird-breasts', minorPerKg: 560 },
];

/** What else lies whole this morning, each waiting for a different hand. */
export const alsoWhole: readonly {
  readonly species: string;
  readonly form: string;
  readonly supplier: string;
  readonly animals: number;
  readonly startG: number;
  readonly minorPerKg: number;
}[] = [
  {
    species: 'wood-pigeon',
    form: 'whole',
    supplier: 'Marrowfell Game and Meat',
    animals: 10,
    startG: 5_040,
    minorPerKg: 560,
  },
  { species: 'duck', form: 'whole', supplier: 'Hollin Farm Poultry', animals: 1, startG: 2_415, minorPerKg: 780 },
  {
    species: 'guinea-fowl',
    form: 'whole',
    supplier: 'Hollin Farm Poultry',
    animals: 1,
    startG: 1_395,
    minorPerKg: 920,
  },
  { species: 'squid', form: 'whole', supplier: 'Bram Quay Fish', animals: 6, startG: 2_130, minorPerKg: 990 },
  {
    species: 'lamb',
    form: 'saddle',
    supplier: 'Marrowfell Game and Meat',
    animals: 1,
    startG: 3_180,
    minorPerKg: 1_640,
  },
  {
    species: 'pork',
    form: 'trotter',
    supplier: 'Marrowfell Game and Meat',
    animals: 4,
    startG: 2_240,
    minorPerKg: 180,
  },
];

/** What was begun and waits: for its next stage, or boned out and for its filling. */
export const begun: readonly {
  readonly species: string;
  readonly form: string;
  readonly plan: string;
  readonly supplier: string;
  readonly animals: number;
  readonly startG: number;
  readonly minorPerKg: number;
  readonly stages: number;
  readonly hoursAgo: number;
  /** The day the supplier printed on it, from today: begun before midnight it is still good after. */
  readonly goodForDays?: number;
}[] = [
  {
    species: 'roe-deer',
    form: 'saddle',
    plan: 'venison-loin-barrel',
    supplier: 'Marrowfell Game and Meat',
    animals: 1,
    startG: 2_060,
    minorPerKg: 2_380,
    stages: 2,
    hoursAgo: 16,
  },
  {
    species: 'brown-crab',
    form: 'cooked',
    plan: 'crab-picked',
    supplier: 'Bram Quay Fish',
    animals: 2,
    startG: 1_745,
    minorPerKg: 1_180,
    stages: 1,
    hoursAgo: 2.2,
    goodForDays: 1,
  },
  {
    species: 'guinea-fowl',
    form: 'whole',
    plan: 'bird-boned-whole',
    supplier: 'Hollin Farm Poultry',
    animals: 1,
    startG: 1_410,
    minorPerKg: 920,
    stages: 1,
    hoursAgo: 3.4,
  },
];

export const origins: Readonly<Record<string, string>> = {
  'Bram Quay Fish': 'Marrow Bay, day boat, gill net',
  'Outer Skerry Boats': 'Outer Skerry ground, trawl',
  'Hollin Farm Poultry': 'Hollin Farm',
  'Marrowfell Game and Meat': 'Marrowfell estate',
};

/** Vegetables and dry goods: what, grams, pence, hours ago. */
export const dryGoods: readonly (readonly [goods: string, grams: number, pence: number, hoursAgo: number])[] = [
  ['onion', 9_800, 880, 74],
  ['carrot', 5_000, 450, 50],
  ['celery', 2_400, 520, 50],
  ['leek', 3_100, 775, 26],
  ['fennel', 1_800, 540, 26],
  ['parsley', 600, 420, 26],
  ['cream', 4_000, 1_720, 26],
  ['egg-white', 1_000, 390, 50],
  ['butter', 5_000, 3_450, 98],
  ['white-wine', 5_000, 2_100, 240],
  ['salt', 6_000, 360, 700],
  ['flour', 8_000, 760, 400],
];

/** A fish quay's list: item and pence a kilogram a month ago. */
export const quayPrices: readonly (readonly [item: string, minorPerKg: number])[] = [
  ['Hake, gutted, 2-4 kg', 1_090],
  ['Hake, gutted, 1-2 kg', 890],
  ['Plaice, gutted, 400-600 g', 780],
  ['Plaice, gutted, over 1 kg', 960],
  ['Monkfish tail, 1-2 kg', 2_150],
  ['Gurnard, whole', 620],
  ['Mackerel, whole, line', 690],
  ['Squid, whole', 990],
  ['Mussels, rope', 420],
  ['Brill, gutted, 1-2 kg', 1_850],
  ['Lemon sole, gutted', 1_480],
  ['Turbot, gutted, 2-3 kg', 2_640],
  ['Pollack, gutted', 760],
  ['Haddock, gutted', 890],
  ['Brown crab, live, cock', 640],
];

/** What is agreed with the suppliers, all of it invented; telephone numbers of the range kept for drama. */
export const terms: Readonly<Record<string, Partial<SupplierTerms>>> = {
  'Bram Quay Fish': {
    contact: 'Orla, the morning desk',
    phone: '01632 960117',
    email: 'orders@bramquay.example',
    account: 'NL-204',
    orderDays: [1, 2, 3, 4, 5],
    cutOff: '16:00',
    deliveryDays: [2, 3, 4, 5, 6],
    leadDays: 1,
    minimumMinor: 8_000,
    carriageMinor: 900,
    carriageFreeMinor: 15_000,
    items: [
      { species: 'hake', form: 'gutted', goods: null, theirCode: 'HK2', theirName: 'Hake 2-3 kg', packMg: null },
      { species: 'plaice', form: 'gutted', goods: null, theirCode: 'PL1', theirName: null, packMg: null },
      { species: 'mussel', form: 'whole', goods: null, theirCode: 'MU5', theirName: 'Rope mussels', packMg: 5_000_000 },
    ],
  },
  'Outer Skerry Boats': {
    phone: '01632 960284',
    deliveryDays: [3, 6],
    leadDays: 2,
    note: 'Lands when the weather lets them',
  },
  'Hollin Farm Poultry': {
    contact: 'Ned',
    phone: '01632 960355',
    orderDays: [1, 4],
    cutOff: '12:00',
    deliveryDays: [3, 6],
    leadDays: 2,
    minimumMinor: 5_000,
  },
  'Marrowfell Game and Meat': {
    email: 'yard@marrowfell.example',
    orderDays: [1, 3],
    cutOff: '18:30',
    deliveryDays: [2, 5],
    leadDays: 1,
  },
  'Gannet Street Stores': {
    email: 'desk@gannetstreet.example',
    orderDays: [2, 5],
    cutOff: '17:00',
    deliveryDays: [3, 6],
    leadDays: 1,
    minimumMinor: 12_000,
    carriageMinor: 1_200,
    carriageFreeMinor: 25_000,
  },
};

/** A dry store's list, by the pack, and which ingredients are read from it. */
export const dryStore = {
  name: 'Gannet Street Stores',
  prices: [
    ['Butter, unsalted', 735, '10 x 250 g'],
    ['Double cream', 410, '2 l'],
    ['Plain flour', 92, 'bag 16 kg'],
    ['Red wine, cooking', 390, 'box 10 l'],
    ['Brandy', 1_980, 'bottle 70 cl'],
    ['Sea salt, fine', 74, '25 kg'],
  ] as const,
  read: {
    butter: 'Butter, unsalted',
    cream: 'Double cream',
    flour: 'Plain flour',
    'red-wine': 'Red wine, cooking',
    brandy: 'Brandy',
    salt: 'Sea salt, fine',
  },
} as const;
