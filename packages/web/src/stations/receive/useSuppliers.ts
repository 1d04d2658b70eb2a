import { useQuery } from '@tanstack/react-query';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';

/** Who delivers to this house; rarely changes. */
export const suppliersQuery = {
  queryKey: ['suppliers'],
  queryFn: () => call(api.receive.suppliers, {}),
  staleTime: 600_000,
} as const;
export const useSuppliers = () => useQuery(suppliersQuery);
