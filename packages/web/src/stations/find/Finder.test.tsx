import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useLocation } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Button } from '../../kit/Button.tsx';
import { lotOf, me } from '../../testing/kitchen.ts';
import { open as openScreen } from '../../testing/open.tsx';
import Finder from './Finder.tsx';

const hake = lotOf(1, { code: '0417-L', name: 'Hake fillet' });
let asked: string[] = [];
let online = true;
const pressed = vi.fn();

const Here = () => <output>{useLocation().pathname}</output>;
const open = (wanted = false) =>
  openScreen(
    <>
      <Finder wanted={wanted} screens={[]} />
      <div id="work">
        <Button hotkey="c">Close stage</Button>
        <Button hotkey="u" disabled>
          Undo
        </Button>
        <Button hotkey="1" aria-label="Portions" />
      </div>
      <input aria-label="A field" />
      <Here />
    </>,
    { me, lots: { lots: [hake] } },
  );
const scan = (text: string): void => {
  for (const key of [...text, 'Enter']) fireEvent.keyDown(document.body, { key });
};

beforeEach(() => {
  asked = [];
  online = true;
  pressed.mockClear();
  addEventListener('keydown', pressed);
  vi.stubGlobal('fetch', (url: string) => {
    if (!online) return Promise.reject(new TypeError('no network'));
    const q = new URL(url, 'http://kitchen.test').searchParams.get('q') ?? '';
    asked.push(q);
    const lot = {
      kind: 'lot',
      id: hake.id,
      name: hake.name,
      code: hake.code,
      massMg: 160_000,
      of: null,
      at: null,
      open: true,
    };
    return Promise.resolve(Response.json({ found: /hake|0417-L/.test(q) ? [lot] : [] }));
  });
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  removeEventListener('keydown', pressed);
  vi.unstubAllGlobals();
});

it('opens by its key and its button, finds by a few letters, and goes there by Enter', async () => {
  open();
  fireEvent.keyDown(document.body, { key: '/' });
  const field = await screen.findByPlaceholderText('A name, or the code on a label');
  fireEvent.change(field, { target: { value: 'hake' } });
  await screen.findByText('Hake fillet');
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(screen.getByText(`/larder/${hake.id}`)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Find' }));
  expect(await screen.findByRole('dialog')).toBeTruthy();
});

it('a slash in a field is a slash', () => {
  open();
  fireEvent.keyDown(screen.getByLabelText('A field'), { key: '/' });
  expect(screen.queryByRole('dialog')).toBeNull();
});

it('a scanned label opens its lot, and no key of it reaches the screen', async () => {
  open();
  scan(']d2910417-L');
  expect(await screen.findByText(`/larder/${hake.id}`)).toBeTruthy();
  expect(asked).toEqual(['0417-L']);
  expect(pressed).not.toHaveBeenCalled();
  // what a hand types afterwards does
  fireEvent.keyDown(document.body, { key: '4' });
  expect(pressed).toHaveBeenCalledOnce();
});

it('a bracket that nothing follows is forgotten', () => {
  vi.useFakeTimers({ toFake: ['Date'] });
  open();
  fireEvent.keyDown(document.body, { key: ']' });
  vi.setSystemTime(Date.now() + 301);
  fireEvent.keyDown(document.body, { key: '4' });
  expect(pressed).toHaveBeenCalledOnce();
  vi.useRealTimers();
});

it('without the server it finds what the tablet has read, and says that it is no more than that', async () => {
  online = false;
  open(true);
  fireEvent.change(await screen.findByPlaceholderText(/A name/), { target: { value: '417' } });
  expect(await screen.findByText('Hake fillet')).toBeTruthy();
  expect(await screen.findByText(/The server cannot be reached/)).toBeTruthy();
});

it('a letter that does not fit its figures is said as that', async () => {
  open(true);
  fireEvent.change(await screen.findByPlaceholderText(/A name/), { target: { value: '0417-K' } });
  expect(await screen.findByText(/No lot has the code 0417-K: its letter does not fit/)).toBeTruthy();
  fireEvent.change(screen.getByPlaceholderText(/A name/), { target: { value: 'dodo' } });
  expect(await screen.findByText('Nothing is called dodo.')).toBeTruthy();
});

it('what was opened last stands there before anything is typed', async () => {
  const { opened } = await import('./recent.ts');
  act(() => {
    opened(me.person.id, { to: '/larder/a', name: 'Frames 0401-B', room: 'Larder' });
    opened(me.person.id, { to: '/larder/b', name: 'Hake 0402-C', room: 'Larder' });
    opened(me.person.id, { to: '/larder/a', name: 'Frames 0401-B', room: 'Larder' });
    opened('somebody-else', { to: '/larder/c', name: 'Not mine', room: 'Larder' });
  });
  open(true);
  expect((await screen.findAllByRole('option')).map((o) => o.textContent)).toEqual([
    'Frames 0401-BLarder',
    'Hake 0402-CLarder',
  ]);
});

it('the keys of the screen stand on ?, as the screen says them now, and a touch away', async () => {
  open();
  fireEvent.keyDown(document.body, { key: '?' });
  const here = await screen.findByRole('region', { name: 'On this screen' });
  expect([...here.querySelectorAll('dt')].map((d) => d.textContent)).toEqual(['c', '1']);
  expect([...here.querySelectorAll('dd')].map((d) => d.textContent)).toEqual(['Close stage', 'Portions']);
  expect(screen.getByRole('region', { name: 'Everywhere' }).textContent).toContain('Find anything');
  // with something over the page it is a letter like others
  fireEvent.keyDown(document.body, { key: '/' });
  expect(screen.queryByPlaceholderText(/A name/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Find' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Keys of this screen' }));
  expect(await screen.findByRole('region', { name: 'On this screen' })).toBeTruthy();
});
