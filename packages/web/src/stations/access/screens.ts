import type { ScreenAt } from '../../app/screenAt.ts';

export const access: readonly ScreenAt[] = [
  { path: '/waiting', title: 'Kept on this tablet', script: () => import('./Waiting.tsx') },
];
