import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';

/** Who delivers to this house; rarely changes. */
export type Supplier = Answer<typeof api.receive.suppliers>['suppliers'][number];

export const suppliersQuery = {
  queryKey: ['suppliers'],
  queryFn: () => call(api.receive.suppliers, {}),
  staleTime: 600_000,
} as const;
export const useSuppliers = () => useQuery(suppliersQuery);
