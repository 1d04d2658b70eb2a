/** The reads that a screen of this station opens with: asked for by its loader, beside its script. */
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import type { ReadsAt } from '../../app/screenAt.ts';

export const deliveriesQuery = {
  queryKey: ['deliveries'],
  queryFn: () => call(api.receive.list, { query: { limit: 12 } }),
} as const;
export const ordersQuery = { queryKey: ['deliveries', 'orders'], queryFn: () => call(api.receive.orders, {}) } as const;
export const deliveryQuery = (deliveryId: string) =>
  ({
    queryKey: ['deliveries', 'one', deliveryId],
    queryFn: () => call(api.receive.read, { params: { deliveryId } }),
  }) as const;
export const priceListsQuery = {
  queryKey: ['prices', 'lists'],
  queryFn: () => call(api.receive.priceLists, {}),
} as const;

export const receiveReads: ReadsAt = {
  '/receive': () => [deliveriesQuery, ordersQuery],
  '/receive/prices': () => [priceListsQuery],
  '/receive/:deliveryId': ({ deliveryId = '' }) => [deliveryQuery(deliveryId)],
};
