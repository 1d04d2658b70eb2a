import type { ScreenAt } from '../../app/screenAt.ts';

export const house: readonly ScreenAt[] = [
  { path: '/limits', title: 'Limits', script: () => import('./Limits.tsx') },
  { path: '/server', title: 'The kitchen’s server', script: () => import('./KeepingPage.tsx') },
];
