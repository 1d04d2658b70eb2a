import type { Station } from '../station.ts';
import { accessRoutes } from './routes.ts';

export const access: Station = { mount: accessRoutes };
