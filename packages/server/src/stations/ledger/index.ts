import { readHouse } from '../../db/house.ts';
import { writeHouseFile } from '../../house/houseFile.ts';
import { tablesCsv, tablesXlsx } from '../../house/tables.ts';
import { XLSX } from '../../http/file.ts';
import type { Station } from '../station.ts';
import { movementsCsv, movementsEpcis } from './exports.ts';
import { ledgerRoutes } from './routes.ts';

export const ledger: Station = {
  mount: ledgerRoutes,
  makes: {
    'movements-csv': (services, { houseId, asked, tell }) => movementsCsv(services, houseId, asked, tell),
    'movements-epcis': (services, { houseId, asked, tell }) => movementsEpcis(services, houseId, asked, tell),
    'house-file': async (services, { houseId, tell }) => ({
      type: 'application/json',
      name: `${(await readHouse(services.db, { houseId })).slug}.house.json`,
      body: writeHouseFile(services.longReads, houseId, services.clock(), tell),
    }),
    tables: async (services, { houseId, asked: { format }, tell }) => {
      const { slug } = await readHouse(services.db, { houseId });
      return format === 'xlsx'
        ? { type: XLSX, name: `${slug}.tables.xlsx`, body: tablesXlsx(services.longReads, houseId, tell) }
        : { type: 'application/zip', name: `${slug}.tables.zip`, body: tablesCsv(services.longReads, houseId, tell) };
    },
  },
};
