import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { allCategories, categoryRules, pieceRules, planById } from '@zabrik/catalogue';
import type { Breakdown, Me, ScaleReading, Weighing } from '@zabrik/contract';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { house, me } from '../../testing/kitchen.ts';

const ID = '019a0000-0000-7000-8000-000000000001';
interface Wanted {
  readonly ownTimes?: Breakdown['ownTimes'];
  /** How often this house has weighed a piece. */
  readonly records?: (pieceId: string) => number;
  readonly planId: string;
  readonly startG: number;
  readonly animals?: number;
  readonly way?: Breakdown['way'];
  readonly stage?: number;
  readonly role?: Me['person']['role'];
  readonly mustNotTouch?: readonly string[];
  readonly weighings?: readonly Weighing[];
  readonly startedMinutesAgo?: number;
}

const weighing = (n: number, pieceId: string, grams: number, minutesAgo = 0): Weighing => ({
  id: `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`,
  pieceId,
  destination: 'portion',
  massMg: grams * 1_000,
  source: 'scale',
  count: 1,
  animal: null,
  scale: 'bench',
  replaces: null,
  by: 'Ines Calloway',
  at: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
});

class FakeEvents extends EventTarget {
  static open: FakeEvents | undefined;
  constructor() {
    super();
    FakeEvents.open = this;
  }
  close(): void {}
}

let settled = 0;
/** What the scale shows from now on. */
const scale = (reading: Partial<ScaleReading>): void => {
  settled += 1;
  const data = JSON.stringify({
    scale: 'bench',
    state: 'steady',
    grossMg: 0,
    tareMg: 0,
    netMg: 0,
    settled,
    at: 0,
    ...reading,
  } satisfies ScaleReading);
  act(() => void FakeEvents.open?.dispatchEvent(new MessageEvent('scale', { data })));
};
const lies = (grams: number): void => scale({ netMg: grams * 1_000 });
const press = (key: string): void => void fireEvent.keyDown(document.body, { key });
const says = (): string => screen.getByTestId('says').textContent ?? '';
const balance = (): string => screen.getByTestId('balance').textContent ?? '';
const pieceButton = (name: RegExp): HTMLElement =>
  within(screen.getByRole('group', { name: 'Piece' })).getByRole('button', { name });

let stop: () => void = () => undefined;
/** Kinds of piece as the server tells them. */
const categories = allCategories.map((c) => ({
  ...c,
  refused: pieceRules(c.id).refused,
  usual: categoryRules.get(c.id)?.usual ?? null,
}));

/** The bench on its own: a plan of the catalogue, a scale the test holds, and no server: everything stays in the outbox. */
async function open(wanted: Wanted): Promise<void> {
  const plan = planById.get(wanted.planId);
  const stage = plan?.stages[wanted.stage ?? 0];
  if (plan === undefined || stage === undefined) throw new Error(wanted.planId);
  const at = new Date(Date.now() - (wanted.startedMinutesAgo ?? 0) * 60_000).toISOString();
  const breakdown: Breakdown = {
    id: ID,
    state: 'open',
    lotId: ID,
    lotCode: '1042-K',
    species: plan.starts[0]?.species ?? '',
    speciesName: 'Animal',
    form: plan.starts[0]?.forms[0] ?? '',
    formName: 'whole',
    supplierName: null,
    planId: plan.id,
    planTitle: plan.title,
    stageId: stage.id,
    stageName: stage.name,
    stageIndex: wanted.stage ?? 0,
    stageCount: plan.stages.length,
    rootId: ID,
    startShare: 1,
    animals: wanted.animals ?? 1,
    way: wanted.way ?? 'one-by-one',
    found: { cameWithout: {}, others: [] },
    startMg: wanted.startG * 1_000,
    startMinor: 2_000,
    weighedMg: 0,
    by: 'Ines Calloway',
    holder: 'Ines Calloway',
    startedAt: at,
    closedAt: null,
    plan,
    inputs: [{ lotId: ID, code: '1042-K', name: 'Animal', massMg: wanted.startG * 1_000 }],
    allergens: ['fish'],
    movementId: null,
    weighings: [...(wanted.weighings ?? [])],
    events: [],
    beliefs: stage.pieces.map((p) => ({
      pieceId: p.id,
      mean: p.share.mean,
      sd: p.share.sd,
      records: wanted.records?.(p.id) ?? 0,
      supplier: null,
      units: { squares: 0, df: 0 },
    })),
    drip: { mean: stage.drip.mean, sd: stage.drip.sd },
    ownTimes: [...(wanted.ownTimes ?? [])],
  };
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  client.setQueryData(['me'], {
    ...me,
    person: { ...me.person, role: wanted.role ?? 'sous-chef' },
    mustNotTouch: wanted.mustNotTouch ?? [],
  });
  client.setQueryData(['house'], house);
  client.setQueryData(['catalogue'], { categories });
  client.setQueryData(['breakdowns', 'one', ID], breakdown);
  const { default: Bench } = await import('./Bench.tsx');
  const { listen } = await import('../../app/live.ts');
  const { startOutbox } = await import('../../app/outbox.ts');
  await startOutbox();
  stop = listen(client);
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/bench/${ID}`]}>
        <Routes>
          <Route path="/bench/:breakdownId" element={<Bench />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByRole('tab', { name: /^Steps/ });
  scale({});
}

beforeEach(() => {
  vi.resetModules();
  localStorage.clear();
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('EventSource', FakeEvents);
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
});
afterEach(() => {
  stop();
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('weights of practice', () => {
  const practised = { ...weighing(9, 'head', 500), scale: 'practice' };

  it('are marked, keep the stage from being closed, and leave the animal to be put back', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 2_400, weighings: [practised] });
    press('w');
    expect(await screen.findByText(/^practice ·/)).toBeTruthy();
    press('c');
    expect(says()).toContain('from the practice scale');
    expect(screen.getByRole('button', { name: 'Put it back' })).toBeTruthy();
  });

  it('stay marked on another tray and joined to a real one, whichever scale the tablet looks at by then', async () => {
    const { waitingNow } = await import('../../app/outbox.ts');
    await open({
      planId: 'round-fish-two-fillets',
      startG: 2_400,
      weighings: [
        { ...weighing(9, 'frame', 300), destination: 'stock', scale: 'practice' },
        { ...weighing(10, 'frame', 200), destination: 'stock', count: 0 },
      ],
    });
    press('w');
    const row = (name: RegExp): HTMLElement => within(screen.getByRole('tabpanel')).getByRole('button', { name });
    await waitFor(() => row(/300 g/));
    fireEvent.click(row(/300 g/));
    press('7');
    await waitFor(() => expect(waitingNow()).toHaveLength(1));
    expect(waitingNow()[0]?.body).toMatchObject({ destination: 'larder', massMg: 300_000, scale: 'practice' });
    press('u');
    await waitFor(() => expect(waitingNow()).toHaveLength(2));
    expect(waitingNow()[1]?.body).toMatchObject({ destination: 'stock', scale: 'practice' });
    fireEvent.click(row(/300 g/));
    fireEvent.click(screen.getByRole('button', { name: /^Join/ }));
    await waitFor(() => expect(waitingNow()).toHaveLength(3));
    expect(waitingNow()[2]?.body).toMatchObject({ massMg: 500_000, scale: 'practice' });
  });

  it('beside a real one: neither closed nor put back', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 2_400, weighings: [practised, weighing(10, 'frame', 400)] });
    expect(screen.queryByRole('button', { name: 'Put it back' })).toBeNull();
    press('c');
    expect(says()).toContain('from the practice scale');
  });
});

it('somebody who must not touch what lies there is told at the bench, whoever began it', async () => {
  await open({ planId: 'round-fish-two-fillets', startG: 2_400, mustNotTouch: ['fish', 'milk'] });
  expect(screen.getByText(/Ines Calloway must not touch fish: this has it/)).toBeTruthy();
});

describe('taking weights', () => {
  it('takes what lies steady, once, to the tray the plan names, and says what is left', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    press(' ');
    expect(says()).toBe('Nothing on the pan.');
    scale({ state: 'moving', netMg: 60_000 });
    press(' ');
    expect(says()).toContain('Still moving');
    lies(88);
    press(' ');
    expect(says()).toContain('88 g to ');
    expect(balance()).toContain('Weighed 88 g of 1,000 g');
    press(' ');
    expect(says()).toContain('already taken');
    expect(balance()).toContain('Weighed 88 g of 1,000 g');
    press('u');
    expect(balance()).toContain('Weighed 0 g');
    press('u');
    expect(says()).toContain('There is nothing to undo.');
  });

  it('undo of a weight put right sets the first one back; a second undo takes it', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    lies(60);
    press(' ');
    expect(balance()).toContain('Weighed 60 g');
    press('w');
    fireEvent.click(within(screen.getByRole('tabpanel')).getAllByRole('button')[0] as HTMLElement);
    lies(0);
    lies(55);
    press(' ');
    expect(balance()).toContain('Weighed 55 g');
    press('u');
    expect(says()).toContain('60 g again');
    expect(balance()).toContain('Weighed 60 g');
    press('u');
    expect(balance()).toContain('Weighed 0 g');
  });

  it('a weight put right to more than the whole fish is asked about once', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_836 });
    lies(60);
    press(' ');
    press('w');
    fireEvent.click(within(screen.getByRole('tabpanel')).getAllByRole('button')[0] as HTMLElement);
    press('m');
    const field = screen.getByLabelText('Weight, typed');
    fireEvent.change(field, { target: { value: '4330' } });
    fireEvent.submit(field);
    expect(says()).toMatch(/4,330 g is more than the 1,836 g that is left.*Press again/);
    expect(balance()).toContain('Weighed 60 g');
  });

  it('a piece on two trays is one piece: what is split off counts as none', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    lies(60);
    press(' ');
    press('w');
    fireEvent.click(within(screen.getByRole('tabpanel')).getAllByRole('button')[0] as HTMLElement);
    fireEvent.click(screen.getByRole('button', { name: 'Split' }));
    fireEvent.change(screen.getByLabelText('Grams to split off'), { target: { value: '20' } });
    fireEvent.submit(screen.getByLabelText('Grams to split off'));
    await waitFor(() => expect(screen.getByRole('tabpanel').textContent).toContain('more of it'));
    expect(balance()).toContain('Weighed 60 g');
  });

  it('a skipped step looks skipped, and can be done late', async () => {
    await open({ planId: 'duck-whole', startG: 2_400 });
    fireEvent.click(pieceButton(/^breast/));
    expect(screen.getByRole('alert', { name: 'Before this piece' }).textContent).toContain('Giblets still in');
    press('k');
    press('k');
    press('k');
    expect(screen.queryByRole('alert', { name: 'Before this piece' })).toBeNull();
    const wishbone = screen.getByRole('button', { name: /Wishbone out/ });
    expect(within(wishbone).getByLabelText('skipped')).toBeTruthy();
    expect(within(wishbone).queryByLabelText('done')).toBeNull();
    fireEvent.click(wishbone);
    fireEvent.click(screen.getByRole('button', { name: 'Done late' }));
    expect(screen.getByText('(done late)')).toBeTruthy();
    expect(within(screen.getByRole('button', { name: /Wishbone out/ })).getByLabelText('done')).toBeTruthy();
  });

  it('a step that is behind is gone back to, until the next weight', async () => {
    await open({ planId: 'duck-whole', startG: 2_400 });
    press('k');
    for (const g of [30, 31, 32, 120, 200, 15]) {
      lies(0);
      lies(g);
      press(' ');
      if (screen.queryByRole('button', { name: /^Count it all the same/ }) !== null) press(' ');
    }
    const now = (): string => document.querySelector('[aria-current="step"]')?.textContent ?? '';
    const before = now();
    fireEvent.click(screen.getByRole('button', { name: /Take out giblets/ }));
    expect(now()).toContain('Take out giblets');
    lies(0);
    lies(12);
    press(' ');
    if (screen.queryByRole('button', { name: /^Count it all the same/ }) !== null) press(' ');
    expect(now()).not.toContain('Take out giblets');
    expect(before).not.toBe('');
  });

  it('says plainly what is wrong with the scale', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    for (const [state, words] of [
      ['over', 'Too heavy for this scale'],
      ['under', 'Below zero'],
      ['away', 'The scale does not answer'],
    ] as const) {
      scale({ state, netMg: 40_000 });
      press(' ');
      expect(says()).toContain(words);
    }
    expect(screen.getByLabelText('Weight, typed')).toBeTruthy(); // without a scale it asks for the figure
    expect(balance()).toContain('Weighed 0 g');
  });

  it('refuses a tray with the reason, and takes to another', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    fireEvent.click(pieceButton(/^scales/));
    const refused = screen.getAllByRole('button', { name: /Not this piece/ });
    expect(refused.length).toBeGreaterThan(0);
    for (const tray of refused) expect((tray as HTMLButtonElement).disabled).toBe(true);
    const key = refused[0]?.getAttribute('aria-keyshortcuts') ?? '';
    press(key);
    expect(says()).toMatch(/^Not to .+: .+\.$/);
  });

  it('a typed weight is marked as typed; words and zero are no weight', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    press('m');
    const field = screen.getByLabelText('Weight, typed');
    fireEvent.change(field, { target: { value: 'a lot' } });
    const take = screen.getByRole('button', { name: /^Take/ }) as HTMLButtonElement;
    expect(take.disabled).toBe(true);
    fireEvent.change(field, { target: { value: '0,412 kg' } });
    expect(take.textContent).toContain('412 g');
    // four hundred grams of that are asked about once, and counted when they are meant
    fireEvent.submit(field);
    expect(balance()).toContain('Weighed 0 g');
    expect(
      screen.getByText(/times what .* weighs at the most\. Is it something else on the pan\? Press again/),
    ).toBeTruthy();
    fireEvent.submit(field);
    expect(balance()).toContain('Weighed 412 g');
    press('w');
    expect(screen.getByRole('tabpanel').textContent).toContain('typed');
  });

  it('what was asked about a load is asked no more once it is lifted off: the next one is taken as usual', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    const take = () => screen.getByRole('button', { name: /Take weight|Count it all the same/ });
    press('g');
    lies(900);
    press(' ');
    expect(balance()).toContain('Weighed 0 g');
    expect(take().textContent).toContain('Count it all the same');
    scale({ netMg: 0 });
    lies(14);
    expect(take().textContent).toContain('Take weight');
  });

  it('by itself only when asked, after a second, never twice, and aloud when the house wants to hear it', async () => {
    const spoken: string[] = [];
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        readonly text: string;
        constructor(text: string) {
          this.text = text;
        }
      },
    );
    vi.stubGlobal('speechSynthesis', { cancel: vi.fn(), speak: (u: { text: string }) => void spoken.push(u.text) });
    await open({ planId: 'flatfish-four-fillets', startG: 1_000 });
    press('o');
    fireEvent.click(await screen.findByRole('switch', { name: /aloud/i }));
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    press('a');
    while (screen.queryByRole('alert', { name: 'Before this piece' }) !== null) press('g');
    lies(150);
    act(() => vi.advanceTimersByTime(900));
    expect(balance()).toContain('Weighed 0 g');
    act(() => vi.advanceTimersByTime(200));
    expect(balance()).toContain('Weighed 150 g');
    act(() => vi.advanceTimersByTime(5_000));
    expect(balance()).toContain('Weighed 150 g');
    expect(spoken).toHaveLength(1);
    expect(spoken[0]).toContain('150 g');
    lies(3); // a crumb
    act(() => vi.advanceTimersByTime(5_000));
    expect(balance()).toContain('Weighed 150 g');
  });

  it('nobody takes while it is wiped, and a viewer never', async () => {
    await open({ planId: 'round-fish-two-fillets', startG: 1_000 });
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    press('l');
    lies(90);
    press(' ');
    expect(balance()).toContain('Weighed 0 g');
    act(() => vi.advanceTimersByTime(3_100));
    press(' ');
    expect(balance()).toContain('Weighed 90 g');
    cleanup();
    stop();
    vi.useRealTimers();
    vi.resetModules();
    await open({ planId: 'round-fish-two-fillets', startG: 1_000, role: 'viewer' });
    const before = balance();
    lies(70);
    press(' ');
    expect(balance()).toBe(before);
    expect((screen.getByRole('button', { name: /Take weight/ }) as HTMLButtonElement).disabled).toBe(true);
    // nor does he say what it came without, or join anything to it
    fireEvent.mouseDown(screen.getByRole('tab', { name: 'Tools' }), { button: 0 });
    await screen.findByRole('region', { name: 'Hands busy' });
    expect(screen.queryByRole('region', { name: 'Not as the plan has it' })).toBeNull();
    expect(screen.queryByRole('region', { name: 'Joined to a piece' })).toBeNull();
  });
});

describe('the order of work', () => {
  it('warns before the harm; skipped with one key, noted, and the next warning follows', async () => {
    await open({ planId: 'duck-whole', startG: 2_600 });
    fireEvent.click(pieceButton(/^breasts/));
    const warning = (): string =>
      screen.queryByRole('alert', { name: 'Before this piece' })?.textContent?.replace(/DoneSkip.*/, '') ?? '';
    const seen = new Set<string>();
    for (let i = 0; warning() !== '' && i < 9; i += 1) {
      expect(seen.has(warning())).toBe(false);
      seen.add(warning());
      press(i === 0 ? 'k' : 'g');
    }
    expect(seen.size).toBeGreaterThan(1);
    fireEvent.change(screen.getByLabelText('Why it was skipped'), { target: { value: 'bone wanted' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(says()).toContain('bone wanted');
    lies(400);
    press(' ');
    expect(balance()).toContain('Weighed 400 g');
  });

  it('stops the clock and lets it go on', async () => {
    await open({ planId: 'duck-whole', startG: 2_600, startedMinutesAgo: 12 });
    expect(screen.getByTestId('clock').textContent).toContain('12 min');
    press('h');
    expect(screen.getByTestId('clock').textContent).toContain('paused');
    press('h');
    expect(screen.getByTestId('clock').textContent).not.toContain('paused');
  });
});

describe('several at once', () => {
  it('by kind: one weight is all of them, and fewer can be said', async () => {
    await open({ planId: 'small-game-bird-breasts', startG: 5_000, animals: 10, way: 'pooled' });
    fireEvent.click(pieceButton(/^breasts/));
    expect(screen.getByTestId('count').textContent).toBe('20');
    press('-');
    press('-');
    expect(screen.getByTestId('count').textContent).toBe('18');
    lies(1_100);
    press(' ');
    expect(pieceButton(/^breasts/).textContent).toContain('19/20');
  });

  it('animal by animal: the next one can be begun although this one lacks a piece', async () => {
    await open({ planId: 'small-game-bird-breasts', startG: 5_000, animals: 10, way: 'by-animal' });
    expect(screen.getByTestId('now').textContent).toContain('of 10');
    fireEvent.click(screen.getByRole('button', { name: /Next animal/ }));
    expect(says()).toBe('No. 2 of 10.');
    press('n');
    expect(says()).toBe('No. 3 of 10.');
  });
});

describe('what is not as the plan has it', () => {
  const tools = async (): Promise<void> => {
    press('o');
    await screen.findByRole('region', { name: 'Not as the plan has it' });
  };
  const section = () => within(screen.getByRole('region', { name: 'Not as the plan has it' }));

  it('came without a piece: it is gone from the list, the others are expected heavier, and it comes back', async () => {
    await open({ planId: 'tail-two-loins', startG: 1_000 });
    const before = pieceButton(/^cartilage/).textContent ?? '';
    await tools();
    fireEvent.click(section().getByRole('button', { name: 'Came without skin' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: /^skin/ })).toBeNull());
    expect(says()).toBe('It came without skin.');
    const grams = (text: string): number => Number(/([\d,]+) g/.exec(text)?.[1]?.replace(',', ''));
    expect(grams(pieceButton(/^cartilage/).textContent ?? '')).toBeGreaterThan(grams(before));
    // 66 of 91.5 parts: what the ribbon expects of the main cut follows
    expect(screen.getByText(/loins: usually/).textContent).toMatch(/usually 67 % to 77 %/);
    fireEvent.click(section().getByRole('button', { name: 'It is here' }));
    await waitFor(() => expect(pieceButton(/^skin/)).toBeTruthy());
    expect(pieceButton(/^cartilage/).textContent).toBe(before);
  });

  it('what is joined to a piece: asked how much and with which allergens, weighed with it, and taken back', async () => {
    await open({ planId: 'tail-two-loins', startG: 1_000 });
    const grams = (text: string): number => Number(/([\d,]+) g/.exec(text)?.[1]?.replace(',', ''));
    fireEvent.click(pieceButton(/^loins/));
    const before = grams(pieceButton(/^loins/).textContent ?? '');
    await tools();
    const joined = within(screen.getByRole('region', { name: 'Joined to a piece' }));
    const join = () => fireEvent.click(joined.getByRole('button', { name: 'Join it' }));
    const what = joined.getByLabelText('What is joined, by name or lot');
    join();
    await waitFor(() => expect(says()).toBe('Say what is joined to it.'));
    fireEvent.change(what, { target: { value: 'lemon crust' } });
    join();
    await waitFor(() => expect(says()).toBe('Say how much lemon crust it is: 40 g, 1.5 oz.'));
    fireEvent.change(joined.getByLabelText('How much'), { target: { value: 'a lot' } });
    join();
    await waitFor(() => expect(says()).toBe('Say how much lemon crust it is: 40 g, 1.5 oz.'));
    lies(60);
    fireEvent.click(joined.getByRole('button', { name: 'From the pan' }));
    join();
    await waitFor(() => expect(says()).toContain('Say the allergens of lemon crust, or that it has none.'));
    lies(0);
    expect(balance()).toContain('of 1,000 g');
    fireEvent.click(joined.getByRole('button', { name: 'wheat' }));
    join();
    await waitFor(() => expect(balance()).toContain('of 1,060 g, 60 g of it joined'));
    expect(says()).toBe('60 g of lemon crust joined to loins: weigh them together.');
    expect(joined.getByText(/of lemon crust to loins/).textContent).toContain('wheat');
    // two loins, half of it in each
    expect(grams(pieceButton(/^loins/).textContent ?? '')).toBeGreaterThan(before);
    fireEvent.click(joined.getByRole('button', { name: 'Take it back' }));
    await waitFor(() => expect(balance()).toContain('of 1,000 g'));
    expect(grams(pieceButton(/^loins/).textContent ?? '')).toBe(before);
  });

  it('what is joined is found among the lots by its name: not what is frozen, and not more than is there', async () => {
    const lots = [
      {
        id: ID.replace(/1$/, '2'),
        code: '1050-L',
        name: 'Pork belly, smoked',
        // 300 g of it belong to another piece already
        massMg: 500_000,
        freeMg: 200_000,
        held: null,
        state: 'chilled',
      },
      {
        id: ID.replace(/1$/, '3'),
        code: '1051-M',
        name: 'Pork belly',
        massMg: 900_000,
        freeMg: 900_000,
        held: null,
        state: 'frozen',
      },
    ];
    await open({ planId: 'tail-two-loins', startG: 1_000 });
    fireEvent.click(pieceButton(/^loins/));
    await tools();
    vi.stubGlobal('fetch', (url: string) =>
      url.includes('/lots?search=pork')
        ? Promise.resolve(Response.json({ lots, next: null }))
        : Promise.reject(new TypeError('no network')),
    );
    const joined = within(screen.getByRole('region', { name: 'Joined to a piece' }));
    const join = () => fireEvent.click(joined.getByRole('button', { name: 'Join it' }));
    const what = () => joined.getByLabelText<HTMLInputElement>('What is joined, by name or lot');
    fireEvent.change(what(), { target: { value: 'pork' } });
    const smoked = await joined.findByRole('button', { name: /smoked.*200 g there/ });
    expect(joined.queryByRole('button', { name: /1051-M/ })).toBeNull();
    // nobody has said yet whether it is one of these
    expect(joined.queryByText(/allergens not said/)).toBeNull();
    fireEvent.change(joined.getByLabelText('How much'), { target: { value: '250 g' } });
    join();
    await waitFor(() => expect(says()).toBe('Say which of these lots pork is of, or that it is bought in.'));
    fireEvent.click(joined.getByRole('button', { name: 'None of these: bought in' }));
    expect(joined.getByText(/allergens not said/)).toBeTruthy();
    fireEvent.click(smoked);
    expect(what().value).toBe('1050-L Pork belly, smoked');
    join();
    await waitFor(() => expect(says()).toBe('Lot 1050-L has 200 g left.'));
    fireEvent.change(joined.getByLabelText('How much'), { target: { value: '40 g' } });
    join();
    await waitFor(() => expect(balance()).toContain('of 1,040 g, 40 g of it joined'));
    expect(joined.getByText(/of Pork belly, smoked to loins/)).toBeTruthy();
    expect(what().value).toBe('');
  });

  it('one claw of two: one is asked for, and one weight is all of it', async () => {
    await open({ planId: 'crab-picked', startG: 850, stage: 1 });
    fireEvent.click(pieceButton(/^claws/));
    await tools();
    fireEvent.click(section().getByRole('button', { name: 'One of 2 less' }));
    await waitFor(() => expect(section().getByText(/came without 1 of 2/)).toBeTruthy());
    lies(100);
    press(' ');
    await waitFor(() => expect(pieceButton(/^claws/).textContent).toContain('✓'));
    expect(section().queryByRole('button', { name: /^Came without claws/ })).toBeNull();
  });

  it('another piece is named, picked at once, weighed without a question of how heavy it usually is, and not asked for again', async () => {
    await open({ planId: 'tail-two-loins', startG: 1_000 });
    await tools();
    fireEvent.click(section().getByRole('button', { name: 'Add the piece' }));
    await waitFor(() => expect(says()).toBe('Another piece has a name: say what it is.'));
    fireEvent.change(section().getByLabelText('Another piece'), { target: { value: 'hook and line' } });
    fireEvent.change(section().getByLabelText('What kind of piece it is'), { target: { value: 'fish-membrane' } });
    // what such a piece never goes to is not offered
    expect(
      within(section().getByLabelText('Its tray'))
        .getAllByRole('option')
        .map((o) => o.textContent),
    ).toEqual(['Waste']);
    fireEvent.click(section().getByRole('button', { name: 'Add the piece' }));
    await waitFor(() => expect(pieceButton(/^hook and line/).getAttribute('aria-pressed')).toBe('true'));
    lies(40);
    press(' ');
    await waitFor(() => expect(pieceButton(/^hook and line/).textContent).toContain('40 g ✓'));
    expect(pieceButton(/^skin/).getAttribute('aria-pressed')).toBe('true');
  });
});

describe('what is not in every animal', () => {
  it('is not asked for and not said to be missing, and is asked where this house finds it in most', async () => {
    await open({ planId: 'flatfish-four-fillets', startG: 900 });
    const roe = pieceButton(/^roe/);
    for (let i = 0; i < 30 && !(screen.queryByText(/Every piece of this plan is weighed/) !== null); i += 1) {
      if (screen.queryByRole('alert', { name: 'Before this piece' }) !== null) press('g');
      lies(0);
      lies(20 + i);
      press(' ');
      if (screen.queryByRole('button', { name: /^Count it all the same/ }) !== null) press(' ');
      expect(roe.getAttribute('aria-pressed')).toBe('false');
    }
    expect(says()).toMatch(/Every piece of this plan is weighed/);
    expect(roe.textContent).not.toContain('✓');
    cleanup();
    await open({ planId: 'flatfish-four-fillets', startG: 900, records: (id) => (id === 'roe' ? 6 : 10) });
    for (let i = 0; i < 40 && pieceButton(/^roe/).getAttribute('aria-pressed') === 'false'; i += 1) {
      if (screen.queryByRole('alert', { name: 'Before this piece' }) !== null) press('g');
      lies(0);
      lies(20 + i);
      press(' ');
      if (screen.queryByRole('button', { name: /^Count it all the same/ }) !== null) press(' ');
    }
    expect(pieceButton(/^roe/).getAttribute('aria-pressed')).toBe('true');
  });
});

describe('what a step needs beside hands', () => {
  it('takes what an animal of this size takes: of 1,200 g 15 minutes, and says for which size', async () => {
    await open({ planId: 'crab-picked', startG: 1_200 });
    fireEvent.click(screen.getByText(/^Boil in salted water/));
    expect(screen.getByRole('button', { name: 'Timer, 15 min' })).toBeTruthy();
    expect(screen.getByText('15 min to 18 min, 1,200 g each')).toBeTruthy();
  });

  it('is set to what this house took, and where it cooks never to less than the book', async () => {
    const boil = planById.get('crab-picked')?.stages[0]?.steps.findIndex((s) => s.bySize !== undefined) ?? -1;
    await open({ planId: 'crab-picked', startG: 900, ownTimes: [{ step: boil, minutes: 13, batches: 3 }] });
    fireEvent.click(screen.getByText(/^Boil in salted water/));
    expect(screen.getByRole('button', { name: 'Timer, 13 min' })).toBeTruthy();
    expect(screen.getByText(/yours 13 min, the middle of 3/)).toBeTruthy();
    cleanup();
    await open({ planId: 'crab-picked', startG: 900, ownTimes: [{ step: boil, minutes: 8, batches: 3 }] });
    fireEvent.click(screen.getByText(/^Boil in salted water/));
    expect(screen.getByRole('button', { name: 'Timer, 12 min' })).toBeTruthy();
  });

  it('a timer is set for longer than the book says, before it runs', async () => {
    await open({ planId: 'crab-picked', startG: 900 });
    fireEvent.click(screen.getByText(/^Boil in salted water/));
    fireEvent.click(screen.getByRole('button', { name: '1 min more' }));
    fireEvent.click(screen.getByRole('button', { name: '1 min more' }));
    fireEvent.click(screen.getByRole('button', { name: 'Timer, 14 min' }));
    await waitFor(() => expect(screen.getByTestId('bench-timer').textContent).toMatch(/^1[34]:\d\d$/));
  });

  it('a timer of a step is set, counts down, and stops when the step is done; a measure stands in large figures', async () => {
    await open({ planId: 'crab-picked', startG: 900 });
    fireEvent.click(screen.getByText(/^Boil in salted water/));
    fireEvent.click(screen.getByRole('button', { name: 'Timer, 12 min' }));
    await waitFor(() => expect(screen.getByTestId('bench-timer').textContent).toMatch(/^1[12]:\d\d$/));
    expect(says()).toBe('Timer: Boil in salted water, by size.');
    // a large one: two minutes more, and one back
    const left = (): number => Number((screen.getByTestId('bench-timer').textContent ?? '').split(':')[0]);
    fireEvent.click(screen.getByRole('button', { name: '1 min more' }));
    await waitFor(() => expect(left()).toBeGreaterThanOrEqual(12));
    fireEvent.click(screen.getByRole('button', { name: '1 min more' }));
    await waitFor(() => expect(left()).toBeGreaterThanOrEqual(13));
    expect(says()).toBe('Timer moved: Boil in salted water, by size.');
    fireEvent.click(screen.getByRole('button', { name: '1 min less' }));
    await waitFor(() => expect(left()).toBeLessThanOrEqual(13));
    expect(screen.getAllByTestId('bench-timer')).toHaveLength(1);
    fireEvent.click(screen.getByRole('button', { name: 'Done' }));
    await waitFor(() => expect(screen.queryByTestId('bench-timer')).toBeNull());
    cleanup();
    await open({ planId: 'waterfowl-breast-trimmed', startG: 260 });
    fireEvent.click(screen.getByText(/^Score the skin/));
    expect(screen.getByText('4 to 6 mm')).toBeTruthy();
  });
});

describe('picking', () => {
  const picked = [weighing(1, 'white', 40, 18), weighing(2, 'white', 35, 12), weighing(3, 'white', 25, 4)];
  it('says how much a minute, and what the next ten are worth against the work', async () => {
    await open({ planId: 'crab-picked', startG: 1_400, stage: 2, startedMinutesAgo: 20, weighings: picked });
    fireEvent.click(pieceButton(/^white meat/));
    const shown = screen.getByRole('region', { name: 'Picking' }).textContent ?? '';
    expect(shown).toContain('100 g');
    expect(shown).toContain('5.0 g a minute'); // 100 g in 20 minutes
    expect(shown).toContain('3 weights');
    expect(shown).toContain('work £2.73'); // 16.38 an hour
  });

  it('is not closed before its passes are counted', async () => {
    await open({ planId: 'crab-picked', startG: 110, stage: 2, startedMinutesAgo: 20, weighings: picked });
    press('c');
    expect(screen.getByText('0 of 3 passes counted.')).toBeTruthy();
    press('Escape');
    expect(screen.queryByText('0 of 3 passes counted.')).toBeNull();
  });
});

describe('putting right', () => {
  const two = { planId: 'round-fish-two-fillets', startG: 1_000 } as const;
  it('splits a weight between trays and joins it again; the balance never changes', async () => {
    await open(two);
    fireEvent.click(pieceButton(/^fillet/));
    lies(400);
    press(' ');
    press('w');
    fireEvent.click(within(screen.getByRole('tabpanel')).getByRole('button', { name: /fillet/ }));
    fireEvent.click(screen.getByRole('button', { name: 'Split' }));
    fireEvent.change(screen.getByLabelText('Grams to split off'), { target: { value: '500' } });
    fireEvent.click(screen.getByRole('button', { name: /^Staff meal/ }));
    expect(says()).toContain('less than all of it');
    fireEvent.change(screen.getByLabelText('Grams to split off'), { target: { value: '150' } });
    fireEvent.click(screen.getByRole('button', { name: /^Staff meal/ }));
    await screen.findByRole('button', { name: /^Staff meal, 150 g/ });
    expect(screen.getByRole('button', { name: /^Portions, 250 g/ })).toBeTruthy();
    expect(balance()).toContain('Weighed 400 g');
    // one command: it cannot arrive by half
    const { waitingNow } = await import('../../app/outbox.ts');
    expect(waitingNow().map((w) => w.body)).toMatchObject([
      { massMg: 400_000 },
      { massMg: 250_000, also: { kind: 'take', destination: 'staff', massMg: 150_000 } },
    ]);
  });

  it('asks why when the stage does not add up, and names what was likely not weighed', async () => {
    await open(two);
    lies(88);
    press(' ');
    press('c');
    const bar = screen.getByRole('region', { name: 'The balance does not hold' });
    expect(bar.textContent).toContain('912 g is not accounted for.');
    const close = within(bar).getByRole('button', { name: 'Close all the same' }) as HTMLButtonElement;
    expect(close.disabled).toBe(true);
    fireEvent.click(within(bar).getByRole('button', { name: 'Meat was dropped' }));
    expect(close.disabled).toBe(false);
    fireEvent.click(within(bar).getByRole('button', { name: 'Weigh on' }));
    expect(screen.queryByRole('region', { name: 'The balance does not hold' })).toBeNull();
  });

  it('a gain may be what was joined: one touch leads to where that is said', async () => {
    await open(two);
    lies(1_200);
    press(' ');
    press(' ');
    press('c');
    const bar = screen.getByRole('region', { name: 'The balance does not hold' });
    expect(bar.textContent).toContain('more than the animal did');
    fireEvent.click(within(bar).getByRole('button', { name: 'Something was joined' }));
    expect(await screen.findByLabelText('What is joined, by name or lot')).toBeTruthy();
    expect(screen.queryByRole('region', { name: 'The balance does not hold' })).toBeNull();
  });

  it('passes that were made and not counted one by one are said at the close', async () => {
    await open({ planId: 'crab-picked', stage: 2, startG: 100 });
    for (const [piece, g] of [
      [/^shell and/, 60],
      [/^white meat/, 36],
    ] as const) {
      fireEvent.click(pieceButton(piece));
      lies(0);
      lies(g);
      press(' ');
      if (screen.queryByRole('button', { name: /^Count it all the same/ }) !== null) press(' ');
    }
    await waitFor(() => expect(balance()).toContain('Weighed 96 g'));
    await waitFor(() => {
      if (screen.queryByRole('button', { name: 'All passes were made' }) === null) press('c');
      expect(screen.getByRole('button', { name: 'All passes were made' })).toBeTruthy();
    });
    fireEvent.click(screen.getByRole('button', { name: 'All passes were made' }));
    const { waitingNow } = await import('../../app/outbox.ts');
    await waitFor(() =>
      expect(
        waitingNow().filter((w) => (w.body as { readonly kind?: string } | undefined)?.kind === 'pass'),
      ).toHaveLength(3),
    );
    await waitFor(() => expect(waitingNow().some((w) => w.endpoint === 'bench.close')).toBe(true));
  });

  it('shows what the server refused until someone sends it again or lets it go: one touch loses nothing', async () => {
    vi.stubGlobal('fetch', () =>
      Promise.resolve(
        new Response(JSON.stringify({ code: 'stage_closed', title: 'This stage is closed.', status: 409 }), {
          status: 409,
        }),
      ),
    );
    await open(two);
    lies(88);
    press(' ');
    expect(await screen.findByText(/This stage is closed/)).toBeTruthy();
    expect(balance()).toContain('Weighed 0 g');
    expect(screen.getByRole('link', { name: 'Send it again, or let it go' }).getAttribute('href')).toBe('/waiting');
    const { dismiss, waitingNow } = await import('../../app/outbox.ts');
    await dismiss(waitingNow()[0]?.key ?? '');
    await waitFor(() => expect(screen.queryByText(/This stage is closed/)).toBeNull());
  });
});

describe('the drawing', () => {
  it('lights what is weighed and chooses what is touched', async () => {
    await open({ planId: 'duck-whole', startG: 2_600 });
    const drawing = screen.getByRole('img', { name: 'Drawing of the cuts, 0 weighed' });
    const areas = [...drawing.querySelectorAll('g.cursor-pointer')];
    expect(areas.length).toBeGreaterThan(4);
    const pressed = () => within(screen.getByRole('group', { name: 'Piece' })).getByRole('button', { pressed: true });
    const chosen = new Set(
      areas.map((area) => {
        fireEvent.click(area);
        return pressed().textContent;
      }),
    );
    expect(chosen.size).toBeGreaterThan(4);
    while (screen.queryByRole('alert', { name: 'Before this piece' }) !== null) press('g');
    lies(120);
    press(' ');
    await screen.findByRole('img', { name: 'Drawing of the cuts, 1 weighed' });
  });
});
