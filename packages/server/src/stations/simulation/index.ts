import type { Station } from '../station.ts';
import { simulationRoutes } from './routes.ts';

export const simulation: Station = { mount: simulationRoutes };
