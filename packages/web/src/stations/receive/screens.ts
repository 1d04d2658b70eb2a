import type { ScreenAt } from '../../app/screenAt.ts';

export const receive: readonly ScreenAt[] = [
  { path: '/receive', title: 'Receive', script: () => import('./Receive.tsx') },
  { path: '/receive/prices', title: 'Prices', script: () => import('./Prices.tsx') },
  { path: '/receive/suppliers', title: 'Suppliers', script: () => import('./Suppliers.tsx') },
  { path: '/receive/suppliers/:supplierId', title: 'Suppliers', script: () => import('./SupplierPage.tsx') },
  { path: '/receive/:deliveryId', title: 'Receive', script: () => import('./DeliveryPage.tsx') },
];
