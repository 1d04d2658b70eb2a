import type { Species } from '@zabrik/core';
import { json, key, table, text, uuid, when } from '../table.ts';

/** An animal of the house’s own. */
export const HouseSpeciesTable = table(
  'house_species',
  {
    houseId: key(uuid),
    id: key(text()),
    species: json<Species>(),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'id' } },
);
