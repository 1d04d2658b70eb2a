import type { ScreenAt } from '../../app/screenAt.ts';

// one screen at both: it stays as it is while a lot is opened beside it
const script = (): Promise<typeof import('./Larder.tsx')> => import('./Larder.tsx');

export const larder: readonly ScreenAt[] = [
  { path: '/larder', title: 'Larder', script },
  { path: '/larder/:lotId', title: 'Larder', script },
  { path: '/larder/:lotId/trace', title: 'Larder', script: () => import('./Trace.tsx') },
  { path: '/larder/tubs', title: 'Tubs', script: () => import('./Tubs.tsx') },
  { path: '/larder/count', title: 'Stock-take', script: () => import('./StockTake.tsx') },
  { path: '/larder/labels', title: 'Labels', script: () => import('./Labels.tsx') },
];
