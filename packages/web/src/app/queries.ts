/** Reads that several stations share. A station's own stand beside its screens. */
import { type QueryClient, useQuery } from '@tanstack/react-query';
import type { Answer, EndpointId, House, Me } from '@zabrik/contract';
import { mayDo } from '@zabrik/contract/roles';
import { formatMoney } from '@zabrik/core';
import { call, Refused } from './api.ts';
import { api } from './endpoints.ts';
import { wasAtWork } from './lock.ts';
import { signedOutHere } from './signOut.ts';

const HOUR = 3_600_000;

export const meQuery = {
  queryKey: ['me'],
  queryFn: async ({ client }: { readonly client: QueryClient }): Promise<Me | null> => {
    if (await signedOutHere()) return null;
    try {
      return await call(api.access.me, {});
    } catch (error) {
      if (!(error instanceof Refused && error.status === 401)) throw error;
      // on a page someone was at work on, they are asked over it
      const before = client.getQueryData<Me | null>(['me']);
      return before != null && wasAtWork() ? before : null;
    }
  },
  staleTime: HOUR,
} as const;

export const useMe = () => useQuery(meQuery);

export function useMay(id: EndpointId): boolean {
  const { data } = useMe();
  return data != null && mayDo(data.person.role, id);
}

export const houseQuery = { queryKey: ['house'], queryFn: () => call(api.house.read, {}), staleTime: HOUR } as const;

export const useHouse = () => useQuery(houseQuery);

export const breakdownQuery = (breakdownId: string) =>
  ({
    queryKey: ['breakdowns', 'one', breakdownId],
    queryFn: () => call(api.bench.read, { params: { breakdownId } }),
  }) as const;

export const lotQuery = (lotId: string) =>
  ({
    queryKey: ['lots', 'one', lotId],
    queryFn: () => call(api.larder.read, { params: { lotId } }),
  }) as const;

export type Catalogue = Answer<typeof api.house.catalogue>;
export const catalogueQuery = {
  queryKey: ['catalogue'],
  queryFn: () => call(api.house.catalogue, {}),
  staleTime: Number.POSITIVE_INFINITY,
} as const;
export const useCatalogue = () => useQuery(catalogueQuery);

export const useFlow = () => useQuery({ queryKey: ['flow'], queryFn: () => call(api.house.flow, {}) });

/** Money in the house's currency; where the house keeps costs from this person, that. */
export const moneyOf =
  (house: House | undefined) =>
  (minor: number): string =>
    house === undefined ? '' : house.costs === 'hidden' ? 'not shown' : formatMoney(minor, house.currency);

/** What ingredients cost today, and from which supplier's list that is read. */
export const pantryQuery = { queryKey: ['house', 'pantry'], queryFn: () => call(api.house.pantry, {}) } as const;
export const usePantry = () => useQuery(pantryQuery);
