import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { persistQueryClientRestore, persistQueryClientSubscribe } from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Loading } from '../parts/Notice.tsx';
import { SignIn } from '../stations/access/SignIn.tsx';
import { Refused } from './api.ts';
import { breakdownQuery, houseQuery, meQuery } from './queries.ts';
import { Shell } from './Shell.tsx';

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

const screens = {
  receive: () => import('../stations/receive/Receive.tsx'),
  benchList: () => import('../stations/bench/BenchList.tsx'),
  bench: () => import('../stations/bench/Bench.tsx'),
  larder: () => import('../stations/larder/Larder.tsx'),
  pots: () => import('../stations/pots/Pots.tsx'),
  ledger: () => import('../stations/ledger/Ledger.tsx'),
  yieldSheet: () => import('../stations/ledger/YieldSheet.tsx'),
};
const Receive = lazy(screens.receive);
const BenchList = lazy(screens.benchList);
const Bench = lazy(screens.bench);
const Larder = lazy(screens.larder);
const Pots = lazy(screens.pots);
const Ledger = lazy(screens.ledger);
const YieldSheet = lazy(screens.yieldSheet);

/** Asks for what the address will need while the rest still starts, instead of one thing after another. */
function warm(path: string): void {
  const [, station, id] = path.split('/');
  if (station === 'sign-in') return;
  void client.prefetchQuery(meQuery);
  void client.prefetchQuery(houseQuery);
  if (station === 'bench' && id !== undefined) {
    void screens.bench();
    void client.prefetchQuery(breakdownQuery(id));
  } else if (station === '' || station === 'bench') void screens.benchList();
  else if (station === 'receive' || station === 'larder' || station === 'pots') void screens[station]();
  else if (station === 'ledger') void (id === undefined ? screens.ledger() : screens.yieldSheet());
}
warm(location.pathname);

const page = (Screen: ReturnType<typeof lazy>) => (
  <Suspense fallback={<Loading />}>
    <Screen />
  </Suspense>
);

// not awaited: what was on the screen last time fills in where the server has not answered yet
const kept = { queryClient: client, persister, maxAge: 24 * 3_600_000, buster: '1' } as const;
void persistQueryClientRestore(kept).finally(() => persistQueryClientSubscribe(kept));

export const App = () => (
  <QueryClientProvider client={client}>
    <BrowserRouter>
      <Routes>
        <Route path="/sign-in" element={<SignIn />} />
        <Route element={<Shell />}>
          <Route path="/receive" element={page(Receive)} />
          <Route path="/bench" element={page(BenchList)} />
          <Route path="/bench/:breakdownId" element={page(Bench)} />
          <Route path="/larder" element={page(Larder)} />
          <Route path="/larder/:lotId" element={page(Larder)} />
          <Route path="/pots" element={page(Pots)} />
          <Route path="/ledger" element={page(Ledger)} />
          <Route path="/ledger/:breakdownId" element={page(YieldSheet)} />
          <Route path="*" element={<Navigate to="/bench" replace />} />
        </Route>
      </Routes>
    </BrowserRouter>
  </QueryClientProvider>
);
