import type { Station } from '../station.ts';
import { potsReversals } from './reversals.ts';
import { potsRoutes } from './routes.ts';

export const pots: Station = { mount: potsRoutes, reversals: potsReversals };
