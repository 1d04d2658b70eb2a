/** Two tablets, and two server processes, on one breakdown at once: nothing doubled, nothing lost, one order for both. */
import { api } from '@zabrik/contract';
import { effectiveWeighings, grams } from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, startHake, takeBody } from '../testing/work.ts';

let one: TestKitchen;
let two: TestKitchen;
let ines: Tablet;
let jory: Tablet;
beforeAll(async () => {
  one = await openTestKitchen();
  two = await openTestKitchen({ databaseUrl: one.databaseUrl });
  ines = await one.signIn(one.personOf('Ines Calloway'));
  jory = await two.signIn(one.personOf('Jory Pellam'));
});
afterAll(async () => {
  await two.close();
  await one.stop();
});

describe('two tablets on one breakdown', () => {
  it.each([1, 2, 3, 4])('weigh, put right and take back at once, sending some things twice, run %i', async (run) => {
    const random = seededRandom(`two tablets ${run}`);
    const { breakdown } = await startHake(one, ines);
    const params = { breakdownId: breakdown.id };
    /** Weights someone may still put right, and what every accepted command did. */
    const open: string[] = [];
    const takes = new Map<string, { readonly massMg: number; readonly replaces: string | null }>();
    const undone = new Set<string>();
    const replaced = new Set<string>();
    let refused = 0;
    const work = async (tablet: Tablet): Promise<void> => {
      for (let i = 0; i < 25; i += 1) {
        const key = uuidv7();
        const target = open[random.whole(0, Math.max(0, open.length - 1))];
        const what = target === undefined ? 0 : random.next();
        const replaces = what < 0.6 || target === undefined ? null : target;
        const undo = what > 0.85 && replaces !== null;
        const body = undo
          ? ({ kind: 'undo', replaces, at: new Date().toISOString() } as const)
          : takeBody('fillet', 'portion', random.whole(20, 60), replaces);
        // a reply that was lost: the same command comes again, at the same moment
        const replies = await Promise.all(
          Array.from({ length: random.next() < 0.3 ? 2 : 1 }, () => tablet.ask(api.bench.weigh, { params, body }, key)),
        );
        const [reply] = replies;
        expect(new Set(replies.map((r) => r.status)).size).toBe(1);
        if (reply?.status !== 200) {
          expect(reply).toMatchObject({ status: 409, body: { code: 'already_replaced' } });
          refused += 1;
          continue;
        }
        if (replaces !== null) {
          expect(replaced.has(replaces)).toBe(false); // two tablets never both put the same weight right
          replaced.add(replaces);
          open.splice(open.indexOf(replaces), open.includes(replaces) ? 1 : 0);
        }
        if (body.kind === 'undo') undone.add(body.replaces);
        else {
          takes.set(key, { massMg: body.massMg, replaces });
          open.push(key);
        }
      }
    };
    await Promise.all([work(ines), work(jory)]);

    const [seen, other] = await Promise.all([
      must(ines, api.bench.read, { params }),
      must(jory, api.bench.read, { params }),
    ]);
    expect(other.weighings).toEqual(seen.weighings);
    expect(
      seen.weighings
        .filter((w) => w.massMg !== null)
        .map((w) => w.id)
        .sort(),
    ).toEqual([...takes.keys()].sort());
    const counts = [...takes].filter(([id]) => !replaced.has(id) && !undone.has(id));
    expect(
      effectiveWeighings(seen.weighings)
        .map((w) => w.id)
        .sort(),
    ).toEqual(counts.map(([id]) => id).sort());
    expect(seen.weighedMg).toBe(counts.reduce((sum, [, t]) => sum + t.massMg, 0));
    expect(seen.weighedMg).toBeLessThan(grams(2_860));
    expect(takes.size + undone.size + refused).toBe(50);
  });
});

describe('two weights that go together', () => {
  const standing = async (breakdownId: string) => {
    const { weighings } = await must(ines, api.bench.read, { params: { breakdownId } });
    return effectiveWeighings(weighings).map((w) => [w.id, w.pieceId, w.destination, w.massMg]);
  };
  const split = (
    replaces: string,
    also: { id: string; massMg: number; destination?: 'stock' | 'waste' },
    stayMg: number,
  ) => ({
    ...takeBody('head', 'stock', 0, replaces),
    massMg: stayMg,
    also: { kind: 'take' as const, destination: 'waste' as const, count: 0, ...also },
  });

  it('are one command: split and joined again, both or neither, whatever is repeated or refused', async () => {
    const { breakdown } = await startHake(one, ines);
    const params = { breakdownId: breakdown.id };
    const [taken, stay, part, whole, gone] = Array.from({ length: 5 }, () => uuidv7()) as [
      string,
      string,
      string,
      string,
      string,
    ];
    await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 500) }, taken);
    const body = split(taken, { id: part, massMg: grams(120) }, grams(380));
    const first = await must(ines, api.bench.weigh, { params, body }, stay);
    expect(await must(ines, api.bench.weigh, { params, body }, stay)).toEqual(first);
    const both = [
      [stay, 'head', 'stock', grams(380)],
      [part, 'head', 'waste', grams(120)],
    ];
    expect(await standing(breakdown.id)).toEqual(both);
    // the same key with another other half is another command
    expect(
      await ines.ask(
        api.bench.weigh,
        { params, body: split(taken, { id: part, massMg: grams(121) }, grams(380)) },
        stay,
      ),
    ).toMatchObject({ status: 409, body: { code: 'key_reused' } });
    // the first fits and the other does not: neither is written
    for (const [wrong, code] of [
      [split(taken, { id: uuidv7(), massMg: grams(1) }, grams(1)), 'already_replaced'],
      [
        {
          ...split(stay, { id: uuidv7(), massMg: grams(1) }, grams(1)),
          also: { kind: 'undo', id: uuidv7(), replaces: taken },
        },
        'invalid',
      ],
      [
        {
          ...split(stay, { id: uuidv7(), massMg: grams(1) }, grams(1)),
          also: { kind: 'undo', id: uuidv7(), replaces: stay },
        },
        'invalid',
      ],
    ] as const) {
      const reply = await ines.ask(api.bench.weigh, { params, body: wrong });
      expect(reply.status, code).toBeGreaterThanOrEqual(400);
      expect(await standing(breakdown.id)).toEqual(both);
    }
    const join = {
      ...takeBody('head', 'stock', 500, stay),
      also: { kind: 'undo' as const, id: gone, replaces: part },
    };
    await must(ines, api.bench.weigh, { params, body: join }, whole);
    expect(await standing(breakdown.id)).toEqual([[whole, 'head', 'stock', grams(500)]]);
  });

  it('two tablets that split one weight at the same moment leave one split, and no gram more or less', async () => {
    for (let round = 0; round < 6; round += 1) {
      const { breakdown } = await startHake(one, ines);
      const params = { breakdownId: breakdown.id };
      const taken = uuidv7();
      await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 500) }, taken);
      const replies = await Promise.all(
        Array.from({ length: 8 }, (_, i) =>
          // half of them on another server: their commits meet in the database
          (i % 2 === 0 ? ines : jory).ask(api.bench.weigh, {
            params,
            body: split(taken, { id: uuidv7(), massMg: grams(100 + i) }, grams(400 - i)),
          }),
        ),
      );
      expect(replies.filter((r) => r.status === 200)).toHaveLength(1);
      for (const r of replies.filter((x) => x.status !== 200))
        expect(r.body).toMatchObject({ code: 'already_replaced' });
      const left = await standing(breakdown.id);
      expect(left).toHaveLength(2);
      expect(left.reduce((sum, [, , , mg]) => sum + Number(mg), 0)).toBe(grams(500));
    }
  });

  it('a key that comes again with another half, or a half whose name is taken, is refused, and the bench goes on', async () => {
    const { breakdown } = await startHake(one, ines);
    const params = { breakdownId: breakdown.id };
    const [taken, stay, part, later] = [uuidv7(), uuidv7(), uuidv7(), uuidv7()];
    await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 500) }, taken);
    await must(
      ines,
      api.bench.weigh,
      { params, body: split(taken, { id: part, massMg: grams(120) }, grams(380)) },
      stay,
    );
    const both = await standing(breakdown.id);
    const again = split(taken, { id: uuidv7(), massMg: grams(120) }, grams(380));
    expect(await ines.ask(api.bench.weigh, { params, body: again }, stay)).toMatchObject({
      status: 409,
      body: { code: 'key_reused' },
    });
    const taking = split(stay, { id: part, massMg: grams(80) }, grams(300));
    expect(await ines.ask(api.bench.weigh, { params, body: taking }, later)).toMatchObject({
      status: 409,
      body: { code: 'key_reused' },
    });
    expect(await standing(breakdown.id)).toEqual(both);
    await must(ines, api.bench.weigh, { params, body: takeBody('gills', 'waste', 60) });
  });

  it('says of the other half what it would say of a weight: a refused tray, a weight put right already', async () => {
    const { breakdown } = await startHake(one, ines);
    const params = { breakdownId: breakdown.id };
    const [gills, two, three] = [uuidv7(), uuidv7(), uuidv7()];
    await must(ines, api.bench.weigh, { params, body: takeBody('gills', 'waste', 60) }, gills);
    const toStock = {
      ...takeBody('gills', 'waste', 40, gills),
      also: { kind: 'take' as const, id: uuidv7(), destination: 'stock' as const, massMg: grams(20), count: 0 },
    };
    expect(await ines.ask(api.bench.weigh, { params, body: toStock })).toMatchObject({
      body: { code: 'tray_refused' },
    });
    for (const key of [two, three])
      await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 100) }, key);
    await must(ines, api.bench.weigh, {
      params,
      body: { kind: 'undo', replaces: three, at: new Date().toISOString() },
    });
    const join = {
      ...takeBody('head', 'stock', 200, two),
      also: { kind: 'undo' as const, id: uuidv7(), replaces: three },
    };
    expect(await ines.ask(api.bench.weigh, { params, body: join })).toMatchObject({
      body: { code: 'already_replaced' },
    });
    expect((await standing(breakdown.id)).map(([, , , mg]) => mg)).toEqual([grams(60), grams(100)]);
  });

  it('a pair that comes twice in one commit is written once', async () => {
    const { breakdown } = await startHake(one, ines);
    const params = { breakdownId: breakdown.id };
    const [taken, stay, part] = [uuidv7(), uuidv7(), uuidv7()];
    await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 500) }, taken);
    const body = split(taken, { id: part, massMg: grams(120) }, grams(380));
    const replies = await Promise.all(
      Array.from({ length: 6 }, () => ines.ask(api.bench.weigh, { params, body }, stay)),
    );
    expect(replies.map((r) => r.status)).toEqual(Array(6).fill(200));
    for (const { body: answer } of replies) expect(answer).toEqual(replies[0]?.body);
    expect(await standing(breakdown.id)).toHaveLength(2);
  });
});
