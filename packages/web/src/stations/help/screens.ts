import type { ScreenAt } from '../../app/screenAt.ts';

export const help: readonly ScreenAt[] = [
  { path: '/help/figures', title: 'How figures are made', script: () => import('./Figures.tsx') },
  { path: '/help/about', title: 'About', script: () => import('./About.tsx') },
];
