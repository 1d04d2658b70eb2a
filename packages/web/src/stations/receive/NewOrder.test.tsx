import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { grams } from '@zabrik/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { house, supplierOf } from '../../testing/kitchen.ts';
import { open as openScreen } from '../../testing/open.tsx';
import { NewOrder } from './NewOrder.tsx';

const SUPPLIER = '019a0000-0000-7000-8000-0000000000a1';
let posted: {
  readonly body: { readonly lines: readonly object[]; readonly supplierId: string; readonly dueOn: string };
  readonly key: string;
}[] = [];
let online = true;
const done = vi.fn();

const open = (terms: Parameters<typeof supplierOf>[2] = {}) =>
  openScreen(<NewOrder done={done} />, {
    house,
    suppliers: { suppliers: [supplierOf(SUPPLIER, 'Bram Quay Fish', terms)] },
    catalogue: {
      species: [
        {
          id: 'hake',
          name: 'Hake',
          forms: [
            { id: 'gutted', name: 'gutted', purchase: true },
            { id: 'loin', name: 'loin', purchase: false },
          ],
        },
      ],
      goods: [{ id: 'cream', name: 'Double cream' }],
    },
  });
const type = (label: string, value: string): void =>
  void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
const add = (what: string, mass: string): void => {
  type('What', what);
  type('How much', mass);
  fireEvent.click(button('Add'));
};

beforeEach(() => {
  posted = [];
  online = true;
  done.mockClear();
  vi.stubGlobal('fetch', (_: string, init?: RequestInit) => {
    if (!online || init?.method !== 'POST') return Promise.reject(new TypeError('no network'));
    posted.push({
      body: JSON.parse(String(init.body)),
      key: new Headers(init.headers).get('idempotency-key') ?? '',
    });
    return Promise.resolve(Response.json({ id: SUPPLIER }));
  });
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.unstubAllGlobals();
});

describe('writing an order down', () => {
  it('takes animals in the forms that are bought and goods, a line each, and sends them', async () => {
    open();
    const offered = [...screen.getByLabelText<HTMLSelectElement>('What').options].map((o) => o.textContent);
    expect(offered).toEqual(['what', 'Double cream', 'Hake, gutted']);
    type('Of which supplier', SUPPLIER);
    add('hake/gutted', '8.5 kg');
    add('goods/cream', '2000');
    fireEvent.click(button('Write the order down'));
    await waitFor(() => expect(done).toHaveBeenCalledOnce());
    expect(posted[0]?.body).toMatchObject({ supplierId: SUPPLIER });
    expect(posted[0]?.body.lines).toEqual([
      { species: 'hake', form: 'gutted', goods: null, count: null, massMg: grams(8_500), minorPerKg: null },
      { species: null, form: null, goods: 'cream', count: null, massMg: grams(2_000), minorPerKg: null },
    ]);
  });

  it('adds nothing without a weight, takes a line out again, and says what is missing before it sends', async () => {
    open();
    type('What', 'hake/gutted');
    expect(button('Add').disabled).toBe(true);
    for (const none of ['some', '0', '-2']) {
      type('How much', none);
      expect(button('Add').disabled, none).toBe(true);
    }
    add('hake/gutted', '5 kg');
    fireEvent.click(button('Write the order down'));
    await screen.findByText('Say who brings it');
    type('Of which supplier', SUPPLIER);
    fireEvent.click(button('take out'));
    fireEvent.click(button('Write the order down'));
    await screen.findByText(/Nothing is on it yet/);
    expect(posted).toEqual([]);
  });

  it('does not leave a line behind that was typed and not added', async () => {
    open();
    type('Of which supplier', SUPPLIER);
    add('hake/gutted', '5 kg');
    type('What', 'goods/cream');
    fireEvent.click(button('Write the order down'));
    await screen.findByText(/not on the order yet/);
    type('How much', '2 kg');
    fireEvent.click(button('Add'));
    fireEvent.click(button('Write the order down'));
    await waitFor(() => expect(done).toHaveBeenCalledOnce());
    expect(posted[0]?.body.lines).toHaveLength(2);
  });

  it('adds by Enter, which does not send what is not whole', () => {
    open();
    type('Of which supplier', SUPPLIER);
    type('What', 'hake/gutted');
    type('How much', '5 kg');
    fireEvent.keyDown(screen.getByLabelText('How much'), { key: 'Enter' });
    expect(screen.getByRole('listitem').textContent).toContain('5,000 g');
    expect(posted).toEqual([]);
  });

  it('is there again after the screen was left half-way', () => {
    const first = open();
    type('Of which supplier', SUPPLIER);
    add('hake/gutted', '5 kg');
    type('How much', '3');
    first.unmount();
    open();
    expect(screen.getByLabelText<HTMLSelectElement>('Of which supplier').value).toBe(SUPPLIER);
    expect(screen.getByLabelText<HTMLInputElement>('How much').value).toBe('3');
    expect(screen.getByRole('listitem').textContent).toContain('Hake, gutted');
  });

  it('names its supplier again though the list of them comes later than the draft', async () => {
    const first = open();
    type('Of which supplier', SUPPLIER);
    first.unmount();
    const later = openScreen(<NewOrder done={done} />, { catalogue: { species: [], goods: [] } });
    expect(screen.getByLabelText<HTMLSelectElement>('Of which supplier').options).toHaveLength(1);
    later.client.setQueryData(['suppliers'], { suppliers: [supplierOf(SUPPLIER, 'Bram Quay Fish')] });
    await waitFor(() =>
      expect(screen.getByLabelText<HTMLSelectElement>('Of which supplier').selectedOptions[0]?.textContent).toBe(
        'Bram Quay Fish',
      ),
    );
  });

  it('whose answer was lost goes out again as the same order', async () => {
    open();
    type('Of which supplier', SUPPLIER);
    add('hake/gutted', '5 kg');
    online = false;
    fireEvent.click(button('Write the order down'));
    expect(await screen.findByText(/No connection/)).toBeTruthy();
    const kept = Object.values(
      JSON.parse(localStorage.getItem('zabrik-intents') ?? '{}') as Record<string, { key: string }>,
    );
    online = true;
    fireEvent.click(button('Write the order down'));
    await waitFor(() => expect(posted).toHaveLength(1));
    expect(posted[0]?.key).toBe(kept[0]?.key);
  });

  it('knows when the supplier brings it: the day by itself, until when it is ordered, and what cannot come', async () => {
    // a Monday, nine o'clock in the house
    vi.useFakeTimers({ shouldAdvanceTime: true, now: new Date('2026-11-30T09:00:00Z') });
    open({
      orderDays: [1, 3, 5],
      cutOff: '16:00',
      deliveryDays: [2, 3, 4, 5, 6],
      minimumMinor: 6_000,
      carriageMinor: 800,
      carriageFreeMinor: 12_000,
      items: [
        { species: 'hake', form: 'gutted', goods: null, theirCode: 'HK2', theirName: null, packMg: grams(5_000) },
      ],
    });
    // what is agreed with them stands first
    type('Of which supplier', SUPPLIER);
    expect([...screen.getByLabelText<HTMLSelectElement>('What').options].map((o) => o.textContent)).toEqual([
      'what',
      'Hake, gutted',
      'Double cream',
    ]);
    expect(screen.getByLabelText<HTMLInputElement>('Expected on').value).toBe('2026-12-01');
    expect(screen.getByText('To be ordered today by 16:00.')).toBeTruthy();
    expect(
      screen.getByText(
        'Of Bram Quay Fish an order comes to £60.00 at least; bringing it costs £8.00, nothing from £120.00.',
      ),
    ).toBeTruthy();
    type('What', 'hake/gutted');
    type('How much', '12 kg');
    expect(screen.getByText(/They pack it by 5,000 g: 3 packs, 3,000 g more than that/)).toBeTruthy();
    type('Expected on', '2026-12-07');
    expect(
      await screen.findByText(
        'They bring nothing on Mondays. The next that comes is ordered today by 16:00, for Tue 1 Dec.',
      ),
    ).toBeTruthy();
    vi.setSystemTime(new Date('2026-11-30T16:01:00Z'));
    type('Expected on', '2026-12-01');
    expect(
      await screen.findByText(
        'Too late for Tue 1 Dec: it had to be ordered today by 16:00. The next that comes is ordered Wed 2 Dec by 16:00, for Thu 3 Dec.',
      ),
    ).toBeTruthy();
    vi.useRealTimers();
  });
});
