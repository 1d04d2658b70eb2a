import { api } from '@zabrik/contract';
import { mountRead } from '../../http/mount.ts';
import type { Station } from '../station.ts';
import { search } from './search.ts';

export const find: Station = {
  mount: (services, router) => {
    mountRead(services, router, api.find.search, (actor, { query }) => search(services.db, actor, query.q));
  },
};
