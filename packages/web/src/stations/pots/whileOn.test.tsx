/** What joins a pot, where its cooling log begins, plates, and a mix to a target. */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Cooling, ListedPlate } from '@zabrik/contract';
import { grams, kilograms } from '@zabrik/core';
import { describe, expect, it, vi } from 'vitest';
import { lotOf, me } from '../../testing/kitchen.ts';
import {
  BATCH,
  batchOf,
  frame,
  kept,
  onAnEmptyDevice,
  open,
  said,
  stove,
  text,
  touch,
  type,
} from '../../testing/pots.tsx';

onAnEmptyDevice();

/** A batch whose next step is the one that cools. */
function cools() {
  const batch = batchOf('fish-fumet', kilograms(5));
  const step = batch.recipe.steps.findIndex((s) => s.kind === 'cool');
  return {
    ...batch,
    events: Array.from({ length: step }, (_, i) => ({
      id: `019a0000-0000-7000-8000-0000000003${String(i).padStart(2, '0')}`,
      at: batch.plannedAt,
      by: me.person.name,
      body: { kind: 'step' as const, step: i, skipped: false },
    })),
  };
}
const pick = async (label: string, name: RegExp): Promise<void> => {
  const select = screen.getByLabelText(label);
  const option = within(select).getByRole('option', { name });
  fireEvent.change(select, { target: { value: (option as HTMLOptionElement).value } });
};

describe('somebody who must not touch what is in the pot', () => {
  const fumet = batchOf('fish-fumet', kilograms(5));
  const seen = (): boolean => screen.queryByText(/Ines Calloway must not touch/) !== null;
  it.each([
    ['of a lot that went in', [], ['fish'], true],
    ['of the recipe itself', ['celery'], [], true],
    ['of neither', ['eggs'], ['fish'], false],
  ])('is told at the stove, %s', async (_, mine, ofLot, told) => {
    const [first] = fumet.inputs;
    if (first === undefined) throw new Error('nothing in the pot');
    const recipe = { ...fumet.recipe, allergens: ['celery'], ingredients: [] };
    await stove(
      { ...fumet, recipe, inputs: [{ ...first, allergens: ofLot }] },
      { mustNotTouch: mine.length === 0 ? ['fish'] : mine },
    );
    expect(seen()).toBe(told);
  });
  it('is told nothing of a batch that is done', async () => {
    const recipe = { ...fumet.recipe, allergens: ['celery'] };
    await stove({ ...fumet, recipe, state: 'done' }, { mustNotTouch: ['celery'] });
    expect(seen()).toBe(false);
  });
});

describe('a lot joins a pot that is on', () => {
  const bass = { ...frame(7), name: 'Bass frame 7' };
  const mackerel = lotOf(8, { name: 'Mackerel frame', potKind: 'oily-fish-frame', massMg: grams(400) });
  it('only what the recipe takes is offered; all of it unless somebody says less, and no more than there is', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)), { lots: [bass, mackerel] });
    touch('Something joins it');
    expect(within(screen.getByLabelText('What joins it')).queryByRole('option', { name: /Mackerel/ })).toBeNull();
    await pick('What joins it', /Bass frame 7, 100 g, .*as bones/);
    const mass = screen.getByLabelText('How much, g') as HTMLInputElement;
    expect(mass.value).toBe('100');
    type('How much, g', '101');
    expect(screen.getByRole('alert').textContent).toBe('100 g of it is there.');
    touch('It joins');
    await new Promise((done) => setTimeout(done, 50));
    expect(screen.queryByText(/101 g Bass frame 7 joined/)).toBeNull();
    type('How much, g', '60');
    touch('It joins');
    expect(await said('join')).toEqual({ kind: 'join', lotId: bass.id, name: 'Bass frame 7', massMg: grams(60) });
    await screen.findByText(/60 g Bass frame 7 joined/);
    // and is taken back as everything that was said
    touch(/^Undo/);
    await waitFor(() => expect(screen.queryByText(/60 g Bass frame 7 joined/)).toBeNull());
  });
  it('in a kitchen of ounces all of it is so many ounces', async () => {
    // the same core the screen stands on: each test begins with modules of its own
    const { unitsComeFrom, usualUnits } = await import('@zabrik/core');
    unitsComeFrom(() => ({ ...usualUnits, mass: 'imperial' }));
    await stove(batchOf('fish-fumet', kilograms(5)), { lots: [bass] });
    touch('Something joins it');
    await pick('What joins it', /Bass frame 7, 3\.5 oz/);
    expect((screen.getByLabelText('How much, oz') as HTMLInputElement).value).toBe('3.527');
    touch('It joins');
    expect(await said('join')).toMatchObject({ massMg: expect.closeTo(grams(100), -4) });
    unitsComeFrom(() => usualUnits);
  });
  it('is not offered to who only looks', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)), { lots: [bass], role: 'viewer' });
    expect(screen.queryByRole('button', { name: 'Something joins it' })).toBeNull();
  });
});

describe('what came out, refused by the server', () => {
  it('is said where it was typed, and comes back into its fields to be put right', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)));
    type('Strained', '9');
    type('Bones thrown away', '3900');
    vi.stubGlobal('fetch', () =>
      Promise.resolve(
        new Response(
          JSON.stringify({ code: 'too_much_out', title: '10 kg went in and 12.9 kg came out.', status: 409 }),
          { status: 409, headers: { 'content-type': 'application/problem+json' } },
        ),
      ),
    );
    touch('Batch done');
    const form = await screen.findByRole('form', { name: 'Finish' });
    await within(form).findByText(/10 kg went in and 12.9 kg came out/);
    expect((screen.getByLabelText(/^Strained/) as HTMLInputElement).value).toBe('');
    touch('Put it right');
    await waitFor(() => expect((screen.getByLabelText(/^Strained/) as HTMLInputElement).value).toBe('9 l'));
    expect((screen.getByLabelText(/^Bones thrown away/) as HTMLInputElement).value).toBe('3900');
    await waitFor(async () => expect(await kept()).toHaveLength(0));
  });
});

describe('the log of a cooling', () => {
  it('begins from the step that cools: called after the batch, with its litres', async () => {
    await stove(cools());
    const link = screen.getByRole('link', { name: 'Begin its cooling log now' });
    expect(link.getAttribute('href')).toBe(`/pots/cooling?batch=${BATCH}`);
  });
  it('knows the batch it is of, and its readings stand in the step', async () => {
    await open('/pots/cooling', `/pots/cooling?batch=${BATCH}`, { batch: cools() });
    expect(screen.getByRole('heading', { name: 'Cool Fumet' })).toBeTruthy();
    expect((screen.getByLabelText('Litres') as HTMLInputElement).value).toBe('4.5');
    type(/^It is at/, '84');
    touch(/^Begin the log at/);
    await waitFor(async () => expect(await kept()).toHaveLength(1));
    expect((await kept())[0]?.body).toMatchObject({ batchId: BATCH, lotId: null, name: 'Fumet', centiC: 8_400 });
  });
  it('that is open already is shown with its last reading', async () => {
    const log: Cooling = {
      id: '019a0000-0000-7000-8000-000000000009',
      kind: 'cooling',
      state: 'open',
      lot: null,
      batchId: BATCH,
      name: 'Fumet',
      setup: {
        mediumId: 'cold-room-open',
        vesselName: '12 l pot',
        vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
        count: 1,
        litres: 4.5,
        airC: 3,
        setsAtC: null,
      },
      limit: null,
      readings: [
        { id: BATCH, at: new Date(Date.now() - 600_000).toISOString(), centiC: 6_320, source: 'probe', by: 'Ines' },
      ],
      verdict: 'not-judged',
      outcome: null,
      by: 'Ines',
      startedAt: new Date(Date.now() - 900_000).toISOString(),
      closedAt: null,
    };
    await stove(cools(), { open: [log] });
    const step = screen.getByRole('region', { name: 'Next step' }).textContent ?? '';
    expect(step).toContain('63.2 °C');
    expect(step).toContain('Another log of it');
  });
});

describe('minutes by size', () => {
  it('the timer is set to what a piece of this size takes', async () => {
    const batch = batchOf('crustacean-boil', kilograms(3));
    const step = batch.recipe.steps.findIndex((s) => s.bySize !== undefined);
    const events = Array.from({ length: step }, (_, i) => ({
      id: `019a0000-0000-7000-8000-0000000004${String(i).padStart(2, '0')}`,
      at: batch.plannedAt,
      by: me.person.name,
      body: { kind: 'step' as const, step: i, skipped: false },
    }));
    await stove({ ...batch, events, pieceMg: grams(1_400) });
    expect(screen.getByRole('region', { name: 'Next step' }).textContent).toContain('15 min to 18 min, 1,400 g each');
    act(() => void fireEvent.keyDown(document.body, { key: 't' }));
    await waitFor(() => expect(screen.getByTestId('countdown').textContent).toMatch(/^1[45]:/));
  });
});

describe('a sausage to a target', () => {
  const shoulder = lotOf(1, {
    name: 'Pork trim',
    species: 'pork',
    category: 'pork-trim',
    potKind: 'pork-trim',
    destination: 'filling',
    massMg: kilograms(1),
    madeMg: kilograms(1),
    useBy: '2099-01-01',
  });
  it('says fat and salt for it, sets the shares, and the balance stands where it was wanted', async () => {
    await open('/pots', '/pots?recipe=fresh-sausage', { lots: [shoulder] });
    type(/^Fat of the mix/, '25');
    type(/^Salt of the mix/, '1.8');
    await waitFor(() => expect(text('to-target')).toMatch(/g of fat, .* g of salt to 1,000 g of/));
    touch('Make it so');
    await waitFor(() => {
      const balance = screen.getByRole('region', { name: 'Balance' }).textContent ?? '';
      expect(balance).toMatch(/Fat25\.0 g/);
      expect(balance).toMatch(/Salt1\.8 g/);
    });
  });
  it('says why it cannot come to it', async () => {
    await open('/pots', '/pots?recipe=fresh-sausage', { lots: [shoulder] });
    type(/^Fat of the mix/, '1');
    await waitFor(() => expect(text('to-target')).toContain('fatter than that already'));
    expect(screen.queryByRole('button', { name: 'Make it so' })).toBeNull();
  });
});

describe('the floor of the pan', () => {
  it('decides how many bones lie in one layer: 24 cm hold 14.3 kg a square metre, 647 g', async () => {
    const bones = lotOf(1, {
      name: 'Rabbit bones',
      potKind: 'smallgame-bone',
      destination: 'stock',
      massMg: kilograms(2),
      madeMg: kilograms(2),
      useBy: '2099-01-01',
    });
    await open('/pots', '/pots?recipe=quick-bone-sauce', { lots: [bones] });
    fireEvent.change(screen.getByLabelText('Pan'), { target: { value: 'pan-24' } });
    const batch = await screen.findByText('one layer in the pan');
    expect(batch.closest('section')?.textContent).toContain('647 g');
  });
});

describe('plates', () => {
  const listed: ListedPlate = {
    plate: {
      id: 'hake',
      version: 2,
      title: 'Hake, carrot',
      components: [
        { name: 'hake', of: { kind: 'pieces', category: 'white-fish-portion', species: 'hake' }, count: 1, grams: 160 },
        { name: 'strips of carrot', of: { kind: 'goods', goods: 'carrot' }, count: 4, grams: 4 },
        { name: 'fumet', of: { kind: 'batch', recipeId: 'fish-fumet' }, count: null, grams: 60 },
      ],
    },
    retired: false,
    changed: { by: 'Maren', at: new Date().toISOString() },
    figures: {
      covers: 0,
      limiting: ['fumet'],
      costMinor: 402,
      unknownCost: ['fumet'],
      components: [
        { covers: 14, onHandMg: grams(2_240), perCoverMinor: 400, otherSize: 3 },
        { covers: 6, onHandMg: grams(100), perCoverMinor: 2, otherSize: 0 },
        { covers: 0, onHandMg: 0, perCoverMinor: null, otherSize: 0 },
      ],
    },
    allergens: ['fish/hake', 'celery'],
    unknownAllergens: [],
  };
  it('say how many lie ready, for want of what no more, and what is not known of their cost', async () => {
    await open('/pots/plates', '/pots/plates', { plates: [listed], role: 'viewer' });
    const card = screen.getByRole('article', { name: 'Hake, carrot' });
    expect(text('covers')).toBe('0 plates');
    expect(card.textContent).toContain('no more for want of fumet');
    expect(card.textContent).toContain('4 × 4 g');
    expect(card.textContent).toContain('3 of another size are not counted');
    expect(text('plate-cost')).toBe('At least £4.02 a plate: nothing lies there to say what fumet costs');
    expect(screen.queryByRole('button', { name: 'A new plate' })).toBeNull(); // who only looks reads them
  });
  it('never say that there is no allergen where nobody knows', async () => {
    await open('/pots/plates', '/pots/plates', { plates: [{ ...listed, allergens: [], unknownAllergens: ['fumet'] }] });
    const card = screen.getByRole('article', { name: 'Hake, carrot' });
    expect(card.textContent).toContain('What else fumet may have is not known yet.');
    expect(card.textContent).not.toContain('None of the named allergens');
  });
  it('are written by a chef: what is missing is said, and it is sent as it stands', async () => {
    await open('/pots/plates', '/pots/plates', { plates: [], role: 'head-chef' });
    expect(screen.getByText('No plates yet')).toBeTruthy();
    touch('A new plate');
    touch('Save the plate');
    expect((await screen.findByRole('alert')).textContent).toContain('A plate has a name.');
    type('The plate', 'Carrots, raw');
    fireEvent.change(screen.getByLabelText('Component 1'), { target: { value: 'goods' } });
    await pick('What', /^Carrots/);
    expect((screen.getByLabelText('Called') as HTMLInputElement).value).toBe('carrots');
    type('How many', '4');
    type(/^g each/, '4');
    touch('Save the plate');
    await waitFor(() => expect(screen.queryByText('A plate has a name.')).toBeNull());
  });
  it('change as a version more, and are let go as they were', async () => {
    await open('/pots/plates', '/pots/plates', { plates: [listed], role: 'head-chef' });
    touch('Change');
    expect((screen.getByLabelText('The plate') as HTMLInputElement).value).toBe('Hake, carrot');
    expect(screen.getByRole('button', { name: 'Save as version 3' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Without component 2' }));
    expect(screen.getAllByLabelText(/^Component \d/)).toHaveLength(2);
    touch('Not now');
    expect(screen.getByRole('article', { name: 'Hake, carrot' })).toBeTruthy();
  });
});
