/** The cook's moves, for tests: each does one thing through the API and insists that it worked. */
import { speciesById } from '@zabrik/catalogue';
import { type Answer, type Ask, api, type Endpoint } from '@zabrik/contract';
import { grams, usuallyRaised } from '@zabrik/core';
import { expect } from 'vitest';
import type { Tablet, TestKitchen } from './openTestKitchen.ts';

export async function must<E extends Endpoint>(
  tablet: Tablet,
  endpoint: E,
  ask: Ask<E>,
  key?: string,
): Promise<Answer<E>> {
  const reply = await tablet.ask(endpoint, ask, key);
  expect(reply.body, `${endpoint.id} answered ${reply.status}`).toSatisfy(() => reply.status === 200);
  return reply.body;
}

type LineBody = Ask<typeof api.receive.accept>['body'];

/** Who shot it, where and when: without it wild game is taken in on hold. */
export const gameRecord = { shotBy: 'E. Harrow', killPlace: 'Hollin wood', killedOn: '2026-11-20' } as const;

export const deliveryBody = (kitchen: TestKitchen, o: Partial<LineBody> = {}, cast = kitchen.home) => ({
  species: 'hake',
  form: 'gutted',
  animals: 1,
  supplierId: cast?.suppliers.get('Bram Quay Fish') ?? '',
  origin: 'Marrow Bay',
  grossMg: grams(3_272),
  tareMg: grams(412),
  invoiceMg: grams(2_900),
  paidMinor: 3_176,
  temperatureCentiC: 120,
  landedOn: '2026-11-23',
  useBy: null,
  note: null,
  ...(usuallyRaised(speciesById.get(o.species ?? '')) === 'wild' ? { details: gameRecord } : {}),
  ...o,
});

/** Receives a line and insists that it became a lot. */
export async function received(kitchen: TestKitchen, tablet: Tablet, o: Partial<LineBody> = {}, cast = kitchen.home) {
  const line = await must(tablet, api.receive.accept, { body: deliveryBody(kitchen, o, cast) });
  const { lotId, movementId, code } = line;
  if (lotId === null || movementId === null || code === null) throw new Error('the line was refused');
  return { ...line, lotId, movementId, code };
}

export const takeBody = (pieceId: string, destination: string, massG: number, replaces: string | null = null) =>
  ({
    kind: 'take',
    pieceId,
    destination,
    massMg: grams(massG),
    source: 'scale',
    replaces,
    at: '2026-11-24T10:00:00.000Z',
  }) as Extract<Ask<typeof api.bench.weigh>['body'], { kind: 'take' }>;

/** A gutted hake of 2,860 g, all of it: 13 g go as drip. */
export const hakePieces: readonly (readonly [piece: string, tray: string, g: number])[] = [
  ['scales-fins', 'waste', 88],
  ['head', 'stock', 536],
  ['gills', 'waste', 61],
  ['fillet', 'portion', 803],
  ['fillet', 'portion', 790],
  ['belly', 'filling', 70],
  ['pin', 'stock', 31],
  ['frame', 'stock', 468],
];

export async function startHake(kitchen: TestKitchen, tablet: Tablet, cast = kitchen.home) {
  const delivery = await received(kitchen, tablet, {}, cast);
  const breakdown = await must(tablet, api.bench.start, {
    body: { lotId: delivery.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null },
  });
  return { delivery, breakdown };
}

/** Closes a stage; one that cooks as cooked through, which it asks for. */
export async function closed(tablet: Tablet, breakdownId: string, unbalancedReason: string | null = null) {
  const params = { breakdownId };
  const reply = await tablet.ask(api.bench.close, { params, body: { unbalancedReason } });
  if (reply.status === 200) return reply.body;
  expect(reply.body).toMatchObject({ code: 'say_if_cooked' });
  return must(tablet, api.bench.close, {
    params,
    body: { unbalancedReason, cooked: { through: true, coreCentiC: 8_000, placeId: null, added: [] } },
  });
}

/** Weighs the pieces of an open stage and closes it. */
export async function weighedAndClosed(
  tablet: Tablet,
  breakdownId: string,
  pieces: readonly (readonly [piece: string, tray: string, g: number])[],
) {
  for (const [piece, tray, g] of pieces)
    await must(tablet, api.bench.weigh, { params: { breakdownId }, body: takeBody(piece, tray, g) });
  return closed(tablet, breakdownId);
}

export async function closedHake(kitchen: TestKitchen, tablet: Tablet) {
  const { delivery, breakdown } = await startHake(kitchen, tablet);
  return { delivery, breakdown, closed: await weighedAndClosed(tablet, breakdown.id, hakePieces) };
}

/** One white pixel. */
export const smallestPng =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==';

/** The lots of a hake that was just cut, by what they are called. */
export async function hakeLots(kitchen: TestKitchen, tablet: Tablet) {
  const { closed } = await closedHake(kitchen, tablet);
  const of = (word: string): string => closed.lots.find((l) => l.name.toLowerCase().includes(word))?.lotId ?? '';
  return {
    frame: of('frame'),
    pin: closed.lots.find((l) => l.massMg === grams(31))?.lotId ?? '',
    head: of('head'),
    belly: of('belly'),
    fillet: of('fillet'),
  };
}
