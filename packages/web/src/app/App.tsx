import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import { type Query, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { persistQueryClientRestore, persistQueryClientSubscribe } from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import { ErrorBoundary } from 'react-error-boundary';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { PlainHttp } from '../parts/PlainHttp.tsx';
import { SignIn } from '../stations/access/SignIn.tsx';
import { Refused } from './api.ts';
import { Broken } from './Broken.tsx';
import { dropOldDrafts } from './draft.ts';
import { breakdownQuery, houseQuery, meQuery } from './queries.ts';
import { Shell } from './Shell.tsx';
import { screen } from './screen.tsx';
import { needsOf, scripts } from './scripts.ts';
import { serializeReads } from './serializeReads.ts';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      gcTime: 24 * 3_600_000,
      retry: (count, error) => !(error instanceof Refused) && count < 2,
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

const receive = screen(scripts.receive);
const benchList = screen(scripts.benchList);
const bench = screen(scripts.bench);
const cutList = screen(scripts.cutList);
const cutting = screen(scripts.cutting);
const plans = screen(scripts.plans);
const plan = screen(scripts.plan);
const larder = screen(scripts.larder);
const trace = screen(scripts.trace);
const tubs = screen(scripts.tubs);
const stockTake = screen(scripts.stockTake);
const labels = screen(scripts.labels);
const delivery = screen(scripts.delivery);
const prices = screen(scripts.prices);
const limits = screen(scripts.limits);
const pots = screen(scripts.pots);
const usePage = screen(scripts.usePage);
const stove = screen(scripts.stove);
const run = screen(scripts.run);
const cooling = screen(scripts.cooling);
const reckon = screen(scripts.reckon);
const ledger = screen(scripts.ledger);
const yieldSheet = screen(scripts.yieldSheet);
const waiting = screen(scripts.waiting);
const keeping = screen(scripts.keeping);
const screens = {
  receive,
  delivery,
  prices,
  benchList,
  bench,
  cutList,
  cutting,
  plans,
  plan,
  larder,
  tubs,
  stockTake,
  labels,
  trace,
  pots,
  usePage,
  stove,
  run,
  cooling,
  reckon,
  ledger,
  yieldSheet,
  waiting,
  keeping,
  limits,
};

/** Done when the script and the reads that the address needs are here, so that the first drawing is the screen itself. */
export function ready(path: string): Promise<unknown> {
  dropOldDrafts();
  const needs = needsOf(path);
  if (needs === undefined) return Promise.resolve();
  const reads: Promise<unknown>[] = [
    client.prefetchQuery(meQuery),
    client.prefetchQuery(houseQuery),
    screens[needs.script].load(),
  ];
  if (needs.breakdownId !== undefined) reads.push(client.prefetchQuery(breakdownQuery(needs.breakdownId)));
  return Promise.allSettled(reads);
}

// not awaited: what was on the screen last time fills in where the server has not answered yet
const kept = {
  queryClient: client,
  persister,
  maxAge: 24 * 3_600_000,
  buster: '5',
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

export const App = () => (
  <QueryClientProvider client={client}>
    <PlainHttp />
    <ErrorBoundary FallbackComponent={Broken}>
      <BrowserRouter>
        <Routes>
          <Route path="/sign-in" element={<SignIn />} />
          <Route element={<Shell />}>
            <Route path="/receive" element={<receive.Screen />} />
            <Route path="/bench" element={<benchList.Screen />} />
            <Route path="/bench/plans" element={<plans.Screen />} />
            <Route path="/bench/plans/:planId" element={<plan.Screen />} />
            <Route path="/bench/cut" element={<cutList.Screen />} />
            <Route path="/bench/cut/:cuttingId" element={<cutting.Screen />} />
            <Route path="/bench/:breakdownId" element={<bench.Screen />} />
            <Route path="/receive/prices" element={<prices.Screen />} />
            <Route path="/receive/:deliveryId" element={<delivery.Screen />} />
            <Route path="/limits" element={<limits.Screen />} />
            <Route path="/waiting" element={<waiting.Screen />} />
            <Route path="/server" element={<keeping.Screen />} />
            <Route path="/larder/tubs" element={<tubs.Screen />} />
            <Route path="/larder/count" element={<stockTake.Screen />} />
            <Route path="/larder/labels" element={<labels.Screen />} />
            <Route path="/larder" element={<larder.Screen />} />
            <Route path="/larder/:lotId" element={<larder.Screen />} />
            <Route path="/larder/:lotId/trace" element={<trace.Screen />} />
            <Route path="/pots" element={<pots.Screen />} />
            <Route path="/pots/uses/:useId" element={<usePage.Screen />} />
            <Route path="/pots/stove" element={<stove.Screen />} />
            <Route path="/pots/stove/:runId" element={<run.Screen />} />
            <Route path="/pots/cooling" element={<cooling.Screen />} />
            <Route path="/pots/reckon" element={<reckon.Screen />} />
            <Route path="/ledger" element={<ledger.Screen />} />
            <Route path="/ledger/:breakdownId" element={<yieldSheet.Screen />} />
            <Route path="*" element={<Navigate to="/bench" replace />} />
          </Route>
        </Routes>
      </BrowserRouter>
    </ErrorBoundary>
  </QueryClientProvider>
);
