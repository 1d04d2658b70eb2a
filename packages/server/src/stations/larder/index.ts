import type { Station } from '../station.ts';
import { larderPutsBack } from './putBack.ts';
import { larderRoutes } from './routes.ts';

export const larder: Station = { mount: larderRoutes, putsBack: larderPutsBack };
