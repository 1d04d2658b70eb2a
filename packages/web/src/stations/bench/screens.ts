import type { ScreenAt } from '../../app/screenAt.ts';

export const bench: readonly ScreenAt[] = [
  { path: '/bench', title: 'Bench', script: () => import('./BenchList.tsx') },
  { path: '/bench/:breakdownId', title: 'Bench', script: () => import('./Bench.tsx') },
  { path: '/bench/plans', title: 'Cut plans', script: () => import('./plans/Plans.tsx') },
  { path: '/bench/plans/:planId', title: 'Cut plans', script: () => import('./plans/Plan.tsx') },
  { path: '/bench/cut', title: 'Cut to weight', script: () => import('./cutting/CutList.tsx') },
  { path: '/bench/cut/:cuttingId', title: 'Cut to weight', script: () => import('./cutting/Cutting.tsx') },
];
