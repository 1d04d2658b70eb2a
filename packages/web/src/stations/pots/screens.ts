import type { ScreenAt } from '../../app/screenAt.ts';

export const pots: readonly ScreenAt[] = [
  { path: '/pots', title: 'Pots', script: () => import('./Pots.tsx') },
  { path: '/pots/uses/:useId', title: 'Pots', script: () => import('./UsePage.tsx') },
  { path: '/pots/stove', title: 'At the stove', script: () => import('./Stove.tsx') },
  { path: '/pots/stove/:runId', title: 'At the stove', script: () => import('./AtTheStove.tsx') },
  { path: '/pots/cooling', title: 'Cooling', script: () => import('./CoolingPage.tsx') },
  { path: '/pots/reckon', title: 'Sums of the stove', script: () => import('./reckon/Reckon.tsx') },
];
