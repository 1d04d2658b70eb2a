import type { Station } from '../station.ts';
import { jobRoutes } from './routes.ts';

export const jobs: Station = { mount: jobRoutes };
