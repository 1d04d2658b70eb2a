import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook } from '@testing-library/react';
import { unitsComeFrom, usualUnits } from '@zabrik/core';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { me } from '../testing/kitchen.ts';
import { dropOldDrafts, hasDraft, useDraft } from './draft.ts';

const client = new QueryClient();
const as = (personId: string) => client.setQueryData(['me'], { ...me, person: { ...me.person, id: personId } });
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const empty = { mass: '', lines: [] as string[], as: null as string | null };
const open = (form = 'f', initial = empty) =>
  renderHook(({ name }: { name: string }) => useDraft(name, initial), { wrapper, initialProps: { name: form } });

beforeEach(() => {
  localStorage.clear();
  as('ines');
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it('is there again when the screen is, says since when, and is gone once it is sent', () => {
  const first = open();
  act(() => first.result.current.put({ mass: '31', lines: ['a'] }));
  act(() => first.result.current.set((before) => ({ ...before, lines: [...before.lines, 'b'] })));
  expect(first.result.current.typedAt).toBeUndefined(); // typed on this very screen: nobody need be told
  first.unmount();
  const second = open();
  expect(second.result.current.value).toEqual({ mass: '31', lines: ['a', 'b'], as: null });
  expect(Math.abs((second.result.current.typedAt ?? 0) - Date.now())).toBeLessThan(60_000);
  expect(hasDraft('ines', 'f')).toBe(true);
  act(() => second.result.current.clear());
  expect(second.result.current).toMatchObject({ value: empty, typedAt: undefined });
  expect(hasDraft('ines', 'f')).toBe(false);
  second.unmount();
  expect(open().result.current.value).toEqual(empty);
});

it('is let go though the screen is gone before it is drawn again', () => {
  const first = open();
  act(() => first.result.current.put({ mass: '31' }));
  act(() => {
    first.result.current.set({ ...empty, mass: 'next' });
    first.unmount();
  });
  expect(open().result.current.value.mass).toBe('next');
});

it('is as old as the last that was typed, however often the form is only opened', () => {
  vi.useFakeTimers({ now: new Date('2026-11-30T08:00:00Z'), toFake: ['Date'] });
  const first = open();
  act(() => first.result.current.put({ mass: '31' }));
  first.unmount();
  vi.setSystemTime(new Date('2026-11-30T17:00:00Z'));
  const looked = open();
  act(() => looked.result.current.set({ ...empty, mass: '31' }));
  looked.unmount();
  expect(open().result.current.typedAt).toBe(Date.parse('2026-11-30T08:00:00Z'));
});

it('belongs to whoever typed it and to its form', () => {
  const mine = open('line');
  act(() => mine.result.current.put({ mass: '31' }));
  mine.rerender({ name: 'order' });
  expect(mine.result.current.value).toEqual(empty);
  mine.rerender({ name: 'line' });
  expect(mine.result.current.value.mass).toBe('31');
  mine.unmount();
  as('jory');
  expect(open('line').result.current.value).toEqual(empty);
  as('ines');
  cleanup();
  expect(open('line').result.current.value.mass).toBe('31');
});

it('is no draft when it stands as it stood before anyone typed, when it is too old, or when it is another version’s', () => {
  const typed = open();
  act(() => typed.result.current.put({ mass: '31' }));
  act(() => typed.result.current.put({ mass: '' }));
  expect(localStorage).toHaveLength(0);
  act(() => typed.result.current.put({ mass: '31' }));
  typed.unmount();
  expect(open('f', { ...empty, more: 0 } as never).result.current.value).toEqual({ ...empty, more: 0 });
  cleanup();
  localStorage.setItem('zabrik-draft/ines/g', JSON.stringify({ at: Date.now(), value: { ...empty, lines: 'x' } }));
  localStorage.setItem('zabrik-draft/ines/h', 'half a');
  for (const form of ['g', 'h']) expect(open(form).result.current.value).toEqual(empty);
  cleanup();
  localStorage.clear();
  const old = open();
  act(() => old.result.current.put({ mass: '31' }));
  old.unmount();
  vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 4 * 86_400_000 });
  expect(open().result.current.value).toEqual(empty);
});

it('that nobody comes back for is dropped, and nothing else on the device', () => {
  localStorage.setItem('zabrik-draft/ines/old', JSON.stringify({ at: Date.now() - 4 * 86_400_000, value: {} }));
  localStorage.setItem('zabrik-draft/ines/new', JSON.stringify({ at: Date.now(), value: {} }));
  localStorage.setItem('zabrik-draft/ines/none', '{');
  localStorage.setItem('zabrik-scale', 'bench');
  dropOldDrafts();
  expect(Object.keys(localStorage).sort()).toEqual(['zabrik-draft/ines/new', 'zabrik-scale']);
});

it('a figure typed in grams is not read in ounces once the house has other units, and is there again in its own', () => {
  const first = open();
  act(() => first.result.current.put({ mass: '2860' }));
  first.unmount();
  unitsComeFrom(() => ({ ...usualUnits, mass: 'imperial' }));
  expect(open().result.current.value.mass).toBe('');
  expect(hasDraft('ines', 'f')).toBe(false);
  cleanup();
  unitsComeFrom(() => usualUnits);
  expect(open().result.current.value.mass).toBe('2860');
});
