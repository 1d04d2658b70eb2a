/** The pots' screens on their own, for tests: no server, everything said stays in the outbox of this device. */
import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { allCategories, allGoods, limitProfiles, recipeById } from '@zabrik/catalogue';
import type { Boned, Cooling, House, ListedPlate, Lot, Me, WholeBatch } from '@zabrik/contract';
import { type BatchEventBody, grams, type Recipe, waysOf, withWays } from '@zabrik/core';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, vi } from 'vitest';
import { lotOf, me, house as usual } from './kitchen.ts';

export const BATCH = '019a0000-0000-7000-8000-000000000001';
export const LOT = '019a0000-0000-7000-8000-000000000002';
export const house: House = {
  ...usual,
  vessels: [
    {
      id: 'pan-24',
      name: '24 cm sauce pan',
      litres: 5,
      kind: 'pan',
      shape: { kind: 'round', diameterMm: 240, heightMm: 110 },
    },
    { id: 'pot-12', name: '12 l pot', litres: 12, shape: { kind: 'round', diameterMm: 260, heightMm: 230 } },
  ],
  burners: [{ id: 'ring', name: 'Small gas ring', watts: 3_500, efficiency: 0.4 }],
  energyMinorPerKwh: 28,
};
export const limits = (limitProfiles.find((p) => p.id === 'uk')?.limits ?? []).map((limit) => ({
  limit,
  shownAs: 'limit',
}));
export const cooling = limits.find((l) => l.limit.kind === 'cooling')?.limit;

/** A batch that is on, with what was written down minutes ago. */
export function batchOf(
  recipeId: string,
  baseMg: number,
  written: readonly (readonly [minutesAgo: number, body: BatchEventBody])[] = [],
  chosen: readonly string[] = [],
): WholeBatch {
  const found = recipeById.get(recipeId);
  if (found === undefined) throw new Error(recipeId);
  const recipe = withWays(
    found,
    waysOf(found, chosen).map((w) => w.id),
  ) as WholeBatch['recipe'];
  const at = (minutesAgo: number): string => new Date(Date.now() - minutesAgo * 60_000).toISOString();
  return {
    id: BATCH,
    state: 'on',
    pieceMg: null,
    unpriced: [],
    recipeId,
    version: recipe.version,
    title: recipe.title,
    kind: recipe.kind,
    measure: recipe.output.measure,
    ways: [...chosen],
    inputs: [
      {
        lotId: LOT,
        code: '1042-K',
        name: 'Hake frames',
        category: 'white-fish-frame',
        massMg: baseMg,
        allergens: [],
        as: 'base',
      },
    ],
    ingredients: [{ id: 'water', name: 'water', massMg: baseMg, fromLotsMg: 0 }],
    baseMg,
    expectedMg: {
      low: Math.round(baseMg * recipe.output.low),
      mean: Math.round(baseMg * recipe.output.mean),
      high: Math.round(baseMg * recipe.output.high),
    },
    plates: null,
    pieces: null,
    limiting: 'bones',
    short: [],
    foods: ['fish' as const],
    vesselId: null,
    outputMg: null,
    outputLot: null,
    movementId: null,
    by: me.person.name,
    plannedAt: at(60),
    startedAt: at(50),
    doneAt: null,
    recipe,
    events: written.map(([minutesAgo, body], i) => ({
      id: `019a0000-0000-7000-8000-0000000001${String(i).padStart(2, '0')}`,
      at: at(minutesAgo),
      by: me.person.name,
      body: body as WholeBatch['events'][number]['body'],
    })),
    ownTimes: [],
  };
}

interface Known {
  readonly batch?: WholeBatch;
  readonly open?: readonly Cooling[];
  readonly lots?: readonly Lot[];
  readonly boned?: readonly Boned[];
  readonly plates?: readonly ListedPlate[];
  readonly role?: Me['person']['role'];
  readonly mustNotTouch?: readonly string[];
  /** How far the server's clock is ahead of this device's. */
  readonly aheadMs?: number;
  /** A recipe that is nobody’s yet, as another screen hands it over. */
  readonly draft?: Recipe;
}

const screens = {
  '/pots': () => import('../stations/pots/Pots.tsx'),
  '/pots/stove/:batchId': () => import('../stations/pots/AtTheStove.tsx'),
  '/pots/cooling': () => import('../stations/pots/CoolingPage.tsx'),
  '/pots/calculator': () => import('../stations/pots/calculator/Calculator.tsx'),
  '/pots/plates': () => import('../stations/pots/plates/Plates.tsx'),
  '/pots/recipes/:recipeId': () => import('../stations/pots/recipe/RecipePage.tsx'),
} as const;

export let client: QueryClient;
export async function open(pattern: keyof typeof screens, address: string, known: Known = {}): Promise<void> {
  client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } } });
  client.setQueryData(['me'], {
    ...me,
    person: { ...me.person, role: known.role ?? 'sous-chef' },
    mustNotTouch: known.mustNotTouch ?? [],
  });
  client.setQueryData(['house'], house);
  client.setQueryData(['house', 'limits'], { limits });
  client.setQueryData(['catalogue'], {
    species: [],
    goods: allGoods,
    plans: [],
    categories: allCategories.map((c) => ({ ...c, refused: [], usual: null })),
  });
  client.setQueryData(['batches', 'timers'], { timers: [], aheadMs: known.aheadMs ?? 0 });
  client.setQueryData(['coolings', 'list'], { open: known.open ?? [], closed: [] });
  client.setQueryData(['lots', 'pots'], { lots: known.lots ?? [], all: true });
  client.setQueryData(['lots', 'plates'], { plates: known.plates ?? [] });
  client.setQueryData(['lots', 'boned'], { boned: known.boned ?? [] });
  client.setQueryData(['batches', 'recipes'], {
    recipes: [...recipeById.values()].map((recipe) => ({
      recipe,
      own: false,
      retired: false,
      changed: null,
      batches: [],
    })),
  });
  if (known.batch !== undefined) client.setQueryData(['batches', 'one', BATCH], known.batch);
  const { default: Screen } = await screens[pattern]();
  const { onSent, startOutbox } = await import('../app/outbox.ts');
  const { takeAnswer } = await import('../app/afterSending.ts');
  onSent((waiting, answer) => takeAnswer(client, waiting, answer));
  await startOutbox();
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter
        initialEntries={[
          {
            pathname: address.split('?')[0] ?? '',
            search: address.slice(address.indexOf('?') + 1 || address.length),
            state: known.draft === undefined ? null : { draft: known.draft },
          },
        ]}
      >
        <Routes>
          <Route path={pattern} element={<Screen />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByRole('navigation', { name: 'Pots' });
}
export const stove = (batch: WholeBatch, known: Known = {}): Promise<void> =>
  open('/pots/stove/:batchId', `/pots/stove/${BATCH}`, { ...known, batch });

export const type = (label: string | RegExp, text: string): void =>
  void fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
export const touch = (name: string | RegExp): void => void fireEvent.click(screen.getByRole('button', { name }));
export const text = (testId: string): string => screen.getByTestId(testId).textContent ?? '';
/** The one thing that was said at the stove, of this kind. */
export async function said<K extends BatchEventBody['kind']>(kind: K): Promise<Extract<BatchEventBody, { kind: K }>> {
  await waitFor(async () => expect(await kept()).toHaveLength(1));
  const [only] = await kept();
  const body = (only?.body as { body: BatchEventBody } | undefined)?.body;
  if (body?.kind !== kind) throw new Error(`said ${body?.kind}`);
  return body as Extract<BatchEventBody, { kind: K }>;
}
export const kept = async () => (await import('../app/outbox.ts')).waitingNow();

/** Every test begins with an empty device and no network. */
export function onAnEmptyDevice(): void {
  beforeEach(() => {
    vi.resetModules();
    localStorage.clear();
    vi.stubGlobal('indexedDB', new IDBFactory());
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}

export const frame = (n: number): Lot =>
  lotOf(n, {
    name: `Hake frame ${n}`,
    category: 'white-fish-frame',
    potKind: 'white-fish-frame',
    destination: 'stock',
    massMg: grams(100),
    madeMg: grams(100),
    useBy: '2099-01-01',
  });
