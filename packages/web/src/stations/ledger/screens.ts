import type { ScreenAt } from '../../app/screenAt.ts';

export const ledger: readonly ScreenAt[] = [
  { path: '/ledger', title: 'Ledger', script: () => import('./Ledger.tsx') },
  { path: '/ledger/:breakdownId', title: 'Ledger', script: () => import('./YieldSheet.tsx') },
];
