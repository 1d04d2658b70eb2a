import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { allGoods } from '@zabrik/catalogue';
import type { House } from '@zabrik/contract';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { house, lotOf } from '../../testing/kitchen.ts';

/** What was sent, and waits on this tablet for a network that is not there. */
const kept = async () => (await import('../../app/outbox.ts')).waitingNow();

beforeEach(() => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  localStorage.clear();
});

const cold: House['places'] = [
  { id: 'cold-room', name: 'Cold room', kind: 'cold-room', holds: 'raw' },
  { id: 'ready', name: 'Ready fridge', kind: 'fridge', holds: 'ready' },
  { id: 'freezer', name: 'Freezer', kind: 'freezer', holds: 'any' },
];

const open = async (o: Parameters<typeof lotOf>[1], places: House['places'] = cold): Promise<void> => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
  const lot = { ...lotOf(1, o), events: [], cautions: [], judged: [], readings: [], movements: [] };
  const [{ open: openScreen }, { LotActions }] = await Promise.all([
    import('../../testing/open.tsx'),
    import('./LotActions.tsx'),
  ]);
  openScreen(<LotActions lot={lot as never} />, {
    house: { ...house, places },
    catalogue: { species: [], goods: allGoods as never, plans: [] },
  });
};
const press = (name: string): void => void fireEvent.click(screen.getByRole('button', { name }));
const move = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Move all of it/ });

describe('making vegetables ready', () => {
  const type = (label: string, text: string): void =>
    void fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
  const said = (): string => screen.getByTestId('trimmed').textContent ?? '';

  it('says what is thrown away as it is typed, and what is usual; more than went on the board is not sent unseen', async () => {
    await open({ kind: 'goods', goods: 'artichoke', name: 'Globe artichokes', category: null, massMg: 2_000_000 });
    press('Trim');
    expect(said()).toMatch(/The rest is peel and leaves/);
    expect(screen.getByText(/Usually \d+ % to \d+ % is ready.*bitter/)).toBeTruthy();
    // what no pot takes is not offered to one
    expect([...screen.getByLabelText<HTMLSelectElement>('For').options].map((o) => o.textContent)).not.toContain(
      'Stock',
    );
    type('On the board', '1000');
    type('Ready', '240');
    await waitFor(() => expect(said()).toBe('760 g thrown away; 24.0 % is ready.'));
    expect(screen.queryByText(/Less than it usually is/)).toBeNull();
    type('Ready', '90');
    await waitFor(() => expect(screen.getByText(/Less than it usually is/)).toBeTruthy());
    type('Ready', '240');
    type('Trim kept', '800');
    await waitFor(() => expect(said()).toMatch(/^40 g more than went on the board/));
    type('Trim kept', '');
    press('Trimmed');
    await waitFor(async () => expect(await kept()).toHaveLength(1));
    expect((await kept())[0]?.body).toMatchObject({ massMg: 1_000_000, readyMg: 240_000, keptMg: 0, keptTo: null });
  });

  it('what lacks is said at its field, and what is trimmed already is not trimmed again', async () => {
    await open({ kind: 'goods', goods: 'basil', name: 'Basil', category: null, massMg: 90_000 });
    press('Trim');
    press('Trimmed');
    expect(await screen.findByText('What is ready, such as 480')).toBeTruthy();
    expect(screen.getByLabelText<HTMLSelectElement>('For').value).toBe('stock');
    cleanup();
    await open({ kind: 'goods', goods: 'basil', name: 'Basil, leaves', category: 'vegetable-ready', massMg: 50_000 });
    expect(screen.queryByRole('button', { name: 'Trim' })).toBeNull();
  });
});

describe('moving a lot', () => {
  it('raw goes to no fridge of ready things by itself: the place is asked for', async () => {
    await open({});
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('');
    expect(move().disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('To'), { target: { value: 'ready' } });
    expect(move().disabled).toBe(false);
    expect(move().textContent).toBe('Move all of it, Ready fridge');
  });

  it('what is ready to eat goes where such things stand', async () => {
    await open({ ready: true });
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('ready');
  });

  it('raw goes to another place for raw, or one for anything', async () => {
    await open({}, [...cold, { id: 'walk-in', name: 'Walk-in', kind: 'cold-room', holds: 'any' }]);
    press('Move');
    expect(screen.getByLabelText<HTMLSelectElement>('To').value).toBe('walk-in');
    press('Freeze');
    expect(screen.getByLabelText<HTMLSelectElement>('Into').value).toBe('freezer');
  });

  it('more than there is, and what is no weight, is said and not sent', async () => {
    await open({ massMg: 160_000 });
    press('Freeze');
    const part = screen.getByLabelText('How much');
    const send = (): HTMLButtonElement => screen.getByRole('button', { name: /^Freeze .*Freezer/ });
    for (const [typed, says] of [
      ['161', 'The lot has 160 g'],
      ['0', 'A weight, such as 160 or 1.2 kg'],
      ['-3', 'A weight, such as 160 or 1.2 kg'],
    ] as const) {
      fireEvent.change(part, { target: { value: typed } });
      expect((await screen.findByText(says)).textContent, typed).toBe(says);
      fireEvent.click(send());
    }
    await waitFor(() => expect(document.activeElement).toBe(part));
    expect(await kept()).toEqual([]);
    fireEvent.change(part, { target: { value: '0.1 kg' } });
    expect(send().textContent).toBe('Freeze 100 g, Freezer');
    fireEvent.click(send());
    await waitFor(async () => expect(await kept()).toHaveLength(1));
    expect((await kept())[0]).toMatchObject({
      endpoint: 'larder.keep',
      body: { kind: 'freeze', placeId: 'freezer', massMg: 100_000 },
    });
  });

  it('all of it, though weighed, is the lot and no part of it', async () => {
    await open({ massMg: 160_000 });
    press('Freeze');
    fireEvent.change(screen.getByLabelText('How much'), { target: { value: '160' } });
    press('Freeze 160 g, Freezer');
    await waitFor(async () => expect((await kept())[0]?.body).toMatchObject({ massMg: null }));
  });

  it('what has no reason is not held, dated or reserved, and says what is missing', async () => {
    await open({});
    press('Hold');
    press('Hold it');
    await screen.findByText('Say why');
    press('Date');
    fireEvent.change(screen.getByLabelText('Use by'), { target: { value: '' } });
    press('Set');
    await screen.findByText('A day');
    await screen.findByText('Say why');
    press('Reserve');
    fireEvent.submit(screen.getByLabelText('For which dish or pot'));
    await screen.findByText('What it is for');
    expect(await kept()).toEqual([]);
    fireEvent.change(screen.getByLabelText('For which dish or pot'), { target: { value: 'Friday’s pie' } });
    fireEvent.submit(screen.getByLabelText('For which dish or pot'));
    await waitFor(async () =>
      expect((await kept())[0]?.body).toEqual({
        kind: 'reserve',
        reservedFor: 'Friday’s pie',
        massMg: null,
        pieces: null,
      }),
    );
  });

  it('what is gone can be held, and nothing else', async () => {
    await open({ massMg: 0 });
    expect(screen.queryByRole('button', { name: 'Move' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Hold' })).toBeTruthy();
  });

  it('what is frozen thaws and does not freeze again, what waits for its next stage is not parted', async () => {
    await open({ state: 'frozen', frozenOn: '2026-11-20', placeId: 'freezer', nextStage: 'portions' });
    expect(screen.queryByRole('button', { name: 'Freeze' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Part' })).toBeNull();
    press('Thaw');
    const places = [...screen.getByLabelText<HTMLSelectElement>('Thaw in').options].map((o) => o.textContent);
    expect(places).toEqual(['Cold room (raw)', 'Ready fridge (ready to eat)']);
  });
});
