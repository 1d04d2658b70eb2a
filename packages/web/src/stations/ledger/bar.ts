import { formatShare } from '@zabrik/core';
import type { OnTheBar } from '../../app/onTheBar.ts';

export const ledger: OnTheBar = {
  to: '/ledger',
  name: 'Ledger',
  figure: ({ lastMainShare }) =>
    lastMainShare === null ? 'no yield yet' : `last yield ${formatShare(lastMainShare, 0)}`,
};
