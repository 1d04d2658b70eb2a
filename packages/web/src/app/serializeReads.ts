import type { PersistedClient } from '@tanstack/react-query-persist-client';

interface Written {
  readonly data: unknown;
  readonly at: number;
  readonly stale: boolean;
  readonly json: string;
}

/**
 * Writes what was read as JSON, each read only when it has changed since it was last written.
 *
 * Everything a tablet has read is a megabyte or two; to write all of it anew every time one list was read again took tens of
 * milliseconds while someone scrolled.
 *
 * Keeps   the same JSON as JSON.stringify of the whole.
 */
export function serializeReads(): (client: PersistedClient) => string {
  let before = new Map<string, Written>();
  return ({ clientState, ...rest }) => {
    const now = new Map<string, Written>();
    for (const query of clientState.queries) {
      const { data, dataUpdatedAt: at, isInvalidated: stale } = query.state;
      const known = before.get(query.queryHash);
      const same = known !== undefined && known.data === data && known.at === at && known.stale === stale;
      now.set(query.queryHash, same ? known : { data, at, stale, json: JSON.stringify(query) });
    }
    before = now;
    const queries = [...now.values()].map((w) => w.json).join(',');
    const mutations = JSON.stringify(clientState.mutations);
    return `${JSON.stringify(rest).slice(0, -1)},"clientState":{"mutations":${mutations},"queries":[${queries}]}}`;
  };
}
