import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Refused } from '../app/api.ts';
import { Broken, onceAnew } from './Broken.tsx';
import { OldReads } from './OldReads.tsx';

afterEach(() => {
  cleanup();
  sessionStorage.clear();
  vi.restoreAllMocks();
});

describe('what stands on a screen', () => {
  it('is said to be old when it cannot be read again, and no longer once it was', async () => {
    let gives: () => Promise<string> = async () => 'four lots';
    const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    const List = () => <p>{useQuery({ queryKey: ['lots', 'list'], queryFn: () => gives() }).data}</p>;
    render(
      <QueryClientProvider client={client}>
        <OldReads />
        <List />
      </QueryClientProvider>,
    );
    await screen.findByText('four lots');
    expect(screen.queryByTestId('old-reads')).toBeNull();
    gives = async () => {
      throw new Refused({ code: 'invalid', title: 'Something in this form cannot be read.', status: 400 });
    };
    await act(() => client.refetchQueries());
    expect((await screen.findByTestId('old-reads')).textContent).toMatch(/could not be read again: Something in this/);
    expect(screen.getByText('four lots')).toBeTruthy();
    gives = async () => 'five lots';
    fireEvent.click(screen.getByRole('button', { name: 'Read it again' }));
    await screen.findByText('five lots');
    await waitFor(() => expect(screen.queryByTestId('old-reads')).toBeNull());
  });
});

describe('a screen that breaks', () => {
  it('says what is kept, opens again, and leaves the bar above as it is', async () => {
    vi.spyOn(console, 'error').mockImplementation(() => undefined);
    let broken = true;
    const Screen = () => {
      if (broken) throw new Error('cannot read properties of undefined');
      return <p>the board</p>;
    };
    const Bar = () => (
      <>
        <p>the bar</p>
        <Outlet />
      </>
    );
    const router = createMemoryRouter([
      {
        Component: Bar,
        children: [{ ErrorBoundary: Broken, children: [{ path: '*', Component: Screen }] }],
      },
    ]);
    render(<RouterProvider router={router} />);
    expect((await screen.findByRole('alert')).textContent).toMatch(/Everything that was saved is saved/);
    expect(screen.getByText('the bar')).toBeTruthy();
    broken = false;
    fireEvent.click(screen.getByRole('button', { name: 'Open it again' }));
    expect(await screen.findByText('the board')).toBeTruthy();
  });

  it('loads the page anew once for a script that is gone, and not for anything else', () => {
    const reload = vi.fn();
    const missing = new TypeError('Failed to fetch dynamically imported module: /assets/Larder-1.js');
    onceAnew(new Error('cannot read properties'), reload);
    expect(reload).not.toHaveBeenCalled();
    onceAnew(missing, reload);
    onceAnew(missing, reload);
    expect(reload).toHaveBeenCalledTimes(1);
  });
});
