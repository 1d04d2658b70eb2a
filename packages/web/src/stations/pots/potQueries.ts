import { useQuery } from '@tanstack/react-query';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';

/** What can be made. Changes with the catalogue, and its batches with every run. */
export const useUses = () => useQuery({ queryKey: ['runs', 'uses'], queryFn: () => call(api.pots.uses, {}) });

export const useRuns = () =>
  useQuery({ queryKey: ['runs', 'list'], queryFn: () => call(api.pots.list, { query: { limit: 60 } }) });

/** Boned-out pieces that wait to be filled. */
export const useBoned = () => useQuery({ queryKey: ['lots', 'boned'], queryFn: () => call(api.pots.boned, {}) });

export const useCoolings = () =>
  useQuery({ queryKey: ['coolings', 'list'], queryFn: () => call(api.pots.coolings, {}) });

/** Pieces, batches and tubs that nobody holds back: what a pot could take. */
export const useLotsForPots = () =>
  useQuery({
    queryKey: ['lots', 'pots'],
    queryFn: async () => {
      const [tubs, pieces, batches] = await Promise.all([
        call(api.larder.list, { query: { kind: 'tub', limit: 50 } }),
        call(api.larder.list, { query: { kind: 'piece', limit: 200 } }),
        call(api.larder.list, { query: { kind: 'batch', limit: 100 } }),
      ]);
      return { lots: [...tubs.lots, ...pieces.lots, ...batches.lots].filter((lot) => lot.held === null) };
    },
  });

export const useHouseLimits = () =>
  useQuery({ queryKey: ['house', 'limits'], queryFn: () => call(api.house.limits, { query: {} }) });
