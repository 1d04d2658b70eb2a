import type { ScreenAt } from '../../app/screenAt.ts';

export const access: readonly ScreenAt[] = [
  { path: '/set-up', title: 'Set up this kitchen', bare: true, script: () => import('./SetUp.tsx') },
  { path: '/sign-in', title: 'Sign in', bare: true, script: () => import('./SignIn.tsx') },
  { path: '/waiting', title: 'Kept on this tablet', script: () => import('./Waiting.tsx') },
];
