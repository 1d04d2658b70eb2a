/** Small kitchens drawn at random, for models that another solver can be asked about too. */
import type { PlannedUse, PlanProblem } from '@zabrik/core/planning';
import { seededRandom } from '@zabrik/core/simulator';

const CATEGORIES = ['frame', 'head', 'trim'] as const;
const each = (amount: number): Record<string, number> => Object.fromEntries(CATEGORIES.map((c) => [c, amount]));

/** `least` and `most` days and uses of it. */
export function randomPlan(seed: string, days: readonly [least: number, most: number] = [2, 3]): PlanProblem {
  const random = seededRandom(seed);
  const of = <T>(things: readonly [T, ...T[]]): T => things[random.whole(0, things.length - 1)] ?? things[0];
  const likely = (share: number): boolean => random.next() < share;
  const T = random.whole(...days);
  const every = (amount: number): number[] => Array.from({ length: T }, () => amount);
  const uses = ['stock', 'farce', 'dish'].slice(0, random.whole(2, 3)).map((id): PlannedUse => {
    const staff = id === 'dish';
    return {
      id,
      title: id,
      takes: 'any',
      base: {
        categories: CATEGORIES.filter(() => likely(0.7)),
        products: id === 'dish' && likely(0.3) ? ['stock'] : [],
      },
      refuses: [],
      caps: likely(0.3) ? [{ category: 'head', maxShare: 0.4 }] : [],
      minLife: likely(0.3) ? 1 : 0,
      parts: likely(0.2) ? [{ id: 'fat', lo: 0.1, hi: 0.3, categories: [], products: [], price: 2 }] : [],
      costPerKg: random.whole(0, 20) / 10,
      out: random.whole(6, 14) / 10,
      shelf: random.whole(0, 2),
      frozenOk: !staff && likely(0.5),
      vessels: [{ id: 'pot', minKg: 0.5, maxKg: random.whole(2, 5), slots: random.whole(1, 3) }],
      handsFixed: random.whole(5, 20),
      handsPerKg: random.whole(0, 6),
      part: of(['am', 'pm', 'any']),
      burnerMin: random.whole(0, 60),
      ovenMin: 0,
      chillPerKg: random.whole(0, 10) / 10,
      energy: random.whole(0, 10) / 10,
      staff,
      platesPerKg: staff ? 4 : 0,
      repeatDays: staff ? 2 : 0,
      maxRunsPerDay: staff ? 1 : 2,
      buyPrice: staff || likely(0.3) ? null : random.whole(4, 9),
      maxBuyPerDay: 3,
      shortPrice: random.whole(8, 14),
      wasteCost: 0.2,
      endValue: random.whole(0, 20) / 10,
      endCap: 1.5,
    };
  });
  return {
    id: seed,
    days: T,
    slotsPerDay: 3,
    lots: Array.from({ length: random.whole(2, 5) }, (_, i) => {
      const ready = random.whole(0, 1);
      return {
        id: `L${i}`,
        category: of(CATEGORIES),
        state: of(['raw', 'cooked']),
        kg: random.whole(5, 40) / 10,
        ready,
        lastDay: ready + random.whole(0, 3),
        freezable: likely(0.4),
        frozen: likely(0.15),
      };
    }),
    stock: likely(0.3) ? [{ use: 'stock', qty: 1.2, lastDay: 1 }] : [],
    uses,
    demand: uses
      .filter((u) => !u.staff)
      .flatMap((u) => Array.from({ length: T }, (_, day) => ({ use: u.id, day, qty: random.whole(0, 30) / 10 })))
      .filter((d) => d.qty > 0),
    staff: { plates: Array.from({ length: T }, () => random.whole(0, 12)), missingPrice: 3 },
    vessels: [{ id: 'pot', count: random.whole(1, 2) }],
    hands: { am: every(random.whole(20, 60)), pm: every(random.whole(20, 60)) },
    burner: every(120),
    oven: every(60),
    chiller: every(6),
    freezer: { kg: 20, perKg: 0.5, perKgDay: 0.05, thawDays: 1 },
    rate: 0.2,
    runPrice: 1,
    disposal: each(0.3),
    endFresh: each(0.4),
    endFrozen: each(0.6),
  };
}
