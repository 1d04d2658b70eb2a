import { useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import type { PotLot } from './offers.ts';
import { batchesQuery, coolingsQuery, recipesQuery } from './reads.ts';

export const useRecipes = () => useQuery(recipesQuery);

export const useBatches = () => useQuery(batchesQuery);

/** Boned-out pieces that wait to be filled. */
export const useBoned = () => useQuery({ queryKey: ['lots', 'boned'], queryFn: () => call(api.pots.boned, {}) });

export const useCoolings = () => useQuery(coolingsQuery);

/** More lots of a kind than this no cook looks through, and no pot takes: the earliest dates come first. */
const MOST = 1_000;

async function onHand(kind: Lot['kind']): Promise<{ readonly lots: readonly Lot[]; readonly all: boolean }> {
  const lots: Lot[] = [];
  let cursor: string | undefined;
  do {
    const page = await call(api.larder.list, { query: { kind, limit: 200, cursor } });
    lots.push(...page.lots);
    cursor = page.next ?? undefined;
  } while (cursor !== undefined && lots.length < MOST);
  return { lots, all: cursor === undefined };
}

/** Pieces, batches, tubs and what was bought ready for a pot, nobody holding it back. `all`: whether that is every one there is. */
export const lotsForPotsQuery = {
  queryKey: ['lots', 'pots'],
  queryFn: async () => {
    const [{ tubs }, ...found] = await Promise.all([
      call(api.larder.tubs, {}),
      onHand('piece'),
      onHand('batch'),
      onHand('delivery'),
      onHand('goods'),
    ]);
    const lots: readonly PotLot[] = [...tubs, ...found.flatMap((f) => f.lots)];
    return {
      lots: lots.filter(
        (lot) => lot.held === null && lot.freeMg > 0 && (lot.kind !== 'delivery' || lot.potKind !== ''),
      ),
      all: found.every((f) => f.all),
    };
  },
} as const;
export const useLotsForPots = () => useQuery(lotsForPotsQuery);

/** Asked again by every screen that judges by them: what was kept on the tablet may be another profile's. */
export const limitsQuery = {
  queryKey: ['house', 'limits'],
  queryFn: () => call(api.house.limits, { query: {} }),
  staleTime: 0,
} as const;
export const useHouseLimits = () => useQuery(limitsQuery);
