import type { ScreenAt } from '../../app/screenAt.ts';

export const access: readonly ScreenAt[] = [
  { path: '/sign-in', title: 'Sign in', bare: true, script: () => import('./SignIn.tsx') },
  { path: '/waiting', title: 'Kept on this tablet', script: () => import('./Waiting.tsx') },
];
