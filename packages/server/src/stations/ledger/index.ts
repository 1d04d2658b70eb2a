import { readHouse } from '../../db/house.ts';
import { writeHouseFile } from '../../house/houseFile.ts';
import type { Station } from '../station.ts';
import { movementsCsv, movementsEpcis } from './exports.ts';
import { ledgerRoutes } from './routes.ts';

export const ledger: Station = {
  mount: ledgerRoutes,
  makes: {
    'movements-csv': (kitchen, { houseId, asked, tell }) => movementsCsv(kitchen, houseId, asked, tell),
    'movements-epcis': (kitchen, { houseId, asked, tell }) => movementsEpcis(kitchen, houseId, asked, tell),
    'house-file': async (kitchen, { houseId, tell }) => ({
      type: 'application/json',
      name: `${(await readHouse(kitchen.db, { houseId })).slug}.house.json`,
      body: writeHouseFile(kitchen.longReads, houseId, kitchen.clock(), tell),
    }),
  },
};
