import { cleanup, fireEvent, screen } from '@testing-library/react';
import type { House } from '@zabrik/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { house, lotOf } from '../../testing/kitchen.ts';
import { open as openScreen } from '../../testing/open.tsx';
import { LotActions } from './LotActions.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const cold: House['places'] = [
  { id: 'cold-room', name: 'Cold room', kind: 'cold-room', holds: 'raw' },
  { id: 'ready', name: 'Ready fridge', kind: 'fridge', holds: 'ready' },
  { id: 'freezer', name: 'Freezer', kind: 'freezer', holds: 'any' },
];

const open = (o: Parameters<typeof lotOf>[1], places: House['places'] = cold): void => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
  const lot = { ...lotOf(1, o), events: [], cautions: [], judged: [], readings: [], movements: [] };
  openScreen(<LotActions lot={lot as never} />, {
    house: { ...house, places },
    catalogue: { species: [], goods: [], plans: [] },
  });
};
const press = (name: string): void => void fireEvent.click(screen.getByRole('button', { name }));
const move = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Move all of it/ });

describe('moving a lot', () => {
  it('raw goes to no fridge of ready things by itself: the place is asked for', () => {
    open({});
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('');
    expect(move().disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('To'), { target: { value: 'ready' } });
    expect(move().disabled).toBe(false);
    expect(move().textContent).toBe('Move all of it, Ready fridge');
  });

  it('what is ready to eat goes where such things stand', () => {
    open({ ready: true });
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('ready');
  });

  it('raw goes to another place for raw, or one for anything', () => {
    open({}, [...cold, { id: 'walk-in', name: 'Walk-in', kind: 'cold-room', holds: 'any' }]);
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('walk-in');
    press('Freeze');
    expect(screen.getByLabelText<HTMLSelectElement>('Into').value).toBe('freezer');
  });

  it('more than there is, and what is no weight, is said and not sent', () => {
    open({ massMg: 160_000 });
    press('Freeze');
    const part = screen.getByLabelText('How much');
    const send = (): HTMLButtonElement => screen.getByRole('button', { name: /^Freeze .*Freezer/ });
    fireEvent.change(part, { target: { value: '161' } });
    expect(screen.getByText('The lot has 160 g')).toBeTruthy();
    expect(send().disabled).toBe(true);
    fireEvent.change(part, { target: { value: 'half' } });
    expect(send().disabled).toBe(true);
    fireEvent.change(part, { target: { value: '0.1 kg' } });
    expect(send().textContent).toBe('Freeze 100 g, Freezer');
    expect(send().disabled).toBe(false);
  });

  it('what is gone can be held, and nothing else', () => {
    open({ massMg: 0 });
    expect(screen.queryByRole('button', { name: 'Move' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Hold' })).toBeTruthy();
  });

  it('what is frozen thaws and does not freeze again, what waits for its next stage is not parted', () => {
    open({ state: 'frozen', frozenOn: '2026-11-20', placeId: 'freezer', nextStage: 'portions' });
    expect(screen.queryByRole('button', { name: 'Freeze' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Part' })).toBeNull();
    press('Thaw');
    const places = [...screen.getByLabelText<HTMLSelectElement>('Thaw in').options].map((o) => o.textContent);
    expect(places).toEqual(['Cold room (raw)', 'Ready fridge (ready to eat)']);
  });
});
