import { QueryClient } from '@tanstack/react-query';
import { waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { reads } from '../stations/reads.ts';
import { screens } from '../stations/screens.ts';
import { beginOf } from './begin.ts';

const signedIn = (): QueryClient => {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: 10_000, retry: false } } });
  client.setQueryData(['me'], { person: { id: 'ines' } });
  return client;
};

it('what a screen opens with is of a screen that there is, and by the ids in its address', () => {
  for (const [path, of] of Object.entries(reads)) {
    const at = screens.find((screen) => screen.path === path);
    expect(at, path).toBeDefined();
    const names = [...path.matchAll(/:(\w+)/g)].map(([, name = '']) => name);
    const keys = of(Object.fromEntries(names.map((name) => [name, `the-${name}`]))).map((r) =>
      JSON.stringify(r.queryKey),
    );
    for (const name of names)
      expect(
        keys.some((key) => key.includes(`the-${name}`)),
        path,
      ).toBe(true);
  }
});

it('script and reads are begun at once and side by side, and what was just read is not asked for again', async () => {
  const client = signedIn();
  const asked = vi.fn((what: string) => Promise.resolve(what));
  const begin = beginOf(client, {
    '/x/:id': ({ id = '' }) => [
      { queryKey: ['x', id], queryFn: () => asked(id) },
      { queryKey: ['y'], queryFn: () => asked('y') },
    ],
  });
  // a script that never comes keeps no read waiting
  begin('/x/:id', { id: 'one' }, () => new Promise(() => undefined));
  expect(asked.mock.calls.flat()).toEqual(['one', 'y']);
  await waitFor(() => expect(client.getQueryData(['x', 'one'])).toBe('one'));
  begin('/x/:id', { id: 'two' }, () => Promise.reject(new Error('no script')));
  expect(asked.mock.calls.flat()).toEqual(['one', 'y', 'two']);
  begin('/elsewhere', {}, undefined);
});

it('for who is not signed in nothing is asked for', () => {
  const asked = vi.fn(() => Promise.resolve(1));
  const load = vi.fn(() => Promise.resolve());
  beginOf(new QueryClient(), { '/x': () => [{ queryKey: ['x'], queryFn: asked }] })('/x', {}, load);
  expect(asked).not.toHaveBeenCalled();
  expect(load).not.toHaveBeenCalled();
});
