/** What of the house can be set, by the words a cook would look for it with, and where. */
export interface Setting {
  readonly name: string;
  readonly to: string;
  /** Other words for it. */
  readonly also: string;
}

export const settings: readonly Setting[] = [
  { name: 'Name of the kitchen', to: '/house', also: 'house restaurant' },
  { name: 'An hour at the bench costs', to: '/house', also: 'labour rate wage money' },
  { name: 'A kilowatt-hour costs', to: '/house', also: 'energy electricity gas power' },
  { name: 'What scales may differ from an invoice', to: '/house', also: 'tolerance short weight' },
  { name: 'What a piece costs', to: '/house', also: 'costing school credit by-product' },
  {
    name: 'Units',
    to: '/house',
    also: 'grams pounds ounces celsius fahrenheit litres gallons clock date decimal comma',
  },
  { name: 'Recovery code', to: '/house', also: 'password forgotten lost' },
  { name: 'Roles, PINs and who left', to: '/house/people', also: 'staff person new password rename hourly' },
  { name: 'Places and their temperature', to: '/house/things', also: 'fridge freezer cold room shelf' },
  { name: 'Vessels', to: '/house/things', also: 'pot pan rondeau litres kettle' },
  { name: 'Burners and motors', to: '/house/things', also: 'stove hob oven induction mixer power' },
  { name: 'Scales', to: '/house/devices', also: 'weights check division capacity address' },
  { name: 'Probe thermometer', to: '/house/devices', also: 'temperature address' },
  { name: 'Label printer', to: '/house/devices', also: 'labels address' },
  { name: 'Tablets', to: '/house/devices', also: 'lent lost forget device bench' },
  { name: 'Skills, shifts and what somebody must not touch', to: '/house/people', also: 'rota hours allergy allergen' },
  { name: 'Moulds, ovens, chillers, probes, boards', to: '/house/things', also: 'terrine tray sheet size equipment' },
  { name: 'Goods of your own', to: '/house/things', also: 'port brandy wine jelly bought ingredient' },
  { name: 'Tokens for programs', to: '/house/programs', also: 'api key integration accounting' },
  { name: 'Whom the house calls', to: '/house/programs', also: 'webhook callback integration' },
  { name: 'What by-products are worth', to: '/house/worth', also: 'bones trim price credit' },
  { name: 'What ingredients cost', to: '/house/worth', also: 'pantry price wine butter flour' },
  { name: 'Limits and profile', to: '/limits', also: 'code safety temperature days cold chain cautions' },
  { name: 'Backups', to: '/server', also: 'restore copy safe' },
  { name: 'Who is signed in', to: '/server', also: 'sessions tablets sign out' },
  { name: 'Your PIN', to: '/server', also: 'change own password' },
  { name: 'What viewers see', to: '/server', also: 'costs hidden viewer' },
];
