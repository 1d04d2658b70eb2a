import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import { QueryClient } from '@tanstack/react-query';
import { PersistQueryClientProvider } from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import { lazy, Suspense } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Loading } from '../parts/Notice.tsx';
import { SignIn } from '../stations/access/SignIn.tsx';
import { Refused } from './api.ts';
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

const Receive = lazy(() => import('../stations/receive/Receive.tsx'));
const BenchList = lazy(() => import('../stations/bench/BenchList.tsx'));
const Bench = lazy(() => import('../stations/bench/Bench.tsx'));
const Larder = lazy(() => import('../stations/larder/Larder.tsx'));
const Pots = lazy(() => import('../stations/pots/Pots.tsx'));
const Ledger = lazy(() => import('../stations/ledger/Ledger.tsx'));
const YieldSheet = lazy(() => import('../stations/ledger/YieldSheet.tsx'));

const page = (Screen: ReturnType<typeof lazy>) => (
  <Suspense fallback={<Loading />}>
    <Screen />
  </Suspense>
);

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignIn /> },
  {
    element: <Shell />,
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      { path: '/receive', element: page(Receive) },
      { path: '/bench', element: page(BenchList) },
      { path: '/bench/:breakdownId', element: page(Bench) },
      { path: '/larder', element: page(Larder) },
      { path: '/larder/:lotId', element: page(Larder) },
      { path: '/pots', element: page(Pots) },
      { path: '/ledger', element: page(Ledger) },
      { path: '/ledger/:breakdownId', element: page(YieldSheet) },
      { path: '*', element: <Navigate to="/bench" replace /> },
    ],
  },
]);

export const App = () => (
  <PersistQueryClientProvider client={client} persistOptions={{ persister, maxAge: 24 * 3_600_000, buster: '1' }}>
    <RouterProvider router={router} />
  </PersistQueryClientProvider>
);
