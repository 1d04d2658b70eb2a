import type { OnTheBar } from '../../app/onTheBar.ts';

export const larder: OnTheBar = {
  to: '/larder',
  name: 'Larder',
  figure: ({ lotsOnHand, lotsDueToday }) =>
    `${lotsOnHand} ${lotsOnHand === 1 ? 'lot' : 'lots'}${lotsDueToday > 0 ? `, ${lotsDueToday} last day` : ''}`,
};
