/** The catalogue's goods, inspections, cautions and keeping, held against each other and the limits. */
import {
  allCautions,
  allGoods,
  allRecipes,
  allSpecies,
  categoryById,
  frozenDays,
  inspectionById,
  inspectionClasses,
  limitProfiles,
  speciesById,
  standingCaution,
} from '@zabrik/catalogue';
import { cautionSchema, goodsSchema, inspectionClassSchema } from '@zabrik/contract';
import {
  adviseInspection,
  cameAs,
  claimOf,
  type Food,
  figureOf,
  formsHistamine,
  inspectionFor,
  isKnownAllergen,
  isLooser,
  judgeLot,
  judgeReceiving,
  type Limit,
  recordIsWhole,
  withFigure,
} from '@zabrik/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const limit = (id: string): Limit => {
  const found = limitProfiles.flatMap((p) => p.limits).find((l) => l.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};

describe('goods', () => {
  it('fit their schema, name allergens and ingredients that exist, and say where their trim share is from', () => {
    const ingredients = new Set(allRecipes.flatMap((u) => u.ingredients.map((i) => i.id)));
    for (const g of allGoods) {
      expect(goodsSchema.safeParse(g).error?.message ?? g.id).toBe(g.id);
      for (const a of g.allergens) expect(isKnownAllergen(a), a).toBe(true);
      if (g.ingredient !== undefined) expect(ingredients, g.id).toContain(g.ingredient);
      if (g.trim !== undefined) {
        expect(g.trim.low).toBeLessThan(g.trim.mean);
        expect(g.trim.high).toBeGreaterThan(g.trim.mean);
        expect(g.trim.source.length).toBeGreaterThan(5);
      }
    }
    expect(new Set(allGoods.map((g) => g.id)).size).toBe(allGoods.length);
    // a stock needs its vegetables and a mousseline its cream
    for (const id of ['vegetables', 'cream', 'egg-white', 'white-wine'])
      expect(allGoods.some((g) => g.ingredient === id)).toBe(true);
  });
});

describe('inspection', () => {
  it('has a class for every animal, and limits that the profiles have', () => {
    for (const s of allSpecies)
      for (const f of s.forms)
        for (const came of cameAs)
          for (const raised of ['wild', 'farmed'] as const)
            expect(inspectionById.has(inspectionFor(s, f.id, came, raised)), `${s.id} ${f.id}`).toBe(true);
    for (const c of inspectionClasses) {
      expect(inspectionClassSchema.safeParse(c).error?.message ?? c.id).toBe(c.id);
      expect(
        c.points.some((p) => p.critical),
        c.id,
      ).toBe(true);
    }
    expect(inspectionClasses.length).toBeGreaterThanOrEqual(10);
  });

  it('asks what can be asked of the form and state it came in', () => {
    const of = (id: string, form: string, came: 'fresh' | 'live' | 'frozen' = 'fresh', raised?: 'wild' | 'farmed') =>
      inspectionFor(speciesById.get(id), form, came, raised);
    const asks = (classId: string) => (inspectionById.get(classId)?.points ?? []).map((p) => p.ask).join(' ');
    expect(asks(of('tuna', 'loin'))).not.toMatch(/eyes|gills/i);
    expect(asks(of('cod', 'headed-gutted'))).not.toMatch(/eyes|gills/i);
    expect(asks(of('cod', 'gutted'))).toMatch(/eyes/i);
    expect(asks(of('squid', 'whole'))).not.toMatch(/tap|alive/i);
    expect(asks(of('brown-crab', 'cooked'))).not.toMatch(/alive/i);
    expect(asks(of('brown-crab', 'whole', 'live'))).toMatch(/alive/i);
    expect(asks(of('mussel', 'whole', 'live'))).toMatch(/tap/i);
    expect(asks(of('rabbit', 'whole'))).not.toMatch(/shot|trained person/i);
    expect(asks(of('rabbit', 'whole', 'fresh', 'wild'))).toMatch(/trained person/i);
    expect(asks(of('roe-deer', 'whole', 'fresh', 'farmed'))).not.toMatch(/trained person/i);
    expect(of('cod', 'gutted', 'frozen')).toBe('frozen');
  });

  it('knows when the record of wild game is whole', () => {
    expect(recordIsWhole({})).toBe(false);
    expect(recordIsWhole({ shotBy: 'a keeper', killedOn: '2026-11-22' })).toBe(false);
    expect(recordIsWhole({ shotBy: 'a keeper', killedOn: '2026-11-22', killPlace: 'north wood' })).toBe(true);
    expect(recordIsWhole({ declaration: '417' })).toBe(true);
  });

  it('one critical no advises to send back; a doubt, or a critical point nobody looked at, to look again', () => {
    const points = (inspectionById.get('round-fish')?.points ?? []).filter((p) => p.sense !== 'measure');
    const all = (good: boolean, except: string[] = []) =>
      points.map((p) => ({ pointId: p.id, good: except.includes(p.id) ? !good : good }));
    expect(adviseInspection(points, all(true))).toBe('accept');
    expect(adviseInspection(points, all(true, ['gills']))).toBe('refuse');
    expect(adviseInspection(points, all(true, ['eyes']))).toBe('look-again');
    expect(adviseInspection(points, [{ pointId: 'eyes', good: true }])).toBe('look-again');
  });
});

describe('receiving temperatures', () => {
  // each limit names its document in limits.json; figures recalled from memory
  it('are judged by the limit selected, with the probe’s own error against the delivery', () => {
    expect(judgeReceiving(limit('us.recv.tcs'), 500)?.verdict).toBe('within');
    expect(judgeReceiving(limit('us.recv.tcs'), 510)?.verdict).toBe('outside');
    expect(judgeReceiving(limit('eu.recv.fish'), 200)?.verdict).toBe('within');
    expect(judgeReceiving(limit('eu.recv.fish'), 180, 0.5)?.verdict).toBe('outside');
    expect(judgeReceiving(limit('us.recv.hot'), 5_600)?.verdict).toBe('outside');
  });

  it('are not judged by what we are not sure of, nor by a rule without a figure', () => {
    const unsure = { ...limit('us.recv.tcs'), certainty: 'low' } as Limit;
    expect(judgeReceiving(unsure, 900)).toBeUndefined();
    expect(judgeReceiving(limit('us.recv.source.fish'), 900)).toBeUndefined();
    expect(judgeReceiving(undefined, 900)).toBeUndefined();
  });
});

describe('a house’s own figure', () => {
  it('replaces the document’s, is known to be looser or stricter, and takes a stale Fahrenheit with it', () => {
    const published = limit('us.recv.tcs');
    expect(figureOf(withFigure(published, 4))).toBe(4);
    expect(withFigure(published, 4).value).toEqual({ max_C: 4 });
    expect([isLooser(published, 4), isLooser(published, 6)]).toEqual([false, true]);
    expect([isLooser(limit('uk.hot'), 60), isLooser(limit('uk.hot'), 65)]).toEqual([true, false]);
    expect(figureOf(limit('us.separate'))).toBeUndefined();
  });

  it('of any limit that has one is read back as it was set', () => {
    for (const l of limitProfiles.flatMap((p) => p.limits))
      if (figureOf(l) !== undefined) expect(figureOf(withFigure(l, 3)), l.id).toBe(3);
  });
});

describe('a lot against the limits', () => {
  const uk = limitProfiles.find((p) => p.id === 'uk')?.limits ?? [];
  const at = (hours: number, C: number) => ({
    at: new Date(Date.UTC(2026, 10, 24) + hours * 3_600_000).toISOString(),
    C,
  });
  const fish = { food: 'scombroid' as const, frozen: false, frozenBefore: false, dateLimitId: null, dateMaxC: null };
  const judged = (lot: Partial<Parameters<typeof judgeLot>[1]>, log: ReturnType<typeof at>[], nowHours = 0) =>
    judgeLot(uk, { ...fish, ...lot }, log, at(Math.max(nowHours, 0), 0).at);
  const histamine = (log: ReturnType<typeof at>[], nowHours: number) =>
    judged({}, log, nowHours).find((j) => j.about === 'histamine');

  // FDA Hazards guide ch. 7 as recalled: 8 h above 4.4 °C, 4 h once any reading is above 21 °C
  it('counts histamine hours at the worst the readings allow, and shortens them once it was warm', () => {
    expect(histamine([at(0, 2), at(2, 6.8), at(4, 2)], 5)).toMatchObject({ verdict: 'within', allowed: 8, figure: 4 });
    expect(histamine([at(0, 10), at(9, 10)], 9)).toMatchObject({ verdict: 'outside', figure: 9 });
    expect(histamine([at(0, 22), at(5, 10)], 5)).toMatchObject({ verdict: 'outside', allowed: 4 });
  });

  it('shows nothing of histamine where nobody read it: a day between two cold readings, one warm one alone', () => {
    expect(histamine([at(0, 2), at(24, 2)], 24)).toMatchObject({ verdict: 'not-shown', unreadHours: 24 });
    expect(histamine([at(0, 2), at(11, 2)], 11.5)?.verdict).toBe('within');
    expect(histamine([at(0, 2)], 13)?.verdict).toBe('not-shown');
    expect(histamine([at(0, 30)], 0.5)?.verdict).toBe('open');
    expect(histamine([at(0, 30)], 5)?.verdict).toBe('not-shown');
    expect(histamine([at(0, 2), at(7, 3), at(9, 9)], 16)?.verdict).toBe('not-shown');
  });

  // EU 853/2004 as amended, and the UK's assimilated text, as recalled: -20 °C for 24 h, or -35 °C for 15 h, all parts
  it('holds a freezing for raw fish against its hours, and starts anew when it got warm', () => {
    const freezing = (frozen: boolean, ...log: ReturnType<typeof at>[]) =>
      judged({ frozen, frozenBefore: true }, log, 400).find((j) => j.about === 'parasites');
    expect(freezing(true, at(0, 1), at(4, -21), at(16, -21), at(28, -21))?.verdict).toBe('within');
    expect(freezing(true, at(0, 1), at(4, -21), at(28, -21))).toMatchObject({ verdict: 'not-shown', unreadHours: 24 });
    expect(freezing(true, at(0, -21), at(168, -21))?.verdict).toBe('not-shown');
    expect(freezing(true, at(0, 1), at(4, -21), at(15, -21), at(20, -21))?.verdict).toBe('open');
    expect(freezing(false, at(0, 1), at(4, -21), at(15, -21), at(20, -21))?.verdict).toBe('outside');
    expect(freezing(true, at(0, -36), at(8, -36), at(15, -36))?.verdict).toBe('within');
    // a warm reading between begins the count again, whatever was held before it
    expect(freezing(true, at(0, -21), at(12, -15), at(24, -21), at(30, -21))).toMatchObject({
      verdict: 'open',
      figure: 6,
    });
    expect(freezing(true, at(0, 1), at(9, -12))).toBeUndefined();
  });

  it('stores each food by its own limit, and its date by the cold it presumes', () => {
    const storage = (food: Food, C: number, profile = 'uk') =>
      judgeLot(
        limitProfiles.find((p) => p.id === profile)?.limits ?? [],
        { ...fish, food },
        [at(0, C)],
        at(0, 0).at,
      ).find((j) => j.about === 'storage');
    // fresh fish belongs on melting ice; 8 °C is the law for other food in England
    expect(storage('scombroid', 7)).toMatchObject({ verdict: 'outside', allowed: 2 });
    expect(storage('ready', 7)).toMatchObject({ verdict: 'within', allowed: 8 });
    expect(storage('ready', 15, 'eu')?.verdict).toBe('outside');
    expect(storage('poultry', 5, 'eu')).toMatchObject({ verdict: 'outside', allowed: 4 });
    expect(storage('meat', 6, 'eu')).toMatchObject({ verdict: 'within', allowed: 7 });
    expect(storage('small-game', 6, 'eu')?.verdict).toBe('outside');
    const date = (C: number, lot: object) =>
      judged({ food: 'ready', ...lot }, [at(0, C)]).find((j) => j.about === 'date')?.verdict;
    expect(date(6, { dateLimitId: 'uk.date.cookchill' })).toBe('outside');
    expect(date(3, { dateLimitId: 'uk.date.cookchill' })).toBe('within');
    expect(date(4, { dateMaxC: 3 })).toBe('outside');
    expect(date(4, {})).toBeUndefined();
  });

  it('says nothing without a reading, and nothing good of one that is no number', () => {
    expect(judged({}, [])).toEqual([]);
    for (const j of judged({ dateMaxC: 3 }, [at(0, Number.NaN)])) expect(j.verdict, j.about).toBe('not-shown');
  });
});

describe('a claim', () => {
  const tolerance = { toleranceShare: 0.01, toleranceMg: 10_000 };
  const line = (o: object) => ({
    id: 'a',
    netMg: 1_000_000,
    refusedMg: 0,
    invoiceMg: 1_000_000,
    paidMinor: 780,
    refused: false,
    ...o,
  });

  it('is for what is short beyond the tolerance, what went back, and a line refused whole', () => {
    expect(claimOf([line({ netMg: 960_000 })], tolerance)).toEqual({
      lines: [{ id: 'a', shortMg: 40_000, refusedMg: 0, claimMinor: 31, overMg: 0 }],
      claimMinor: 31,
    });
    expect(claimOf([line({ netMg: 991_000 })], tolerance).lines).toEqual([]);
    expect(claimOf([line({ netMg: 1_050_000 })], tolerance)).toMatchObject({
      claimMinor: 0,
      lines: [{ overMg: 50_000 }],
    });
    expect(claimOf([line({ refused: true, netMg: 0 })], tolerance).claimMinor).toBe(780);
    expect(claimOf([line({ refusedMg: 250_000 })], tolerance).claimMinor).toBe(195);
  });

  it('is never more than the invoice asked', () => {
    const any = fc.record({
      id: fc.constant('x'),
      netMg: fc.nat(9e6),
      refusedMg: fc.nat(9e6),
      invoiceMg: fc.integer({ min: 1, max: 9e6 }),
      paidMinor: fc.nat(99_999),
      refused: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 5 }), (lines) => {
        const claim = claimOf(lines, tolerance);
        expect(claim.claimMinor).toBeLessThanOrEqual(lines.reduce((sum, l) => sum + l.paidMinor, 0));
        for (const l of claim.lines) expect(l.claimMinor).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('cautions and keeping', () => {
  it('fit their schema, and stand under a line that defers to others', () => {
    for (const c of allCautions) expect(cautionSchema.safeParse(c).error?.message ?? c.id).toBe(c.id);
    expect(allCautions.length).toBeGreaterThan(60);
    expect(standingCaution).toMatch(/local code/);
    for (const id of ['receiving', 'molluscs', 'game.source']) expect(allCautions.some((c) => c.id === id)).toBe(true);
  });

  it('know the fish that form histamine, and how long a kind keeps frozen', () => {
    for (const id of ['mackerel', 'herring', 'tuna', 'kingfish'])
      expect(formsHistamine(speciesById.get(id)), id).toBe(true);
    for (const id of ['hake', 'plaice', 'salmon', '']) expect(formsHistamine(speciesById.get(id)), id).toBe(false);
    // a species the house adds: by its genus, by its name, or as it was said
    const own = (name: string, scientific: string, histamine?: boolean) =>
      formsHistamine({ name, scientific, group: 'round-fish', ...(histamine === undefined ? {} : { histamine }) });
    for (const [name, scientific] of [
      ['Sardine', 'Sardina pilchardus'],
      ['Anchovy', 'not given'],
      ['Mahi-mahi', 'Coryphaena hippurus'],
      ['Bonito', 'Sarda sarda'],
      ['Our own', 'Pomatomus saltatrix'],
    ] as const)
      expect(own(name, scientific), name).toBe(true);
    expect(own('Our own', 'not given', true)).toBe(true);
    expect(own('Pouting', 'Trisopterus luscus')).toBe(false);
    for (const id of categoryById.keys()) expect(frozenDays(id)).toBeGreaterThanOrEqual(30);
    expect(frozenDays(null)).toBe(90);
  });
});
