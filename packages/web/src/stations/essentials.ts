/**
 * What is read while there is a network and nobody waits for anything, so that an hour without one can be worked on a tablet that has not been at
 * every station: what can be received and from whom, what can be made and of what.
 */
import type { QueryClient } from '@tanstack/react-query';
import { catalogueQuery } from '../app/queries.ts';
import { limitsQuery, lotsForPotsQuery } from './pots/potQueries.ts';
import { batchesQuery, recipesQuery } from './pots/reads.ts';
import { suppliersQuery } from './receive/useSuppliers.ts';

const HOUR = 3_600_000;

/** Reads what is not here, or older than an hour, one after the other. What cannot be read is left: it is read when it is looked at. */
export async function readEssentials(client: QueryClient): Promise<void> {
  for (const query of [catalogueQuery, suppliersQuery, recipesQuery, batchesQuery, limitsQuery, lotsForPotsQuery])
    await client.prefetchQuery<unknown, Error, unknown, readonly string[]>({ ...query, staleTime: HOUR, retry: false });
}
