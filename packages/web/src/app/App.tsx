import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import { type Query, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { persistQueryClientRestore, persistQueryClientSubscribe } from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { PlainHttp } from '../parts/PlainHttp.tsx';
import { SignIn } from '../stations/access/SignIn.tsx';
import { Refused } from './api.ts';
import { breakdownQuery, houseQuery, meQuery } from './queries.ts';
import { Shell } from './Shell.tsx';
import { screen } from './screen.tsx';

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
  storage: {
    getItem: (key) => get<string>(key, store).then((value) => value ?? null),
    setItem: (key, value) => set(key, value, store),
    removeItem: (key) => del(key, store),
  },
  throttleTime: 1_000,
});

const receive = screen(() => import('../stations/receive/Receive.tsx'));
const benchList = screen(() => import('../stations/bench/BenchList.tsx'));
const bench = screen(() => import('../stations/bench/Bench.tsx'));
const plans = screen(() => import('../stations/bench/plans/Plans.tsx'));
const plan = screen(() => import('../stations/bench/plans/Plan.tsx'));
const larder = screen(() => import('../stations/larder/Larder.tsx'));
const pots = screen(() => import('../stations/pots/Pots.tsx'));
const ledger = screen(() => import('../stations/ledger/Ledger.tsx'));
const yieldSheet = screen(() => import('../stations/ledger/YieldSheet.tsx'));

/** Fetches at once, side by side, the script and the reads that the address needs, so that the first drawing is the screen itself. */
export function ready(path: string): Promise<unknown> {
  const [, station = '', id] = path.split('/');
  if (station === 'sign-in') return Promise.resolve();
  const reads: Promise<unknown>[] = [client.prefetchQuery(meQuery), client.prefetchQuery(houseQuery)];
  if (station === 'bench' && id === 'plans') reads.push(path.split('/')[3] === undefined ? plans.load() : plan.load());
  else if (station === 'bench' && id !== undefined) reads.push(bench.load(), client.prefetchQuery(breakdownQuery(id)));
  else if (station === 'receive') reads.push(receive.load());
  else if (station === 'larder') reads.push(larder.load());
  else if (station === 'pots') reads.push(pots.load());
  else if (station === 'ledger') reads.push(id === undefined ? ledger.load() : yieldSheet.load());
  else reads.push(benchList.load());
  return Promise.allSettled(reads);
}

// not awaited: what was on the screen last time fills in where the server has not answered yet
const kept = {
  queryClient: client,
  persister,
  maxAge: 24 * 3_600_000,
  buster: '2',
  // a read that failed for want of network still has what it had: it must not be dropped from what is kept
  dehydrateOptions: { shouldDehydrateQuery: (query: Query) => query.state.data !== undefined },
};
void persistQueryClientRestore(kept).finally(() => persistQueryClientSubscribe(kept));

export const App = () => (
  <QueryClientProvider client={client}>
    <PlainHttp />
    <BrowserRouter>
      <Routes>
        <Route path="/sign-in" element={<SignIn />} />
        <Route element={<Shell />}>
          <Route path="/receive" element={<receive.Screen />} />
          <Route path="/bench" element={<benchList.Screen />} />
          <Route path="/bench/plans" element={<plans.Screen />} />
          <Route path="/bench/plans/:planId" element={<plan.Screen />} />
          <Route path="/bench/:breakdownId" element={<bench.Screen />} />
          <Route path="/larder" element={<larder.Screen />} />
          <Route path="/larder/:lotId" element={<larder.Screen />} />
          <Route path="/pots" element={<pots.Screen />} />
          <Route path="/ledger" element={<ledger.Screen />} />
          <Route path="/ledger/:breakdownId" element={<yieldSheet.Screen />} />
          <Route path="*" element={<Navigate to="/bench" replace />} />
        </Route>
      </Routes>
    </BrowserRouter>
  </QueryClientProvider>
);
