import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import { type Query, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { persistQueryClientRestore, persistQueryClientSubscribe } from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import { createBrowserRouter, Navigate, type RouteObject, RouterProvider, ScrollRestoration } from 'react-router';

import { worthAskingAgain } from '../app/api.ts';
import { dropOldDrafts } from '../app/draft.ts';
import { waitingNow } from '../app/outbox.ts';
import { houseQuery, meQuery } from '../app/queries.ts';
import { type ScreenAt, screenFor } from '../app/screenAt.ts';
import { serializeReads } from '../app/serializeReads.ts';
import { PlainHttp } from '../parts/PlainHttp.tsx';
import { reads } from '../stations/reads.ts';
import { FIRST, screens } from '../stations/screens.ts';
import { Broken } from './Broken.tsx';
import { beginOf } from './begin.ts';
import { Shell } from './Shell.tsx';
import { screen } from './screen.tsx';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      gcTime: 24 * 3_600_000,
      retry: (count, error) => worthAskingAgain(error) && count < 2,
      // a tablet without network still tries: its own server is what counts, not the internet
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

// reads only: what was on the screen is there again when the app opens without network. Writes go through the outbox
const store = createStore('zabrik-reads', 'reads');
const persister = createAsyncStoragePersister({
  serialize: serializeReads(),
  storage: {
    getItem: (key) => get<string>(key, store).then((value) => value ?? null),
    setItem: (key, value) => set(key, value, store),
    removeItem: (key) => del(key, store),
  },
  throttleTime: 1_000,
});

/** Each script is one screen, wherever it stands. */
const drawn = new Map(screens.map(({ script }) => script).map((script) => [script, screen(script)]));

/** Done when the script and the reads that the address needs are here, so that the first drawing is the screen itself. */
export function ready(path: string): Promise<unknown> {
  dropOldDrafts();
  opened = true;
  const found = screenFor(screens, path) ?? screenFor(screens, FIRST);
  const waits: Promise<unknown>[] =
    found?.screen.bare === true ? [] : [client.prefetchQuery(meQuery), client.prefetchQuery(houseQuery)];
  if (found !== undefined) {
    waits.push(drawn.get(found.screen.script)?.load() ?? Promise.resolve());
    for (const read of reads[found.screen.path]?.(found.params) ?? []) waits.push(client.prefetchQuery(read));
  }
  return Promise.allSettled(waits);
}

// not awaited: what was on the screen last time fills in where the server has not answered yet
const kept = {
  queryClient: client,
  persister,
  maxAge: 24 * 3_600_000,
  // counted up whenever an answer has another shape: what a version before has kept would not be understood
  buster: '9',
  // a read that failed for want of network still has what it had: it must not be dropped from what is kept
  // the larder's pages are kept while there is one: to write twenty thousand lots every second would be felt on every touch
  dehydrateOptions: {
    shouldDehydrateQuery: ({ queryKey, state: { data } }: Query) =>
      data !== undefined &&
      !(queryKey[0] === 'lots' && ['trace', 'count'].includes(String(queryKey[1]))) &&
      !(queryKey[1] === 'list' && ((data as { pages?: readonly unknown[] }).pages?.length ?? 1) > 1),
  },
};
void persistQueryClientRestore(kept).finally(() => persistQueryClientSubscribe(kept));

/** Whether something of this page is on its way that the tablet has not written down. */
export const isSending = (): boolean => client.isMutating() > 0 || waitingNow().some((w) => w.onDisk === false);

/** Whether the first screen was asked for. */
let opened = false;
const Nothing = () => null;
const begin = beginOf(client, reads);
/** A screen at its address, with its script and what it opens with begun side by side. */
const routeOf = (at: ScreenAt): RouteObject => ({
  path: at.path,
  Component: drawn.get(at.script)?.Screen ?? Nothing,
  // the first screen is asked for by `ready`
  loader: ({ params }) => {
    if (opened) begin(at.path, params, drawn.get(at.script)?.load);
    return null;
  },
});

/** To look at while building; no house has it. */
const kit: RouteObject[] = import.meta.env.DEV
  ? [{ path: '/kit', Component: screen(() => import('../kit/KitPage.tsx')).Screen }]
  : [];

const router = createBrowserRouter([
  {
    ErrorBoundary: Broken,
    children: [
      ...kit,
      ...screens.filter(({ bare }) => bare === true).map(routeOf),
      {
        element: (
          <>
            <Shell />
            {/* an address that was typed has no place of its own to go back to but its own */}
            <ScrollRestoration getKey={({ key, pathname }) => (key === 'default' ? pathname : key)} />
          </>
        ),
        children: [
          { ErrorBoundary: Broken, children: screens.filter(({ bare }) => bare !== true).map(routeOf) },
          { path: '*', element: <Navigate to={FIRST} replace /> },
        ],
      },
    ],
  },
]);

export const App = () => (
  <QueryClientProvider client={client}>
    <PlainHttp />
    <RouterProvider router={router} />
  </QueryClientProvider>
);
