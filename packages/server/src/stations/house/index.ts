import type { Station } from '../station.ts';
import { houseRoutes } from './routes.ts';

export const house: Station = { mount: houseRoutes };
