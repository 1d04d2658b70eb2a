/** A line of a delivery at the screen: no server but the one that says what the test wants. */
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { DeliveryLine, Order } from '@zabrik/contract';
import { grams, unitsComeFrom, usualUnits } from '@zabrik/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { startOutbox, worksAs } from '../../app/outbox.ts';
import { me, supplierOf } from '../../testing/kitchen.ts';
import { open as openScreen } from '../../testing/open.tsx';
import type { LineBody } from './deliveryForm.ts';
import { LineForm } from './LineForm.tsx';

const SUPPLIER = '019a0000-0000-7000-8000-0000000000a1';
const DELIVERY = '019a0000-0000-7000-8000-0000000000d1';
const hake = {
  id: 'hake',
  name: 'Hake',
  scientific: 'Merluccius merluccius',
  group: 'round-fish',
  allergen: 'fish',
  oily: false,
  cautions: [],
  inspection: [],
  forms: [
    { id: 'whole', name: 'whole', purchase: true },
    { id: 'gutted', name: 'gutted, head on', purchase: true },
    { id: 'fillet', name: 'fillet', purchase: false },
  ],
};
const cream = { id: 'cream', name: 'Double cream', group: 'dairy' };

let sent: LineBody[] = [];
let answer: (body: LineBody) => Response;
const taken = (): Response => Response.json({ id: DELIVERY, code: '0001-A' });

const open = (
  props: { readonly order?: Order; readonly supplierId?: string; readonly onLine?: (line: DeliveryLine) => void } = {},
) =>
  openScreen(
    <LineForm
      deliveryId={DELIVERY}
      order={props.order}
      supplierId={props.supplierId}
      onLine={props.onLine ?? (() => undefined)}
    />,
    {
      catalogue: { species: [hake], goods: [cream], plans: [], inspection: [], cautions: [] },
      suppliers: { suppliers: [supplierOf(SUPPLIER, 'Bram Quay Fish')] },
    },
  );
const type = (label: string, value: string): void =>
  void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string | RegExp): void => void fireEvent.click(screen.getByRole('button', { name }));
const choose = async (name: RegExp): Promise<void> => void fireEvent.click(await screen.findByRole('option', { name }));
const asWeighed = async (): Promise<void> => {
  await choose(/Hake/);
  type('Gross, with box', '3.272 kg');
  type('Box', '412');
  type('Invoice weight', '2900');
  type('Invoice price, in all', '31.76');
  type('Supplier', SUPPLIER);
  type('Temperature', '1.4');
};

beforeEach(async () => {
  sent = [];
  answer = taken;
  vi.stubGlobal('fetch', (_: string, init?: RequestInit) => {
    if (init?.method !== 'POST') return Promise.reject(new TypeError('no network'));
    const body = JSON.parse(String(init.body)) as LineBody;
    sent.push(body);
    return Promise.resolve(answer(body));
  });
  worksAs({ personId: me.person.id, name: me.person.name, houseId: me.house.id });
  await startOutbox();
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.unstubAllGlobals();
});

describe('a line of a delivery', () => {
  it('is taken in as it was weighed, and the form is there for the next one of the same supplier', async () => {
    const onLine = vi.fn();
    open({ onLine });
    await asWeighed();
    expect(screen.getByTestId('net').textContent).toBe('2,860 g');
    expect(screen.getByTestId('difference').textContent).toMatch(/40 g/);
    press('Accept delivery');
    await waitFor(() => expect(onLine).toHaveBeenCalledOnce());
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({
      species: 'hake',
      form: 'gutted',
      came: 'fresh',
      grossMg: grams(3_272),
      tareMg: grams(412),
      invoiceMg: grams(2_900),
      paidMinor: 3_176,
      temperatureCentiC: 140,
      supplierId: SUPPLIER,
    });
    expect(screen.getByLabelText<HTMLInputElement>('Gross, with box').value).toBe('');
    expect(screen.getByLabelText<HTMLSelectElement>('Supplier').value).toBe(SUPPLIER);
  });

  it('takes what the probe shows in the units of the house: 1.2 °C are 34.2 °F, never 1.2', async () => {
    unitsComeFrom(() => ({ ...usualUnits, temperature: 'F' }));
    const real = fetch;
    vi.stubGlobal('fetch', (url: string, init?: RequestInit) =>
      url.endsWith('/probe')
        ? Promise.resolve(Response.json({ state: 'steady', centiC: 120, errorCentiC: 0 }))
        : real(url, init),
    );
    open();
    await asWeighed();
    const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take the temperature from the probe' });
    await waitFor(() => expect(take.disabled).toBe(false));
    fireEvent.click(take);
    expect(screen.getByLabelText<HTMLInputElement>('Temperature').value).toBe('34.2');
    press('Accept delivery');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.temperatureCentiC).toBe(122);
    unitsComeFrom(() => usualUnits);
  });

  it('says all that is missing at once, and sends nothing', async () => {
    open();
    press('Accept delivery');
    expect(await screen.findByText('Pick the animal')).toBeTruthy();
    for (const words of ['A weight, such as 2860 or 2.86 kg', 'What the invoice says it weighs', 'Who brought it?'])
      expect(screen.getByText(words)).toBeTruthy();
    expect(sent).toEqual([]);
  });

  it('refused before it lies on a scale is asked for no figures, and none are made up', async () => {
    open();
    await choose(/Hake/);
    type('Supplier', SUPPLIER);
    press('Refuse…');
    type('Why', 'warm');
    press('Refuse all of it');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      verdict: 'refused',
      refusedReason: 'warm',
      grossMg: null,
      tareMg: 0,
      invoiceMg: null,
      paidMinor: 0,
    });
  });

  it('is taken in in part, the rest going back with its reason', async () => {
    open();
    await asWeighed();
    press('Refuse…');
    type('Goes back, of it', '500');
    press('Accept the rest');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ verdict: 'part', refusedMg: grams(500), refusedReason: 'smell' });
  });

  it('of several boxes is their sum, each kept, and the last one can be taken back', async () => {
    open();
    await asWeighed();
    press('Another box');
    expect(screen.getByTestId('boxes').textContent).toBe('1 box: 2,860 g');
    type('Gross, with box', '1400');
    type('Box', '400');
    press('Another box');
    expect(screen.getByTestId('boxes').textContent).toBe('2 boxes: 2,860 g, 1,000 g');
    press('Take the last back');
    type('Gross, with box', '1412');
    type('Box', '412');
    press('Add them up');
    expect(screen.getByTestId('net').textContent).toBe('3,860 g');
    press('Accept delivery');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ grossMg: grams(4_684), tareMg: grams(824) });
    expect(sent[0]?.boxes).toEqual([
      { grossMg: grams(3_272), tareMg: grams(412) },
      { grossMg: grams(1_412), tareMg: grams(412) },
    ]);
  });

  it('is there again after the screen was left, with the way to let go of it', async () => {
    const first = open();
    await asWeighed();
    first.unmount();
    open();
    expect(screen.getByLabelText<HTMLInputElement>('Gross, with box').value).toBe('3.272 kg');
    expect(screen.getByRole('button', { name: /^Hake/ })).toBeTruthy();
    press(/Begin anew|anew|Let go|Empty/);
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Gross, with box').value).toBe(''));
  });

  it('asked about first, is sent again with a yes, under another key', async () => {
    answer = (body) =>
      body.confirmed === true
        ? taken()
        : Response.json(
            { code: 'needs_confirmation', title: 'Read this.', detail: 'Nobody has seen the tag.', status: 409 },
            { status: 409 },
          );
    const onLine = vi.fn();
    open({ onLine });
    await asWeighed();
    press('Accept delivery');
    expect(await screen.findByText(/Nobody has seen the tag/)).toBeTruthy();
    press('Take it in, on hold');
    await waitFor(() => expect(onLine).toHaveBeenCalledOnce());
    expect(sent.map((b) => b.confirmed ?? false)).toEqual([false, true]);
  });

  it('of an order that is touched has its animal, its supplier and what is still to come', async () => {
    const order = {
      id: '019a0000-0000-7000-8000-0000000000e1',
      supplierId: SUPPLIER,
      supplierName: 'Bram Quay Fish',
      lines: [
        {
          position: 2,
          species: 'hake',
          form: 'gutted',
          goods: null,
          name: 'Hake, gutted',
          count: 3,
          massMg: grams(8_000),
          cameMg: grams(3_000),
        },
      ],
    } as unknown as Order;
    open({ order });
    const expected = screen.getByRole('group', { name: 'Expected of Bram Quay Fish' });
    fireEvent.click(within(expected).getByRole('button', { name: /Hake, gutted/ }));
    expect(within(expected).getByRole('button').getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByLabelText<HTMLInputElement>('Invoice weight').value).toBe('5000');
    expect(screen.getByLabelText<HTMLInputElement>('How many').value).toBe('3');
    expect(screen.getByLabelText<HTMLSelectElement>('Supplier').value).toBe(SUPPLIER);
    expect(screen.getByLabelText<HTMLInputElement>('gutted, head on').checked).toBe(true);
  });

  it('of goods has no form, and of an animal none that is not bought', async () => {
    open();
    await choose(/Hake/);
    expect(screen.queryByLabelText('fillet')).toBeNull();
    press(/^Hake.*Change/);
    await choose(/Double cream/);
    expect(screen.queryByRole('group', { name: 'How it came' })).toBeNull();
    expect(screen.getByRole('group', { name: 'Fresh, live, frozen or packed' })).toBeTruthy();
  });
});
