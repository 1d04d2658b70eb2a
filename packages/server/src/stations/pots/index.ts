import type { Station } from '../station.ts';
import { potsPutBack } from './putBack.ts';
import { potsRoutes } from './routes.ts';

export const pots: Station = { mount: potsRoutes, putsBack: potsPutBack };
