/** What limits cover, what cooking and cooling logs show, how long a batch keeps and where its mass went: against the documents, by section. */
import { readFileSync } from 'node:fs';
import { allRecipes, allSpecies, limitProfiles, recipeById, speciesById } from '@zabrik/catalogue';
import {
  allergenWords,
  type BatchOut,
  batchBalance,
  batchDate,
  type CoolingSteps,
  cookedAs,
  cookedFoods,
  cookedSoFar,
  cookingFor,
  coolingProgress,
  type Food,
  foodOf,
  foods,
  hasAllergen,
  type Limit,
  limitsFor,
  limitTasks,
  markOf,
  type Recipe,
  receivingLimit,
  type ShelfLife,
  startsClock,
  storageLimit,
  type TemperatureLog,
  waysKept,
  withWays,
} from '@zabrik/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { limitsTable } from './limitsTable.ts';

const profile = (id: string): readonly Limit[] => {
  const found = limitProfiles.find((p) => p.id === id);
  if (found === undefined) throw new Error(id);
  return found.limits;
};
const us = profile('us-food-code-2022');
const uk = profile('uk');
const eu = profile('eu');
const limit = <K extends Limit['kind']>(id: string, kind: K): Extract<Limit, { kind: K }> => {
  const found = [...us, ...uk, ...eu].find((l) => l.id === id);
  if (found?.kind !== kind) throw new Error(id);
  return found as Extract<Limit, { kind: K }>;
};
const recipe = (id: string): Recipe => {
  const found = recipeById.get(id);
  if (found === undefined) throw new Error(id);
  return found;
};
const at = (...points: readonly (readonly [minute: number, C: number])[]): TemperatureLog =>
  points.map(([minute, C]) => ({ minute, C }));
const held = (C: number, minutes: number): TemperatureLog =>
  Array.from({ length: Math.max(1, Math.ceil(minutes / 10) + 1) }, (_, i) => ({
    minute: Math.min(minutes, i * 10),
    C,
  }));

describe('cooking', () => {
  const cooked = (
    limits: readonly Limit[],
    foodsIn: readonly Food[],
    as: Parameters<typeof cookingFor>[2],
    log: TemperatureLog,
  ) => cookedSoFar(cookingFor(limits, foodsIn, as).limits, log)?.verdict;

  // FDA Food Code 2022, 3-401.11(A)(1) to (3); recalled
  it('of poultry, of what is stuffed and of mince is not reached at 63 °C for 15 s under the US code', () => {
    const rare = held(63, 0.25);
    expect(cooked(us, ['fish'], 'whole', at([0, 63], [0.25, 63]))).toBe('within');
    for (const food of ['poultry', 'small-game', 'large-game'] as const)
      for (const as of cookedAs) expect(cooked(us, [food], as, rare), `${food} ${as}`).toBe('open');
    for (const food of cookedFoods) expect(cooked(us, [food], 'stuffed', rare), food).toBe('open');
    expect(cooked(us, ['meat'], 'minced', at([0, 63], [0.25, 63]))).toBe('open');
    expect(cooked(us, ['meat'], 'minced', at([0, 68.4], [0.3, 68.4]))).toBe('within');
    expect(cooked(us, ['poultry'], 'whole', at([0, 73.9]))).toBe('within'); // 165 °F on the probe
    expect(cooked(us, ['poultry'], 'whole', at([0, 73.8]))).toBe('open');
    expect(cooked(us, ['meat'], 'stuffed', at([0, 74]))).toBe('within');
  });

  it('asks the strictest of what is mixed, and of what nobody can tell', () => {
    expect(cooked(us, ['meat', 'poultry'], 'minced', at([0, 70]))).toBe('open');
    expect(cooked(us, ['unknown'], undefined, at([0, 70]))).toBe('open');
    expect(cookingFor(us, ['unknown'], undefined).asks).toEqual(['what', 'how']);
    expect(cookingFor(us, ['fish'], 'whole').asks).toEqual([]);
    expect(cookingFor(us, ['ready', 'other'], 'whole').limits).toEqual([]);
    // saying more never asks for more
    fc.assert(
      fc.property(
        fc.constantFrom(us, uk, eu),
        fc.subarray([...cookedFoods], { minLength: 1 }),
        fc.constantFrom(...cookedAs),
        (p, inIt, as) => {
          const asked = new Set(cookingFor(p, ['unknown'], undefined).limits.map((l) => l.id));
          for (const l of cookingFor(p, inIt, as).limits) expect(asked.has(l.id)).toBe(true);
        },
      ),
    );
  });

  // UK: FSA/ACMSF equivalents (70 °C for 2 min); EU: the WHO's default target
  it('has a limit for every raw animal, however it is cooked, in every profile', () => {
    for (const p of [us, uk, eu])
      for (const food of cookedFoods)
        for (const as of cookedAs) expect(cookingFor(p, [food], as).limits.length, `${food} ${as}`).toBeGreaterThan(0);
  });

  it('counts no time that nobody read, and nothing of a log with a reading that is none', () => {
    expect(cooked(uk, ['meat'], 'whole', at([0, 60], [45, 60]))).toBe('open');
    expect(cooked(uk, ['meat'], 'whole', held(60, 45))).toBe('within');
    expect(cooked(uk, ['meat'], 'whole', at([0, 75], [1, Number.NaN], [2, 75]))).toBe('not-shown');
    expect(cooked(uk, ['meat'], 'whole', at([2, 70], [0, 70]))).toBe('within'); // written down out of order
  });

  it('is carried by every use that cooks through: how, and where it kills', () => {
    for (const u of allRecipes.filter((u) => ['filling', 'preserve', 'staff-dish'].includes(u.kind) && startsClock(u)))
      expect(u.cooksAs, u.id).toBeDefined();
  });
});

describe('cooling by the worst that the readings allow', () => {
  const code = limit('us.cool.cooked', 'cooling'); // 3-501.14(A): 57 to 21 °C within 2 h, to 5 °C within 6 h
  const verdict = (log: TemperatureLog, now = log.at(-1)?.minute ?? 0) => coolingProgress(code, log, now).verdict;

  it('looks back: what warmed up again was not there', () => {
    expect(verdict(at([0, 57], [90, 21], [120, 45], [300, 5]))).not.toBe('within');
    expect(verdict(at([0, 57], [60, 21], [80, 30], [110, 20], [300, 5]))).toBe('within');
    expect(coolingProgress(code, at([0, 57], [60, 20], [80, 30], [110, 20], [300, 5]), 300).steps[0]).toMatchObject({
      warmedAgain: true,
      met: { from: 80, to: 110 },
    });
    // once it is cold and its time is over, what the fridge does is storage
    expect(verdict(at([0, 57], [100, 21], [300, 5], [900, 7]))).toBe('within');
  });

  it('draws no line between sparse readings: 90 °C at nought and 20 °C at 230 min are not shown', () => {
    const sparse = coolingProgress(code, at([0, 90], [230, 20], [350, 5]), 350);
    expect(sparse.verdict).toBe('not-shown');
    expect(sparse.gapMinutes).toBe(230);
    expect(verdict(at([0, 90], [100, 57], [215, 20.5], [350, 5]))).toBe('within');
    expect(verdict(at([0, 57], [100, 24], [130, 19.5], [350, 5]))).toBe('not-shown');
  });

  it('is late when nobody reads again, and never shown from a first reading that was cold already', () => {
    expect(verdict(at([0, 57]), 119)).toBe('open');
    expect(verdict(at([0, 57]), 121)).toBe('not-shown');
    expect(verdict(at([0, 57], [119, 30]), 400)).toBe('not-shown');
    expect(verdict(at([0, 57], [125, 30]), 125)).toBe('outside');
    expect(verdict(at([0, 20], [60, 4]))).toBe('not-shown');
    expect(verdict(at([0, 57], [60, Number.NaN], [300, 5]))).toBe('not-shown');
  });

  const newton = fc.record({
    from: fc.double({ min: 58, max: 98, noNaN: true }),
    air: fc.double({ min: -5, max: 4.5, noNaN: true }),
    tau: fc.double({ min: 5, max: 400, noNaN: true }),
    reads: fc.array(fc.integer({ min: 0, max: 600 }), { minLength: 1, maxLength: 12 }),
  });
  // Newton's law of cooling: T = air + (from - air) exp(-t / tau), crossings in closed form
  it('never says more than is true of a pot that follows Newton’s law, whenever it was read', () => {
    const seen = { within: 0, outside: 0 };
    fc.assert(
      fc.property(newton, ({ from, air, tau, reads }) => {
        const T = (m: number): number => air + (from - air) * Math.exp(-m / tau);
        const when = (C: number): number =>
          C <= air ? Number.POSITIVE_INFINITY : tau * Math.log((from - air) / (C - air));
        const log = [0, ...new Set(reads.filter((m) => m > 0))]
          .sort((a, b) => a - b)
          .map((minute) => ({ minute, C: T(minute) }));
        const inF = (F: number): number => ((F - 32) * 5) / 9;
        const good = when(inF(70)) - when(57) <= 120 && when(5) - when(57) <= 360;
        const bad = when(inF(70)) - when(inF(135)) > 120 || when(5) - when(inF(135)) > 360;
        const said = coolingProgress(code, log, log.at(-1)?.minute ?? 0).verdict;
        if (said === 'within') {
          seen.within += 1;
          expect(bad).toBe(false);
        }
        if (said === 'outside') {
          seen.outside += 1;
          expect(good).toBe(false);
        }
      }),
      { numRuns: 3_000, seed: 14 },
    );
    // it does say both, where it can
    expect(Math.min(seen.within, seen.outside)).toBeGreaterThan(50);
  });

  it('holds for any curve that falls from reading to reading: its bounds are those of all of them', () => {
    const steps: CoolingSteps = { ...code, value: { start_C: 60, steps: [{ to_C: 10, within_min: 120 }] } };
    const gaps = fc.array(fc.tuple(fc.integer({ min: 1, max: 90 }), fc.double({ min: 0.1, max: 40, noNaN: true })), {
      minLength: 2,
      maxLength: 8,
    });
    fc.assert(
      fc.property(
        gaps,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (falls, early, late) => {
          let minute = 0;
          let C = 95;
          const log = [{ minute, C }];
          for (const [by, down] of falls) {
            minute += by;
            C -= down;
            log.push({ minute, C });
          }
          const between = (level: number, share: number): number | undefined => {
            const i = log.findIndex((r) => r.C <= level);
            const [a, b] = [log[i - 1], log[i]];
            return b === undefined ? undefined : a === undefined ? b.minute : a.minute + share * (b.minute - a.minute);
          };
          // one such curve: it passes each level anywhere between the two readings round it, the later level no earlier
          const [start, end] = [between(60, early), between(10, late)];
          const said = coolingProgress(steps, log, minute).verdict;
          if (start === undefined || end === undefined) return;
          const took = Math.max(start, end) - start;
          if (said === 'within') expect(took).toBeLessThanOrEqual(120 + 1e-6);
          if (said === 'outside') expect(took).toBeGreaterThan(120 - 1e-6);
        },
      ),
      { numRuns: 3_000, seed: 15 },
    );
  });
});

describe('receiving and storing', () => {
  const species = (id: string) => speciesById.get(id);
  const food = (id: string, o: Partial<Parameters<typeof foodOf>[0]> = {}) =>
    foodOf({ species: species(id), ready: false, ...o });
  const most = (limits: readonly Limit[], f: Food, frozen = false) => receivingLimit(limits, f, frozen)?.value.max_C;

  // (EC) 853/2004 Annex III Sec. I, II, IV, V, VIII; FDA Food Code 3-202.11, Hazards guide ch. 7; recalled
  it('are by what it is: rabbit and hare as poultry is, large game at 7 °C, fish on ice however it is packed', () => {
    expect(most(eu, food('rabbit'))).toBe(4);
    expect(most(eu, food('hare'))).toBe(4);
    expect(most(eu, food('wood-pigeon'))).toBe(4);
    expect(most(eu, food('roe-deer'))).toBe(7);
    expect(most(eu, food('cod'))).toBe(2);
    expect(most(uk, food('wood-pigeon'))).toBe(4);
    expect(most(uk, food('roe-deer'))).toBe(7);
    expect(most(uk, food('cod'))).toBe(2);
    expect(most(us, food('mackerel'))).toBe(4.4);
    expect(most(us, food('cod'))).toBe(5);
    expect(most(eu, food('cod'), true)).toBe(-18);
    expect(most(uk, food('chicken', { category: 'poultry-giblets', categoryGroup: 'poultry' }))).toBe(3);
  });

  it('leave nothing that is raw and dead without a figure', () => {
    for (const s of allSpecies)
      for (const [name, p] of [
        ['us', us],
        ['uk', uk],
        ['eu', eu],
      ] as const) {
        const f = foodOf({ species: s, ready: false });
        expect(receivingLimit(p, f, false), `${name} ${s.id} in`).toBeDefined();
        expect(storageLimit(p, f), `${name} ${s.id} stored`).toBeDefined();
        expect(storageLimit(p, foodOf({ species: s, ready: true })), `${name} ${s.id} cooked`).toBeDefined();
      }
  });

  it('take what nobody can tell for nothing', () => {
    expect(foodOf({ ready: false })).toBe('unknown');
    expect(receivingLimit(us, 'unknown', false)).toBeUndefined();
  });
});

describe('the date of a batch', () => {
  const today = '2026-11-29';
  const date = (id: string, profileId: string, earliest: string | null, as?: string) => {
    const u = recipe(id);
    const ways = waysKept(u, profileId);
    const keep = as === undefined ? ways[0] : ways.find((k) => k.as === as);
    const made = limitsFor(profile(profileId), 'shelf_life', 'made', 'ready')[0];
    return batchDate(u, keep, today, earliest, made as ShelfLife | undefined);
  };

  // FDA Food Code 2022, 3-501.17(D): combined food keeps the earliest date
  it('of what is only put together is no later than the first of what went in', () => {
    for (const id of [
      'crustacean-ravigote',
      'seafood-garnish',
      'terrine-in-jelly',
      'kept-liquor',
      'herb-oil',
      'salt-cure-fish',
      'ravioli-filling',
    ])
      for (const p of ['us-food-code-2022', 'uk', 'eu'])
        expect(date(id, p, today), `${id} ${p}`).toMatchObject({ useBy: today, by: 'what went in' });
  });

  it('of what is boiled through begins anew, and raw fillings never outlive what is in them', () => {
    expect(date('fish-fumet', 'uk', today).useBy).toBe('2026-12-01');
    for (const id of ['fish-mousseline', 'fresh-sausage', 'boned-bird-stuffing'])
      expect(date(id, 'uk', today).useBy).toBe(today);
  });

  it('is of the state it is kept in: herb oil one day, confit under fat its fourteen, the same fat the same days', () => {
    expect(date('herb-oil', 'uk', null).useBy).toBe('2026-11-30');
    expect(date('terrine-in-jelly', 'uk', null).useBy).toBe('2026-11-30');
    expect(date('trotter-stuffed', 'uk', null).useBy).toBe('2026-11-30');
    expect(date('confit', 'uk', null, 'under-fat').useBy).toBe('2026-12-13');
    expect(date('duck-goose-fat', 'uk', null).useBy).toBe('2026-12-29');
    // in the US the seven days of 3-501.17(A) bind, the day of making the first
    expect(date('confit', 'us-food-code-2022', null, 'under-fat')).toMatchObject({ useBy: '2026-12-05', by: 'limit' });
    expect(date('braise-and-hold', 'us-food-code-2022', null)).toMatchObject({
      useBy: '2026-12-05',
      by: 'limit',
      maxC: 5,
    });
    // UK cook-chill guidance: five days at 0 to 3 °C, the day of making the first; kitchens without a study keep to three
    expect(date('braise-and-hold', 'uk', null)).toMatchObject({ useBy: '2026-12-02', by: 'recipe', maxC: 3 });
  });

  it('has one voice: what a recipe says in days is what its usual state says', () => {
    for (const u of allRecipes) {
      const [usual] = waysKept(u, 'uk');
      if (usual !== undefined) expect(u.shelfLifeDays, u.id).toBe(usual.days);
    }
  });
});

describe('where the mass of a batch went', () => {
  const g = 1_000;
  const balance = (
    id: string,
    baseG: number,
    parts: Readonly<Record<string, number>>,
    out: Partial<BatchOut> & { outputMg: number },
  ) =>
    batchBalance(
      recipe(id),
      { baseMg: baseG * g, ingredients: Object.entries(parts).map(([id_, x]) => ({ id: id_, massMg: x * g })) },
      { besideMg: 0, spentMg: null, ...out },
    );

  it('water and salt are poured away and do not become crab', () => {
    const u = recipe('crustacean-boil');
    expect(withWays(u, [], { water: 8, salt: 0.28 }).output.mean).toBe(u.output.mean);
    expect(balance('crustacean-boil', 3_600, { water: 28_800, salt: 720 }, { outputMg: 3_400 * g })).toMatchObject({
      pouredMg: 29_520 * g,
      evaporatedMg: 200 * g,
    });
    // a crab that took up water: less is poured away, and nothing is made of nothing
    expect(balance('crustacean-boil', 3_600, { water: 10_000 }, { outputMg: 3_700 * g })).toMatchObject({
      pouredMg: 9_900 * g,
      evaporatedMg: 0,
    });
  });

  it('vegetables left out of a fumet take nothing off it, and water still makes more of it', () => {
    const u = recipe('fish-fumet');
    expect(withWays(u, [], { vegetables: 0 }).output.mean).toBe(u.output.mean);
    expect(withWays(u, [], { water: 1.2 }).output.mean).toBeCloseTo(u.output.mean + 0.2, 12);
    const b = balance('fish-fumet', 1_000, { water: 1_000, vegetables: 120, 'white-wine': 100 }, { outputMg: 900 * g });
    expect(b).toMatchObject({ strainedMg: 1_120 * g, pouredMg: 0, evaporatedMg: 200 * g });
    expect(balance('fish-fumet', 1_000, { water: 1_000 }, { outputMg: 900 * g, spentMg: 700 * g }).evaporatedMg).toBe(
      400 * g,
    );
  });

  it('adds up to what went in, whatever came out', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...allRecipes),
        fc.nat(9_000),
        fc.nat(30_000),
        fc.nat(20_000),
        fc.nat(2_000),
        fc.option(fc.nat(5_000)),
        (u, base, part, out, beside, spent) => {
          const parts = u.ingredients.map((i) => ({ id: i.id, massMg: part }));
          const b = batchBalance(
            u,
            { baseMg: base, ingredients: parts },
            { outputMg: out, besideMg: beside, spentMg: spent },
          );
          expect(out + beside + b.strainedMg + b.pouredMg + b.evaporatedMg).toBe(b.inMg);
          expect(Math.min(b.strainedMg, b.pouredMg)).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });

  it('a mark is a share of what goes into a reduction and of what comes out of a stock', () => {
    const litres = (
      id: string,
      base: number,
      parts: Readonly<Record<string, number>>,
      expected: number,
      mark: string,
    ) => {
      const u = recipe(id);
      const m = u.marks.find((x) => x.name === mark);
      if (m === undefined) throw new Error(mark);
      return markOf(
        u,
        { baseMg: base, ingredients: Object.entries(parts).map(([i, x]) => ({ id: i, massMg: x })) },
        expected,
        m.factor,
      );
    };
    // 0.8 l of stock to a quarter is 0.20 l, not a quarter of the quarter
    expect(litres('jus-reduced', 0.8, {}, 0.2, 'to a quarter')).toBeCloseTo(0.2, 12);
    expect(litres('shellfish-essence', 2, {}, 0.4, 'to a fifth')).toBeCloseTo(0.4, 12);
    expect(litres('glace', 5, {}, 0.5, 'to a tenth')).toBeCloseTo(0.5, 12);
    expect(litres('demi', 0.8, { 'brown-sauce': 0.8 }, 0.8, 'half')).toBeCloseTo(0.8, 12);
    expect(litres('fish-fumet', 3, { water: 3 }, 2.7, 'sauce base')).toBeCloseTo(1.35, 12);
    // and what a reduction is expected to give is what its mark says, within its own range
    for (const u of allRecipes.filter((x) => x.kind === 'reduction'))
      for (const m of u.marks) {
        const plain = withWays(u, []);
        const went = { baseMg: 1, ingredients: plain.ingredients.map((i) => ({ id: i.id, massMg: i.perBase })) };
        expect(markOf(plain, went, plain.output.mean, m.factor), u.id).toBeGreaterThanOrEqual(plain.output.low);
        expect(markOf(plain, went, plain.output.mean, m.factor), u.id).toBeLessThanOrEqual(plain.output.high);
      }
  });

  it('no recipe gives more than goes into it', () => {
    for (const u of allRecipes) {
      const chosen = u.questions.map((q) => q.ways.map((w) => w.id));
      const every = chosen.reduce<string[][]>((all, ways) => all.flatMap((a) => ways.map((w) => [...a, w])), [[]]);
      for (const ways of every) {
        const made = withWays(u, ways);
        const goesIn = 1 + made.ingredients.reduce((sum, i) => sum + i.perBase, 0);
        expect(made.output.high, `${u.id} ${ways.join(' ')}`).toBeLessThanOrEqual(goesIn + 1e-9);
      }
    }
  });
});

describe('the table of limits', () => {
  it('has every limit of the three profiles with the code that applies it and the test that shows it', () => {
    const table = limitsTable();
    const written = readFileSync(new URL('../docs/limits.md', import.meta.url), 'utf8');
    expect(written).toBe(table);
    for (const l of [...us, ...uk, ...eu]) expect(table.split(`| ${l.id} |`)).toHaveLength(2);
  });

  it('has a food and a task for each limit that is applied by itself, and some food that meets it', () => {
    for (const l of [...us, ...uk, ...eu])
      for (const c of l.covers ?? []) {
        expect(limitTasks).toContain(c.task);
        for (const f of c.foods) {
          expect(foods, l.id).toContain(f);
          const as = c.as?.[0];
          expect(limitsFor([l], l.kind, c.task, f, as), `${l.id} ${c.task} ${f}`).toEqual(
            l.certainty === 'low' ? [] : [l],
          );
        }
      }
  });
});

describe('allergens of what the steps use', () => {
  // words of the kitchen and the group of (EU) 1169/2011 Annex II that they bring
  const words: readonly (readonly [RegExp, string])[] = [
    [/\b(butter|cream|milk|yoghurt|cheese)\b/i, 'milk'],
    [/\b(flour(ed)?|bread|crumbs?|crumbed|wrappers?|noodles|roux)\b/i, 'gluten'],
    [/\b(wine|vinegar)\b/i, 'sulphites'],
    [/\b(eggs?|mayonnaise)\b/i, 'eggs'],
    [/\bmustard\b/i, 'mustard'],
    [/\bsoy\b/i, 'soybeans'],
    [/\bcelery\b/i, 'celery'],
  ];
  it('stand among its ingredients, in the way in which the step stands', () => {
    for (const u of allRecipes)
      for (const step of u.steps)
        for (const way of step.ways ?? [''])
          for (const [word, group] of words) {
            const about = step.text.replace(/white sauce|egg wash/gi, '');
            if (!word.test(about) || /no (butter|cream|boil after milk)|vinegar or wine/i.test(about)) continue;
            const made = withWays(u, way === '' ? [] : [way]);
            const has = [...u.allergens, ...made.ingredients.filter((i) => i.perBase > 0).flatMap((i) => i.allergens)];
            expect(hasAllergen(has, group), `${u.id}: ${step.text} (${group})`).toBe(true);
          }
  });

  it('name the cereal and the nut, as EU law asks', () => {
    for (const u of allRecipes)
      for (const id of [...u.allergens, ...u.ingredients.flatMap((i) => i.allergens)])
        expect(['gluten', 'nuts'], `${u.id}`).not.toContain(id);
    expect(allergenWords(['gluten/wheat', 'fish/cod', 'fish/hake', 'milk'])).toEqual([
      'cereals containing gluten (wheat)',
      'fish (cod, hake)',
      'milk',
    ]);
    // FALCPA: wheat, the species of fish and crustacean, and the nut by name
    expect(allergenWords(['gluten/wheat', 'gluten/barley', 'crustaceans/lobster', 'nuts/almond'], true)).toEqual([
      'wheat',
      'cereals containing gluten (barley)',
      'crustacean shellfish (lobster)',
      'tree nuts (almond)',
    ]);
    expect(allergenWords(['fish', 'fish/cod'])).toEqual(['fish (cod, and another)']);
  });
});
