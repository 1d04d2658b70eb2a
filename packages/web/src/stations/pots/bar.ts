import type { OnTheBar } from '../../app/onTheBar.ts';

export const pots: OnTheBar = {
  to: '/pots',
  name: 'Pots',
  figure: ({ batchesPlanned }) => (batchesPlanned === 0 ? 'none on' : `${batchesPlanned} on or planned`),
};
