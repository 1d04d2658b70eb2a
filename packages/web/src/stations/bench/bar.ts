import type { OnTheBar } from '../../app/onTheBar.ts';

export const bench: OnTheBar = {
  to: '/bench',
  name: 'Bench',
  figure: ({ openBreakdowns }) => (openBreakdowns === 0 ? 'clear' : `${openBreakdowns} open`),
};
