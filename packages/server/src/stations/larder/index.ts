import type { Station } from '../station.ts';
import { larderReversals } from './reversals.ts';
import { larderRoutes } from './routes.ts';

export const larder: Station = { mount: larderRoutes, reversals: larderReversals };
