import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { open } from '../../testing/open.tsx';
import { DoorBells } from './DoorBells.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const bell = (id: string, dueInMs: number) => ({
  id: `019a0000-0000-7000-8000-00000000000${id}`,
  label: 'simmer',
  title: `Fumet ${id}`,
  dueAt: new Date(Date.now() + dueInMs).toISOString(),
});

it('what is over rings where nobody is signed in; what is not yet is silent; quiet here is quiet here alone', async () => {
  const rung = vi.fn();
  vi.stubGlobal(
    'AudioContext',
    class {
      state = 'suspended';
      constructor() {
        rung();
      }
      close = () => Promise.resolve();
    },
  );
  vi.stubGlobal('fetch', () =>
    Promise.resolve(Response.json({ at: new Date().toISOString(), bells: [bell('1', -65_000), bell('2', 3_600_000)] })),
  );
  open(<DoorBells slug="netloft" />);
  const ringing = await screen.findByTestId('ringing');
  expect(ringing.textContent).toContain('simmer is over · Fumet 1');
  expect(ringing.textContent).toMatch(/−1:0[5-9]/);
  expect(ringing.textContent).not.toContain('Fumet 2');
  await waitFor(() => expect(rung).toHaveBeenCalledOnce());
  fireEvent.click(screen.getByRole('button', { name: 'Quiet here' }));
  // it stands there still: it is not stopped
  expect(await screen.findByText('stopped by whoever signs in')).toBeTruthy();
  await new Promise((done) => setTimeout(done, 3_200));
  expect(rung).toHaveBeenCalledOnce();
});
