import type { ScreenAt } from '../../app/screenAt.ts';

export const house: readonly ScreenAt[] = [
  { path: '/house', title: 'House', script: () => import('./Kitchen.tsx') },
  { path: '/house/people', title: 'People', script: () => import('./People.tsx') },
  { path: '/house/things', title: 'Things', script: () => import('./Things.tsx') },
  { path: '/house/devices', title: 'Devices', script: () => import('./Devices.tsx') },
  { path: '/house/programs', title: 'Programs', script: () => import('./Programs.tsx') },
  { path: '/house/worth', title: 'What it is worth', script: () => import('./Worth.tsx') },
  { path: '/house/changes', title: 'What was changed', script: () => import('./Changes.tsx') },
  { path: '/limits', title: 'Limits', script: () => import('./Limits.tsx') },
  { path: '/server', title: 'The kitchen’s server', script: () => import('./KeepingPage.tsx') },
];
