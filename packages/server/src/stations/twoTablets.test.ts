/** Two tablets, and two server processes, on one breakdown at once: nothing doubled, nothing lost, one order for both. */
import { api } from '@zabrik/contract';
import { effectiveWeighings, grams } from '@zabrik/core';
import { seededRandom } from '@zabrik/core/twin';
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
