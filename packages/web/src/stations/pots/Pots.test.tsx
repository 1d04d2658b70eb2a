/** The pots' screens on their own: no server, everything said stays in the outbox of this device. */
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Boned, Cooling } from '@zabrik/contract';
import { type BatchEventBody, grams, kilograms, type Recipe } from '@zabrik/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { me } from '../../testing/kitchen.ts';
import {
  BATCH,
  batchOf,
  client,
  cooling,
  frame,
  kept,
  LOT,
  onAnEmptyDevice,
  open,
  said,
  stove,
  text,
  touch,
  type,
} from '../../testing/pots.tsx';
import { blankRecipe } from './recipe/blankRecipe.ts';

onAnEmptyDevice();

describe('scaling', () => {
  it('shows some of hundreds of lots, takes the oldest two hundred, and says so', async () => {
    await open('/pots', '/pots?recipe=fish-fumet', { lots: Array.from({ length: 240 }, (_, i) => frame(i)) });
    const lots = screen.getByRole('region', { name: 'Lots for Fumet' });
    expect(within(lots).getAllByRole('checkbox')).toHaveLength(30);
    // 200 lots of 100 g, 0.9 litres a kilo
    expect(text('comes-out')).toBe('18.0 l');
    expect(lots.textContent).toContain('A batch takes 200 lots at most, the oldest first.');
    fireEvent.click(within(lots).getByRole('button', { name: '210 more' }));
    expect(within(lots).getAllByRole('checkbox')).toHaveLength(240);
  });

  it('leaves a lot out at a touch, and asks for what is wanted in litres', async () => {
    await open('/pots', '/pots?recipe=fish-fumet', { lots: [frame(1), frame(2), frame(3)] });
    expect(text('comes-out')).toBe('0.3 l');
    fireEvent.click(screen.getByRole('checkbox', { name: /Hake frame 2/ }));
    expect(screen.getByRole('region', { name: 'Batch of Fumet' }).textContent).toContain('200 g');
    touch('So many litres');
    type('Litres', '6');
    expect(screen.getByText(/^Short of 6,467 g bones/)).toBeTruthy();
  });
});

describe('what was chosen stands', () => {
  it('when another screen takes and brings lots: nothing comes in unasked, nothing goes out', async () => {
    const [hake, gurnard] = [frame(1), { ...frame(2), species: 'gurnard', name: 'Gurnard frame 2' }];
    await open('/pots', '/pots?recipe=fish-fumet', { lots: [hake, gurnard] });
    const on = (name: RegExp): boolean => (screen.getByRole('checkbox', { name }) as HTMLInputElement).checked;
    expect([on(/Hake frame 1/), on(/Gurnard frame 2/)]).toEqual([true, true]);
    fireEvent.click(within(screen.getByRole('group', { name: 'Only these' })).getByRole('button', { name: 'gurnard' }));
    expect([on(/Hake frame 1/), on(/Gurnard frame 2/)]).toEqual([false, true]);
    act(() => void client.setQueryData(['lots', 'pots'], { lots: [hake, gurnard, frame(3)], all: true }));
    await screen.findByRole('checkbox', { name: /Hake frame 3/ });
    expect([on(/Hake frame 1/), on(/Gurnard frame 2/), on(/Hake frame 3/)]).toEqual([false, true, false]);
    fireEvent.click(screen.getByRole('checkbox', { name: /Hake frame 3/ }));
    act(() => void client.setQueryData(['lots', 'pots'], { lots: [gurnard, frame(3)], all: true }));
    await waitFor(() => expect(screen.queryByRole('checkbox', { name: /Hake frame 1/ })).toBeNull());
    expect([on(/Gurnard frame 2/), on(/Hake frame 3/)]).toEqual([true, true]);
  });
});

describe('a batch at the stove', () => {
  it('goes step by step by keys, and everything said can be taken back, the latest first', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)));
    const step = () => screen.getByRole('region', { name: 'Next step' }).textContent ?? '';
    expect(step()).toContain('Step 1 of');
    act(() => void fireEvent.keyDown(document.body, { key: 'd' }));
    await waitFor(() => expect(step()).toContain('Step 2 of'));
    act(() => void fireEvent.keyDown(document.body, { key: 't' }));
    await waitFor(() => expect(screen.getByTestId('countdown')).toBeTruthy());
    touch(/^Undo/);
    await waitFor(() => expect(screen.queryByTestId('countdown')).toBeNull());
    act(() => void fireEvent.keyDown(document.body, { key: 'u' }));
    await waitFor(() => expect(step()).toContain('Step 1 of'));
    expect((await kept()).map((w) => (w.body as { body: BatchEventBody }).body.kind)).toEqual([
      'step',
      'timer',
      'back',
      'back',
    ]);
  });

  it('says what a step takes in this house beside the book, sets the timer so, and writes what it took', async () => {
    const timed = batchOf('fish-fumet', kilograms(5), [
      [40, { kind: 'timer', step: 0, label: 'sweat', dueAt: new Date().toISOString() }],
      [16, { kind: 'step', step: 0, skipped: false }],
    ]);
    const next = timed.recipe.steps.findIndex((s, i) => i > 0 && s.minutes !== undefined);
    const before = timed.recipe.steps.slice(1, next).map((_, i) => ({
      id: `019a0000-0000-7000-8000-00000000020${i}`,
      at: new Date().toISOString(),
      by: me.person.name,
      body: { kind: 'step' as const, step: i + 1, skipped: false },
    }));
    await stove({
      ...timed,
      events: [...timed.events, ...before],
      ownTimes: [{ step: next, minutes: 23, batches: 3 }],
    });
    const step = () => screen.getByRole('region', { name: 'Next step' }).textContent ?? '';
    expect(step()).toContain('yours 23 min, the middle of 3');
    expect(screen.getByRole('list', { name: 'Steps' }).textContent).toContain('took 24 min');
    act(() => void fireEvent.keyDown(document.body, { key: 't' }));
    await waitFor(() => expect(screen.getByTestId('countdown').textContent).toMatch(/^2[23]:/));
  });

  it('a timer that runs is moved by a touch, and taken back it rings when it did', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)));
    const left = (): number => {
      const [min = '0', s = '0'] = (screen.getByTestId('countdown').textContent ?? '').split(':');
      return Number(min) * 60 + Number(s);
    };
    touch('5 min more');
    expect(screen.getByRole('region', { name: 'Next step' }).textContent).toContain('35 min');
    act(() => void fireEvent.keyDown(document.body, { key: 't' }));
    await waitFor(() => expect(left()).toBeGreaterThan(34 * 60));
    touch('5 min less');
    await waitFor(() => expect(left()).toBeLessThanOrEqual(30 * 60));
    expect(left()).toBeGreaterThan(29 * 60);
    touch(/^Undo/);
    await waitFor(() => expect(left()).toBeGreaterThan(34 * 60));
    const [first, second] = (await kept()).map((w) => (w.body as { body: BatchEventBody }).body);
    expect(first).not.toHaveProperty('replaces');
    expect(second).toMatchObject({ kind: 'timer', replaces: (await kept())[0]?.key });
  });

  it('takes a litre typed for a kilogram, and keeps what came out on this device until the server has it', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)));
    const done = (): HTMLButtonElement => screen.getByRole('button', { name: 'Batch done' });
    fireEvent.click(done());
    await screen.findByText('Such as 6.3 l, or a weight');
    type('Strained', '4');
    await waitFor(() => expect(screen.queryByText('Such as 6.3 l, or a weight')).toBeNull());
    type('Strained', 'a lot');
    await screen.findByText('Such as 6.3 l, or a weight');
    fireEvent.click(screen.getByLabelText('Bones go to a second wash'));
    type('Strained', '4,2');
    fireEvent.click(done());
    await screen.findByText('Weigh what is washed again');
    expect(await kept()).toEqual([]);
    fireEvent.click(screen.getByLabelText('Bones go to a second wash'));
    type('Bones thrown away', '3900');
    fireEvent.click(done());
    await waitFor(() => expect(done().disabled).toBe(true));
    // nothing more is done to it meanwhile
    expect(screen.queryByRole('button', { name: /^Undo/ })).toBeNull();
    expect(screen.getByText(/Kept here. The batch is done once the server has it/)).toBeTruthy();
    expect(await kept()).toMatchObject([
      {
        endpoint: 'pots.finish',
        params: { batchId: BATCH },
        body: { outputMg: kilograms(4.2), spentMg: grams(3_900), spentTo: 'waste' },
      },
    ]);
  });

  it('sets a timer by the server’s clock, and counts it down by the same, though its own is off', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)), { aheadMs: 300_000 });
    act(() => void fireEvent.keyDown(document.body, { key: 't' }));
    await waitFor(() => expect(screen.getByTestId('countdown').textContent).toBe('30:00'));
    const timer = await said('timer');
    expect((Date.parse(timer.dueAt) - Date.now()) / 60_000).toBeCloseTo(35, 1);
  });

  it('reads a bare number over a hundred as the grams of the scale', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)));
    type('Strained', '4200');
    touch('Batch done');
    await waitFor(async () => expect((await kept())[0]?.body).toMatchObject({ outputMg: grams(4_200) }));
  });

  it('shows a viewer where it stands and nothing to touch', async () => {
    await stove(batchOf('fish-fumet', kilograms(5)), { role: 'viewer' });
    expect(screen.getByRole('region', { name: 'Next step' })).toBeTruthy();
    expect(screen.getByRole('region', { name: 'What goes in' }).textContent).toContain('1042-K');
    expect(screen.queryByRole('button', { name: /Done|Batch done|Call it off/ })).toBeNull();
  });

  it('leads from a done batch to its lot, with what a litre of it cost', async () => {
    await stove({
      ...batchOf('fish-fumet', kilograms(5)),
      state: 'done',
      outputMg: kilograms(4),
      outputLot: { id: LOT, code: '1050-T', name: 'Fumet', costMinor: 1_000 },
      doneAt: new Date().toISOString(),
    });
    expect(text('cost-per')).toBe('£10.00, £2.50 a litre.');
    expect(screen.getByRole('link', { name: '1050-T in the larder' }).getAttribute('href')).toBe(`/larder/${LOT}`);
    expect(screen.queryByRole('region', { name: 'Next step' })).toBeNull();
  });
});

describe('reducing to a mark', () => {
  const mark = (salt?: { grams: number; mostPerLitre: number }): BatchEventBody => ({
    kind: 'mark',
    vesselId: 'pan-24',
    burnerId: 'ring',
    targetMg: kilograms(0.9),
    ...(salt === undefined ? {} : { salt }),
  });
  const level = (litres: number): BatchEventBody => ({
    kind: 'level',
    levelMm: (litres * 1e6) / (Math.PI * 120 ** 2),
    massMg: kilograms(litres),
  });
  const minutes = (): number => Number(/\d+/.exec(text('minutes-left'))?.[0]);

  it('says the mark in centimetres of this pan, and learns from each reading how fast it boils away', async () => {
    await stove(
      batchOf('jus-reduced', kilograms(4), [
        [20, mark()],
        [19, level(4)],
      ]),
    );
    // 0.9 l in a pan of 24 cm: 900 / (pi 12^2) = 1.99 cm
    expect(text('mark')).toContain('2.0 cm in the 24 cm sauce pan, 0.90 l');
    const byBurner = minutes();
    cleanup();
    await stove(
      batchOf('jus-reduced', kilograms(4), [
        [20, mark()],
        [19, level(4)],
        [0, level(2.2)],
      ]),
    );
    expect(text('minutes-left')).toContain('2 readings');
    // 1.8 l in 19 minutes is half as fast again as the ring promised
    expect(minutes()).toBeLessThan(byBurner);
    expect(minutes()).toBeGreaterThan(8);
  });

  it('stops at the salt where it comes before the mark, and says how salty the mark would be', async () => {
    // 16 g in it, no more than 10 a litre: 1.6 litres, 3.54 cm
    await stove(
      batchOf('jus-reduced', kilograms(4), [
        [2, mark({ grams: 16, mostPerLitre: 10 })],
        [1, level(4)],
      ]),
    );
    expect(text('salt-stop')).toBe(
      'Stop at 3.5 cm, 1.60 l: below it is saltier than 10 g a litre. At the mark it would be 17.8.',
    );
    const toSalt = minutes();
    cleanup();
    await stove(
      batchOf('jus-reduced', kilograms(4), [
        [2, mark({ grams: 4, mostPerLitre: 10 })],
        [1, level(4)],
      ]),
    );
    expect(text('salt-stop')).toBe('4.4 g of salt a litre at the mark, no more than 10.');
    expect(toSalt).toBeLessThan(minutes());
  });

  it('is past it by now once the clock has gone on', async () => {
    await stove(
      batchOf('jus-reduced', kilograms(4), [
        [300, mark({ grams: 16, mostPerLitre: 10 })],
        [290, level(4)],
        [270, level(2.4)],
      ]),
    );
    expect(text('minutes-left')).toContain('As salty as it may get by now. Taste.');
  });

  it('keeps the salt as grams in the pan when the mark is set', async () => {
    await stove(batchOf('jus-reduced', kilograms(4), [[0, level(2)]]));
    type('Pan', 'pan-24');
    type('Burner', 'ring');
    type('Down to, litres', '1');
    type('Salt in it now, grams a litre', '4');
    type('No saltier than, grams a litre', '12');
    expect(screen.getByText(/2.0 l now: 12 g a litre at 0.67 l, 1.5 cm/)).toBeTruthy();
    touch('Set the mark');
    const { targetMg, salt } = await said('mark');
    expect(targetMg).toBe(kilograms(1));
    expect(salt?.grams).toBeCloseTo(8, 1);
    expect(salt?.mostPerLitre).toBe(12);
  });
});

describe('the core at the stove', () => {
  const probe = (C: number): BatchEventBody => ({ kind: 'probe', centiC: C * 100, source: 'probe' });

  it('foretells by the step that cooks it, not by the salting before', async () => {
    await stove(batchOf('confit', grams(405), [[1, probe(5)]], ['bag']));
    expect(text('come-up')).toMatch(/^\d+ (h|min).* in (78\.5|90) °C/);
  });

  it.each([
    ['bath', 64.5],
    ['poach', 77.5],
    ['steam', 92.5],
  ])('takes the heat of the way it is cooked: %s', async (way, C) => {
    await stove(batchOf('cooked-to-core', grams(600), [[1, probe(4)]], [way]));
    expect(text('come-up')).toContain(`in ${C} °C`);
    cleanup();
  });

  it('aims at the hottest printed pair that the bath can reach, and says how long that is held', async () => {
    await stove(batchOf('cooked-to-core', grams(600), [[1, probe(4)]], ['bath']));
    // the pairs of the limit are 60 °C for 45 min, 65 for 10, 70 for 2, ...: a bath of 64.5 reaches the first
    expect(text('come-up')).toContain('then 45 min at 60 °C');
    // a bath that reaches none of them is not called hot enough at what it reaches
    type('Heat at', '55');
    expect(text('come-up')).toMatch(/^never in 55 °C.*then 45 min at 60 °C/);
    // nor is one that stands at the heat of its bath
    cleanup();
    await stove(batchOf('cooked-to-core', grams(600), [[1, probe(55)]], ['bath']));
    type('Heat at', '55');
    expect(text('come-up')).toMatch(/^never in 55 °C/);
    type('Heat at', '70');
    expect(text('come-up')).toContain('then 10 min at 65 °C');
    type('Core to', '72');
    expect(text('come-up')).toMatch(/^never /);
  });

  it('is on its way while it is colder than the bath, and outside once it is hotter', async () => {
    const probed = async (C: number): Promise<string> => {
      const batch = batchOf(
        'cooked-to-core',
        grams(600),
        [
          [9, { kind: 'step', step: 0, skipped: false }],
          [8, { kind: 'step', step: 1, skipped: false }],
          [1, probe(C)],
        ],
        ['bath'],
      );
      await stove(batch);
      const words = screen.getByRole('region', { name: 'Probe' }).textContent ?? '';
      cleanup();
      return words;
    };
    expect(await probed(41)).toContain('41.0 °C, not at 54 °C yet');
    expect(await probed(62)).toContain('62.0 °C, as it should be');
    expect(await probed(81)).toContain('81.0 °C, wanted 54 to 75 °C');
  });

  it('is there when the last reading is', async () => {
    await stove(batchOf('confit', grams(405), [[1, probe(82)]]));
    expect(text('come-up')).toMatch(/^As hot as wanted by the last reading/);
  });

  it('counts the time between readings that were hot enough, against the printed pairs', async () => {
    await stove(
      batchOf('confit', grams(405), [
        [4, probe(71)],
        [1, probe(72)],
      ]),
    );
    expect(text('core')).toContain('Within the limit you selected: ');
  });

  it('has nothing to say of a stock, or of what is only cured', async () => {
    await stove(batchOf('fish-fumet', kilograms(5), [[1, probe(88)]]));
    expect(screen.queryByTestId('come-up')).toBeNull();
    cleanup();
    await stove(batchOf('salt-cure-fish', kilograms(1), [[1, probe(2)]]));
    expect(screen.queryByTestId('come-up')).toBeNull();
  });
});

describe('cooling', () => {
  const log = (readings: readonly (readonly [minutesAgo: number, C: number])[]): Cooling => ({
    id: BATCH,
    kind: 'cooling',
    state: 'open',
    lot: null,
    batchId: null,
    name: 'Stock in the pot',
    setup: {
      mediumId: 'cold-room-open',
      vesselName: '12 l pot',
      vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
      count: 1,
      litres: 8,
      airC: 3,
      setsAtC: null,
    },
    limit: (cooling ?? null) as Cooling['limit'],
    readings: readings.map(([minutesAgo, C], i) => ({
      id: `019a0000-0000-7000-8000-0000000002${String(i).padStart(2, '0')}`,
      at: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
      centiC: C * 100,
      source: 'probe' as const,
      by: me.person.name,
    })),
    verdict: 'open',
    outcome: null,
    by: me.person.name,
    startedAt: new Date(Date.now() - 60 * 60_000).toISOString(),
    closedAt: null,
  });

  it('begins only with a figure that someone read, and stands as a log of this device until the server has it', async () => {
    await open('/pots/cooling', '/pots/cooling');
    const begin = (): HTMLButtonElement => screen.getByRole('button', { name: /[Bb]egin the log/ });
    expect(begin().disabled).toBe(true);
    type('What', 'Brown stock');
    type('It is at', '88');
    expect(begin().textContent).toContain('Begin the log at 88.0 °C');
    fireEvent.click(begin());
    const article = await screen.findByRole('article', { name: 'Log of Brown stock' });
    expect(within(article).getByTestId('verdict').textContent).toBe('Still open');
    // what was read is used up: another log wants a reading of its own
    expect(begin().disabled).toBe(true);
    fireEvent.change(within(article).getByLabelText('Temperature of Brown stock as read'), { target: { value: '61' } });
    fireEvent.click(within(article).getByRole('button', { name: 'Write it down' }));
    await within(article).findByText(/as the handbook’s figure, by 1 reading/);
    expect(await kept()).toMatchObject([
      { endpoint: 'pots.startCooling' },
      { endpoint: 'pots.readCooling', params: { coolingId: (await kept())[0]?.about } },
    ]);
    expect((await kept())[0]?.body).toMatchObject({ name: 'Brown stock', centiC: 8_800, source: 'typed' });
  });

  it('is judged by what was read here too, before the server knows of it', async () => {
    await open('/pots/cooling', '/pots/cooling', { open: [log([[400, 84]])] });
    const article = screen.getByRole('article', { name: 'Log of Stock in the pot' });
    expect(within(article).getByTestId('verdict').textContent).toBe('Still open');
    fireEvent.change(within(article).getByLabelText(/^Temperature of/), { target: { value: '48' } });
    fireEvent.click(within(article).getByRole('button', { name: 'Write it down' }));
    await waitFor(() => expect(within(article).getByTestId('verdict').textContent).toBe('Not shown to be within'));
    // what the server would ask for stands there already
    expect(within(article).getByLabelText('What was done about it')).toBeTruthy();
  });

  it('refuses a reading that is none', async () => {
    await open('/pots/cooling', '/pots/cooling', { open: [log([[10, 84]])] });
    const article = screen.getByRole('article', { name: 'Log of Stock in the pot' });
    for (const nonsense of ['', 'warm', '12 bananas']) {
      fireEvent.change(within(article).getByLabelText(/^Temperature of/), { target: { value: nonsense } });
      expect(within(article).getByRole<HTMLButtonElement>('button', { name: 'Write it down' }).disabled).toBe(true);
    }
  });

  it('says at the head of every room how many logs are open', async () => {
    await open('/pots/cooling', '/pots/cooling', { open: [log([[10, 84]])] });
    expect(screen.getByRole('link', { name: 'Cooling 1 open' })).toBeTruthy();
  });
});

describe('what was boned out', () => {
  const bird: Boned = {
    lotId: LOT,
    code: '1016-X',
    name: 'Guinea fowl boned bird',
    pieces: 1,
    bonedMg: grams(939),
    bonesMg: grams(314),
    fleshOutMg: grams(49),
    low: 0.35,
    high: 0.5,
  };

  it('fills the sum with its own figures, and by hand again once one is typed over', async () => {
    await open('/pots/calculator', '/pots/calculator', { boned: [bird] });
    fireEvent.click(within(screen.getByRole('navigation', { name: 'Sums' })).getByRole('button', { name: 'Stuffing' }));
    type('Boned out, in the larder', LOT);
    // (314 / 1.15 + 49 / 1.05) ml, a twelfth less, shared with 5 % of swelling, at 1.02 g a millilitre
    expect(text('answer')).toBe('285 g');
    expect(screen.getByText(/314 g of bones, 49 g of flesh and fat. Cooks take 329 g to 470 g/)).toBeTruthy();
    type('With', 'grain');
    expect(text('answer')).toBe('260 g');
    type('Boned', '800');
    expect(screen.getByLabelText<HTMLSelectElement>('Boned out, in the larder').value).toBe('');
  });

  it('is one touch from being what is wanted of a stuffing', async () => {
    await open('/pots', '/pots?recipe=boned-bird-stuffing', { boned: [bird] });
    fireEvent.click(
      within(screen.getByRole('list', { name: 'To fill' })).getByRole('button', { name: /1016-X.*285 g/ }),
    );
    expect(screen.getByLabelText<HTMLInputElement>('Kilograms').value).toBe('0.285');
    // a fumet fills nothing
    cleanup();
    await open('/pots', '/pots?recipe=fish-fumet', { boned: [bird] });
    expect(screen.queryByRole('list', { name: 'To fill' })).toBeNull();
  });
});

describe('a recipe of the house’s own', () => {
  const section = (name: string | RegExp) => within(screen.getByRole('region', { name }));
  const wrong = (): string => screen.getByRole('alert').textContent ?? '';
  /** What was sent to be kept. */
  const saved = (): unknown[] => sent;
  const sent: unknown[] = [];
  beforeEach(() => {
    sent.length = 0;
    vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
      if (!url.endsWith('/recipes') || init.method !== 'POST') return Promise.reject(new TypeError('no network'));
      const body = JSON.parse(String(init.body)) as { recipe: Recipe };
      sent.push(body);
      const kept = { recipe: body.recipe, own: true, retired: false, changed: null, batches: [] };
      return Promise.resolve(new Response(JSON.stringify(kept)));
    });
  });

  it('is written from nothing: what lacks is said in words, what is bought brings its allergens, and all of it is sent', async () => {
    await open('/pots/recipes/:recipeId', '/pots/recipes/new', { draft: blankRecipe() });
    type('Name', 'Roast gravy');
    type('Called', 'bones');
    touch('Save as version 1');
    await screen.findByRole('alert');
    expect(wrong()).toContain('Nothing goes in yet');
    type('Look for kinds of pieces', 'lamb');
    fireEvent.click(section('What it is built on').getByLabelText('lamb bones'));
    // what goes in nothing is not offered
    type('Look for kinds of pieces', 'glands');
    expect(screen.getByText('No other kind is called so.')).toBeTruthy();
    type('Another ingredient', 'celery');
    touch('Add it');
    type('Another ingredient', 'Roux');
    fireEvent.keyDown(screen.getByLabelText('Another ingredient'), { key: 'Enter' });
    const ingredients = section('To a kilo of bones');
    expect(ingredients.getByText('celery', { selector: 'button[aria-expanded]' })).toBeTruthy();
    expect(wrong()).toContain('Nobody has said which allergens Roux has.');
    fireEvent.click(ingredients.getByRole('button', { name: 'wheat' }));
    const [, usual] = ingredients.getAllByLabelText('usual');
    fireEvent.change(usual as HTMLElement, { target: { value: '6 %' } });
    type('Step 1', 'Roast, wet, reduce.');
    type('What changed, and why', 'ours since the old chef left');
    expect(screen.queryByRole('alert')).toBeNull();
    touch('Save as version 1');
    await waitFor(() => expect(saved()).toHaveLength(1));
    const { recipe, from } = saved()[0] as { recipe: Recipe; from: number };
    expect(from).toBe(0);
    expect(recipe).toMatchObject({ id: 'roast-gravy', title: 'Roast gravy', accepts: ['lamb-bone'] });
    expect(recipe.ingredients).toMatchObject([
      { id: 'vegetables', name: 'celery', allergens: ['celery'] },
      { id: 'roux', name: 'Roux', perBase: 0.06, allergens: ['gluten/wheat'] },
    ]);
    expect(recipe.ingredients[1]).not.toHaveProperty('unsaid');
  });

  it('holds a kind to a share, asks a question of two ways, takes it down to a mark, and lets go of all three', async () => {
    await open('/pots/recipes/:recipeId', '/pots/recipes/fish-fumet');
    const ways = section('Where cooks disagree');
    const before = ways.getAllByLabelText('Question').length;
    touch('A question');
    expect(ways.getAllByLabelText('Question')).toHaveLength(before + 1);
    fireEvent.change(ways.getAllByLabelText('Question').at(-1) as HTMLElement, { target: { value: 'With vinegar?' } });
    touch('Save as version 2');
    await screen.findByRole('alert');
    expect(wrong()).toContain('A way has a name.');
    touch('Without the question With vinegar?');
    expect(ways.getAllByLabelText('Question')).toHaveLength(before);
    const gives = section('What it gives');
    const marks = gives.queryAllByLabelText('Taken down to').length;
    touch('A mark to take it down to');
    expect(gives.getAllByLabelText('Taken down to')).toHaveLength(marks + 1);
    expect(wrong()).toContain('A mark has a name.');
    fireEvent.change(gives.getAllByLabelText('Taken down to').at(-1) as HTMLElement, { target: { value: 'syrup' } });
    const [from] = gives.getAllByLabelText('from');
    fireEvent.change(from as HTMLElement, { target: { value: '1.05' } });
    expect(wrong()).toContain('What it gives: from, usually, to');
  });
});
