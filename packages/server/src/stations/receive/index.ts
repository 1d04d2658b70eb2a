import type { Station } from '../station.ts';
import { receiveRoutes } from './routes.ts';

export const receive: Station = { mount: receiveRoutes };
