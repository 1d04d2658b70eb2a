import type { ScreenAt } from '../../app/screenAt.ts';

export const pots: readonly ScreenAt[] = [
  { path: '/pots', title: 'Pots', script: () => import('./Pots.tsx') },
  { path: '/pots/recipes/:recipeId', title: 'Pots', script: () => import('./recipe/RecipePage.tsx') },
  { path: '/pots/stove', title: 'At the stove', script: () => import('./Stove.tsx') },
  { path: '/pots/stove/:batchId', title: 'At the stove', script: () => import('./AtTheStove.tsx') },
  { path: '/pots/cooling', title: 'Cooling', script: () => import('./CoolingPage.tsx') },
  { path: '/pots/plates', title: 'Plates', script: () => import('./plates/Plates.tsx') },
  { path: '/pots/calculator', title: 'Sums of the stove', script: () => import('./calculator/Calculator.tsx') },
];
