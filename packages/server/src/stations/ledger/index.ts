import type { Station } from '../station.ts';
import { ledgerRoutes } from './routes.ts';

export const ledger: Station = { mount: ledgerRoutes };
