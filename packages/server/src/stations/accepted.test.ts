/** Whatever is accepted can be finished: the longest and the largest of every field of a plan and of a recipe, carried to the end of the work. */
import { planById, recipeById } from '@zabrik/catalogue';
import { type Answer, api, type Endpoint } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changed, type Path } from '../testing/bodies.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, received, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

/** Every string and number in a body; of a list its first entry. */
function leaves(value: unknown, at: Path = []): Path[] {
  if (typeof value === 'string' || typeof value === 'number') return [at];
  if (typeof value !== 'object' || value === null) return [];
  const entries = Array.isArray(value) ? Object.entries(value).slice(0, 1) : Object.entries(value);
  return entries.flatMap(([key, inner]) => leaves(inner, [...at, key]));
}
const valueAt = (value: unknown, path: Path): unknown =>
  path.reduce<unknown>((inner, key) => (inner as Record<string, unknown>)[key], value);
/** The greatest n up to `most` that is accepted; 0 when none is. */
function greatest(most: number, accepts: (n: number) => boolean): number {
  let [low, high] = [0, 1];
  while (high <= most && accepts(high)) [low, high] = [high, high * 2];
  high = Math.min(high, most + 1);
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (accepts(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** The bodies that differ from a good one in one place, which has the longest text or the largest figure its schema takes. */
function stretched(e: Endpoint, body: unknown): { readonly field: string; readonly body: unknown }[] {
  const accepts = (b: unknown): boolean => e.body?.safeParse(b).success === true;
  expect(e.body?.safeParse(body).error?.issues ?? []).toEqual([]);
  return leaves(body).flatMap((path) => {
    const now = valueAt(body, path);
    const make = (n: number): unknown => (typeof now === 'string' ? 'ß'.repeat(n) : n);
    const n = greatest(typeof now === 'string' ? 20_000 : 1e12, (x) => accepts(changed(body, path, make(x))));
    return n === 0 || make(n) === now ? [] : [{ field: path.join('.'), body: changed(body, path, make(n)) }];
  });
}

/** Everything that shows a lot: its page, its trace, its label, the exports. */
async function shown(lotId: string): Promise<void> {
  for (const path of [
    `/api/v1/lots/${lotId}`,
    `/api/v1/lots/${lotId}/trace`,
    `/api/v1/labels.pdf?lots=${lotId}&size=62x40`,
    `/api/v1/ledger/movements.jsonld?lot=${lotId}`,
  ])
    expect(await maren.raw('get', path), path).toMatchObject({ status: 200 });
}

describe('a cut plan', () => {
  const whole = planById.get('squid-cleaned');
  const [first] = whole?.stages ?? [];
  const steps = first?.steps.slice(0, 1);
  const pieces = first?.pieces.slice(0, 2);
  const plan = { ...whole, id: 'squid-our-way', stages: [{ ...first, steps, pieces }] };
  const cases = stretched(api.bench.savePlan, { plan, basedOn: 0 });

  it('has many places where something can be long', () => expect(cases.length).toBeGreaterThan(15));

  it.each(cases.map((c, i) => [c.field, c.body as { plan: typeof plan; basedOn: number }, i] as const))(
    'with the most of %s is worked to the end once it is saved',
    async (_field, body, i) => {
      const id = body.plan.id === plan.id ? `squid-${i}` : body.plan.id;
      const saved = await maren.ask(api.bench.savePlan, { body: { ...body, plan: { ...body.plan, id } } as never });
      if (saved.status !== 200) {
        expect(saved.status).toBe(400);
        return;
      }
      const lot = await received(kitchen, maren, {
        species: whole?.starts[0]?.species ?? 'squid',
        form: whole?.starts[0]?.forms[0] ?? 'whole',
        landedOn: '2026-11-23',
      });
      const begun = await maren.ask(api.bench.start, {
        body: { lotId: lot.lotId, planId: id, animals: 1, massMg: null },
      });
      expect(begun.body).toMatchObject({ state: 'open' });
      const breakdown = begun.body as Answer<typeof api.bench.start>;
      const params = { breakdownId: breakdown.id };
      for (const piece of breakdown.plan.stages[0]?.pieces ?? [])
        await must(maren, api.bench.weigh, { params, body: takeBody(piece.id, piece.destination, 1_200) });
      const closing = await maren.ask(api.bench.close, { params, body: { unbalancedReason: 'rest thrown' } });
      const closed =
        closing.status === 409
          ? await must(maren, api.bench.close, {
              params,
              body: {
                unbalancedReason: 'rest thrown',
                cooked: { through: true, coreCentiC: 8_000, placeId: null, added: [] },
              },
            })
          : closing.body;
      expect(closed).toHaveProperty('movementId');
      await must(maren, api.ledger.sheet, { params });
      for (const { lotId } of closed.lots) await shown(lotId);
    },
  );
});

describe('a species', () => {
  const species = {
    id: 'pond-carp',
    name: 'Pond carp',
    scientific: 'Cyprinus carpio',
    group: 'round-fish',
    allergen: 'fish',
    forms: [{ id: 'whole', name: 'whole', purchase: true, whole: true, typicalG: 2_400 }],
    yields: [],
    inspection: [{ check: 'gills', accept: 'red', reject: 'brown', critical: true }],
  };
  it.each(
    stretched(api.bench.saveSpecies, { species }).map(
      (c, i) => [c.field, c.body as { species: typeof species }, i] as const,
    ),
  )('with the most of %s is taken in once it is saved', async (_field, body, i) => {
    const id = body.species.id === species.id ? `carp-${i}` : body.species.id;
    const saved = await maren.ask(api.bench.saveSpecies, { body: { species: { ...body.species, id } } as never });
    if (saved.status !== 200) {
      expect(saved.status).toBe(400);
      return;
    }
    const { lotId } = await received(kitchen, maren, { species: id, form: body.species.forms[0]?.id ?? '' });
    await shown(lotId);
  });
});

describe('a recipe', () => {
  const whole = recipeById.get('fish-fumet');
  const recipe = { ...whole, id: 'fumet-our-way', steps: whole?.steps.slice(0, 1), keeps: whole?.keeps.slice(0, 1) };
  const cases = stretched(api.pots.saveRecipe, { recipe, from: 0, retired: false, note: 'ours' });
  let frame = '';

  it('has many places where something can be long', () => expect(cases.length).toBeGreaterThan(15));

  it.each(cases.map((c, i) => [c.field, c.body as { recipe: typeof recipe; from: number }, i] as const))(
    'with the most of %s is cooked to the end once it is saved',
    async (_field, body, i) => {
      const id = body.recipe.id === recipe.id ? `fumet-${i}` : body.recipe.id;
      const saved = await maren.ask(api.pots.saveRecipe, {
        body: { ...body, recipe: { ...body.recipe, id } } as never,
      });
      if (saved.status !== 200) {
        expect([400, 409]).toContain(saved.status);
        return;
      }
      const { closed } = await closedHake(kitchen, maren);
      frame = closed.lots.find((l) => l.name.includes('rame'))?.lotId ?? '';
      const planned = await maren.ask(api.pots.plan, {
        body: { recipeId: id ?? '', lotIds: [frame], vesselId: null, onHandMg: {} },
      });
      // what it may not take is said in words, and nothing is begun
      if (planned.status !== 200) {
        expect([400, 409]).toContain(planned.status);
        return;
      }
      const batch = planned.body as Answer<typeof api.pots.plan>;
      const params = { batchId: batch.id };
      await must(
        maren,
        api.pots.event,
        { params, body: { at: '2026-11-25T10:00:00.000Z', body: { kind: 'start' } } },
        uuidv7(),
      );
      const finished = await maren.ask(api.pots.finish, {
        params,
        body: { outputMg: grams(300), spentMg: grams(1), note: null },
      });
      expect(finished.body).toMatchObject({ state: 'done' });
      await must(maren, api.pots.read, { params });
      for (const { lotId } of (finished.body as { outputs?: { lotId: string }[] }).outputs ?? []) await shown(lotId);
    },
  );
});
