/** A screen on its own for a test: signed in, in its house, with what it has read before; nothing is read again by itself. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { type RenderResult, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { house, me } from './kitchen.ts';

export function open(
  screen: ReactNode,
  known: Readonly<Record<string, unknown>> = {},
): RenderResult & { readonly client: QueryClient } {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  for (const [key, value] of Object.entries({ me, house, ...known })) client.setQueryData([key], value);
  const rendered = render(
    <QueryClientProvider client={client}>
      <MemoryRouter>{screen}</MemoryRouter>
    </QueryClientProvider>,
  );
  return { ...rendered, client };
}
