import type { Station } from '../station.ts';
import { cuttingRoutes } from './cutting/routes.ts';
import { benchReversals } from './reversals.ts';
import { benchRoutes } from './routes.ts';

export const bench: Station = {
  mount: (services, router) => {
    benchRoutes(services, router);
    cuttingRoutes(services, router);
  },
  reversals: benchReversals,
};
