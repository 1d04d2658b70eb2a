/** What a kitchen works without until somebody says it, and what it is needed for. */
import type { House } from '@zabrik/contract';

export interface StillToSay {
  readonly what: string;
  readonly why: string;
  readonly to: string;
}

/** In the order in which it is missed. Nothing of it stands in the way of weighing and cutting. */
export function stillToSay(house: House, suppliers: number, lotsOnHand: number): readonly StillToSay[] {
  const say = (missing: boolean, what: string, why: string, to: string): StillToSay[] =>
    missing ? [{ what, why, to }] : [];
  return [
    ...say(suppliers === 0, 'Who delivers', 'a delivery says who brought it', '/receive'),
    ...say(lotsOnHand === 0, 'What lies there already', 'a pot is made of what the larder knows of', '/larder/count'),
    ...say(house.vessels.length === 0, 'Your pots and pans', 'how full a pot is, how long it cools', '/house/things'),
    ...say(
      house.labourMinorPerHour === null,
      'What an hour costs',
      'a plate is costed without labour until then',
      '/house',
    ),
    ...say(
      house.burners.length === 0 || house.energyMinorPerKwh === null,
      'Burners, and what a kilowatt-hour costs',
      'how long a pot takes to boil, and what that costs',
      house.burners.length === 0 ? '/house/things' : '/house',
    ),
    ...say(
      Object.keys(house.creditMinorPerKg).length === 0,
      'What bones and trim are worth',
      'until then all of the price stays on the portions',
      '/house/worth',
    ),
  ];
}
