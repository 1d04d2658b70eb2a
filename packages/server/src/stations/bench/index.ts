import type { Station } from '../station.ts';
import { cuttingRoutes } from './cutting/routes.ts';
import { benchPutsBack } from './putBack.ts';
import { benchRoutes } from './routes.ts';

export const bench: Station = {
  mount: (kitchen, router) => {
    benchRoutes(kitchen, router);
    cuttingRoutes(kitchen, router);
  },
  putsBack: benchPutsBack,
};
