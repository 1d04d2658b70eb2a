/** The catalogue's goods, inspections, cautions and keeping, held against each other and the limits. */
import {
  allCautions,
  allGoods,
  allSpecies,
  allUses,
  categoryById,
  formsHistamine,
  frozenDays,
  inspectionById,
  inspectionClasses,
  inspectionClassOf,
  limitProfiles,
  speciesById,
  standingCaution,
} from '@zabrik/catalogue';
import { cautionSchema, goodsSchema, inspectionClassSchema } from '@zabrik/contract';
import {
  adviseInspection,
  allergens,
  claimOf,
  figureOf,
  isLooser,
  judgeLot,
  judgeReceiving,
  type Limit,
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
    const ingredients = new Set(allUses.flatMap((u) => u.ingredients.map((i) => i.id)));
    for (const g of allGoods) {
      expect(goodsSchema.safeParse(g).error?.message ?? g.id).toBe(g.id);
      for (const a of g.allergens) expect(allergens.map((x) => x.id)).toContain(a);
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
    for (const s of allSpecies) expect(inspectionById.has(inspectionClassOf[s.group] ?? ''), s.group).toBe(true);
    for (const c of inspectionClasses) {
      expect(inspectionClassSchema.safeParse(c).error?.message ?? c.id).toBe(c.id);
      expect(
        c.points.some((p) => p.critical),
        c.id,
      ).toBe(true);
      for (const [profile, id] of Object.entries(c.limits))
        expect(
          limitProfiles.find((p) => p.id === profile)?.limits.some((l) => l.id === id),
          `${c.id} ${id}`,
        ).toBe(true);
    }
    expect(inspectionClasses.length).toBeGreaterThanOrEqual(10);
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
  const fish = { frozen: false, frozenBefore: false, histamine: true, fish: true };

  // FDA Hazards guide ch. 7 as recalled: 8 h above 4.4 °C, 4 h once any reading is above 21 °C
  it('counts histamine hours straight between readings, and shortens them once it was warm', () => {
    const hours = (...log: ReturnType<typeof at>[]) => judgeLot(uk, fish, log).find((j) => j.about === 'histamine');
    expect(hours(at(0, 2), at(2, 6.8), at(4, 2))).toMatchObject({ verdict: 'within', allowed: 8 });
    expect(hours(at(0, 2), at(2, 6.8), at(4, 2))?.figure).toBeCloseTo(2, 6);
    expect(hours(at(0, 10), at(9, 10))).toMatchObject({ verdict: 'outside', figure: 9 });
    expect(hours(at(0, 22), at(5, 10))).toMatchObject({ verdict: 'outside', allowed: 4 });
  });

  // EU 853/2004 as amended, and the UK's assimilated text, as recalled: -20 °C for 24 h, or -35 °C for 15 h, all parts
  it('holds a freezing for raw fish against its hours, and starts anew when it got warm', () => {
    const freezing = (frozen: boolean, ...log: ReturnType<typeof at>[]) =>
      judgeLot(uk, { ...fish, frozen, frozenBefore: true }, log).find((j) => j.about === 'parasites')?.verdict;
    expect(freezing(true, at(0, 1), at(4, -21), at(28, -21))).toBe('within');
    expect(freezing(true, at(0, 1), at(4, -21), at(20, -21))).toBe('open');
    expect(freezing(false, at(0, 1), at(4, -21), at(20, -21))).toBe('outside');
    expect(freezing(true, at(0, -36), at(15, -36))).toBe('within');
    expect(freezing(false, at(0, -21), at(12, -15), at(30, -21))).toBe('outside');
    expect(freezing(true, at(0, 1), at(9, -12))).toBeUndefined();
  });

  it('says nothing without a reading', () => {
    expect(judgeLot(uk, fish, [])).toEqual([]);
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
      expect(speciesById.has(id) && formsHistamine(id)).toBe(true);
    for (const id of ['hake', 'plaice', null]) expect(formsHistamine(id)).toBe(false);
    for (const id of categoryById.keys()) expect(frozenDays(id)).toBeGreaterThanOrEqual(30);
    expect(frozenDays(null)).toBe(90);
  });
});
