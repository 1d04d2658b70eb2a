/** Heat: worked cases of cooling, boiling, lethality and freezing; an independent integrator; solids of the textbooks. */
import { readFileSync } from 'node:fs';
import { limitProfiles } from '@zabrik/catalogue';
import { conduction, lethalityTargets, media, trays } from '@zabrik/catalogue/heat';
import {
  boilRate,
  concentrated,
  cookingProgress,
  coolingCurve,
  coolingProgress,
  equivalentMinutes,
  evaporationRate,
  firstTerm,
  fitCooling,
  fitTimeConstant,
  heatUpSeconds,
  hoursAbove,
  iceNeeded,
  judgeFreezing,
  LATENT_AT_BOIL,
  type Limit,
  latentHeat,
  lethality,
  logReductions,
  minutesTo,
  saturationPressure,
  secondsToCentre,
  secondsToFreeze,
  secondsUntilHot,
  surroundingsOf,
  timeConstant,
  vapourDensity,
  zOf,
} from '@zabrik/core';
import { Solver } from 'odex';
import { describe, expect, it } from 'vitest';

interface Faces {
  readonly top: number;
  readonly side: number;
  readonly bottom: number;
  readonly top_c?: number;
  readonly top_r?: number;
}
type Name =
  | 'A'
  | 'D'
  | 'F'
  | 'L'
  | 'P'
  | 'RH'
  | 'T'
  | 'T0'
  | 'T1'
  | 'T2'
  | 'Ta'
  | 'Tair'
  | 'Tenv'
  | 'Tref'
  | 'Ts'
  | 'V'
  | 'W'
  | 'alpha'
  | 'chillMin'
  | 'efficiency'
  | 'endC'
  | 'from21to5min'
  | 'latent'
  | 'pricePerKWh'
  | 'startDelayMin'
  | 'to21min'
  | 'c'
  | 'coreC'
  | 'cp'
  | 'dT'
  | 'depth'
  | 'eta'
  | 'factor'
  | 'from'
  | 'fusion'
  | 'halfThickness'
  | 'hc'
  | 'hours'
  | 'k'
  | 'kW'
  | 'kg'
  | 'loss'
  | 'm'
  | 'ref'
  | 'refMin'
  | 'rho'
  | 'saltGPerL'
  | 'solidsStart'
  | 'solidsTarget'
  | 'startKg'
  | 'startL'
  | 't'
  | 't1'
  | 't2'
  | 'tMin'
  | 'target'
  | 'to'
  | 'wantL'
  | 'z';
type Numbers = Readonly<Partial<Record<Name, number>>> & {
  readonly h: Faces;
  readonly log: readonly { readonly t: number; readonly T: number }[];
};
interface Case {
  readonly id: string;
  readonly op: string;
  readonly input: Numbers;
  readonly expected: number;
  readonly tolerance: number;
  readonly source: string;
}
interface Check {
  readonly id: string;
  readonly topic: string;
  readonly title: string;
  readonly inputs: Numbers & { readonly points: readonly (readonly [number, number])[] };
  readonly expected: Readonly<Record<string, number>>;
  readonly tolerance: { readonly type: 'abs' | 'rel' | 'exact'; readonly value: number };
}
const file = JSON.parse(readFileSync(new URL('cases/heat.json', import.meta.url), 'utf8')) as {
  cases: Case[];
  checks: Check[];
};

/** A pot or a tray as the cases write them, in metres. */
const batchOf = (i: Numbers, fromC: number) =>
  i.depth === undefined
    ? {
        vessel: { kind: 'round' as const, diameterMm: (i.D ?? 0) * 1_000, heightMm: 1_000 },
        litres: (i.V ?? 0) * 1_000,
        density: (i.rho ?? 1_000) / 1_000,
        heat: i.c ?? 4_000,
        fromC,
      }
    : {
        vessel: {
          kind: 'long' as const,
          lengthMm: (i.L ?? 0) * 1_000,
          widthMm: (i.W ?? 0) * 1_000,
          heightMm: 1_000,
        },
        litres: (i.L ?? 0) * (i.W ?? 0) * i.depth * 1_000,
        density: (i.rho ?? 1_000) / 1_000,
        heat: i.c ?? 4_000,
        fromC,
      };
const hoursTo = (i: Numbers, medium: Parameters<typeof coolingCurve>[1], toC: number): number => {
  const { C } = coolingCurve(batchOf(i, i.T0 ?? 0), medium, { minutes: 2_000, stopC: toC });
  return (minutesTo(C, toC) ?? Number.NaN) / 60;
};
const around = (i: Numbers) => ({ airC: i.Tenv ?? 0, top: i.h.top, side: i.h.side, bottom: i.h.bottom });
const logOf = (i: Numbers, unit = 1) => i.log.map((r) => ({ minute: r.t * unit, C: r.T }));
const no = { airC: 0, top: 0, side: 0, bottom: 0 };

const ops: Readonly<Record<string, (i: Numbers) => number>> = {
  tauH_cyl: (i) => timeConstant(batchOf(i, 57), { ...no, ...i.h }) / 3_600,
  newton_cyl: (i) => hoursTo(i, around(i), i.T1 ?? 0),
  newton_pan: (i) => hoursTo(i, around(i), i.T1 ?? 0),
  tauMax: (i) => (i.hours ?? 0) / Math.log(((i.T0 ?? 0) - (i.Tenv ?? 0)) / ((i.T1 ?? 0) - (i.Tenv ?? 0))),
  threePointEnv: (i) => surroundingsOf(...(i.T as unknown as [number, number, number])),
  fitTau: (i) => fitTimeConstant(logOf(i), i.Tenv ?? 0) ?? Number.NaN,
  iceKg: (i) => iceNeeded(i.kg ?? 0, i.T0 ?? 0, i.T1 ?? 0, (i.c ?? 0) * 1_000),
  openCool_pan: (i) =>
    hoursTo(
      i,
      {
        airC: i.Tair ?? 0,
        top: (i.h.top_c ?? 0) + (i.h.top_r ?? 0),
        side: i.h.side,
        bottom: i.h.bottom,
        open: { convection: i.h.top_c ?? 0, humidity: i.RH ?? 0 },
      },
      i.target ?? 0,
    ),
  slabCentre: (i) =>
    secondsToCentre(
      {
        shape: 'slab',
        halfM: i.halfThickness ?? 0,
        h: i.h as unknown as number,
        k: i.k ?? 0,
        alpha: i.alpha ?? 0,
        fromC: i.T0 ?? 0,
        mediumC: i.Tenv ?? 0,
      },
      i.T1 ?? 0,
    ) ?? Number.NaN,
  boil_kg_h: (i) => boilRate({ watts: i.P ?? 0, efficiency: i.eta ?? 0 }, i.loss ?? 0) * 3_600,
  heatUpMin: (i) => (heatUpSeconds(i.m ?? 0, i.dT ?? 0, { watts: i.P ?? 0, efficiency: i.eta ?? 0 }, 0, i.c) ?? 0) / 60,
  evap_kg_h: (i) =>
    3_600 *
    evaporationRate({
      surfaceC: i.Ts ?? 0,
      airC: i.Tair ?? 0,
      humidity: i.RH ?? 0,
      convection: i.hc ?? 0,
      areaM2: i.A ?? 0,
    }),
  psat: (i) => saturationPressure(i.T ?? 0),
  hfg_kJ: (i) => latentHeat(i.T ?? 0) / 1_000,
  equivTime: (i) => equivalentMinutes({ refC: i.Tref ?? 0, z: i.z ?? 1, minutes: i.t ?? 0 }, i.T ?? 0),
  zFrom: (i) => zOf({ C: i.T1 ?? 0, minutes: i.t1 ?? 0 }, { C: i.T2 ?? 0, minutes: i.t2 ?? 0 }),
  fValue: (i) =>
    lethality(logOf(i), { refC: i.Tref ?? 0, z: i.z ?? 1, minutes: 0 }, { floorC: Number.NEGATIVE_INFINITY }),
  logRed: (i) => logReductions(i.F ?? 0, i.D ?? 1),
  timeAbove: (i) => hoursAbove(logOf(i, 60), i.T ?? 0),
};

describe('worked cases of heat', () => {
  it.each(file.cases.map((c) => [c.id, c.source, c] as const))('%s: %s', (_, __, c) => {
    const op = ops[c.op];
    if (op === undefined) throw new Error(`nobody runs ${c.op}`);
    expect(Math.abs(op(c.input) - c.expected)).toBeLessThanOrEqual(Math.max(c.tolerance, 1e-9));
  });
});

/** Cooling rules of the handbook's checks; France, Australia and Newton's law beside the profiles the app ships. */
const rule = (start_C: number, ...steps: readonly (readonly [number, number])[]) =>
  ({
    ...us(),
    kind: 'cooling',
    value: { start_C, steps: steps.map(([to_C, within_min]) => ({ to_C, within_min })) },
  }) as Extract<Limit, { kind: 'cooling' }>;
const limitOf = (profile: string, id: string): Limit => {
  const found = limitProfiles.find((p) => p.id === profile)?.limits.find((l) => l.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};
const progress = (limit: Limit, points: readonly (readonly [number, number])[]) => {
  if (limit.kind !== 'cooling') throw new Error(limit.id);
  return coolingProgress(
    limit,
    points.map(([minute, C]) => ({ minute, C })),
    points.at(-1)?.[0] ?? 0,
  );
};
const newton = (i: Numbers) => ({
  k: Math.log(((i.T0 ?? 0) - (i.Ta ?? 0)) / ((i.T1 ?? 0) - (i.Ta ?? 0))) / (i.tMin ?? 1),
});
const us = () => limitOf('us-food-code-2022', 'us.cool.cooked');
const twoSteps = (c: Check) => {
  const p = progress(us(), c.inputs.points);
  return {
    to21min: p.steps[0]?.metAbout ?? Number.NaN,
    to5min: p.steps[1]?.metAbout ?? Number.NaN,
    pass: p.verdict === 'within' ? 1 : 0,
  };
};
const parasites = (c: Check) => {
  const limit = limitOf('eu', 'eu.parasite');
  if (limit.kind !== 'freeze_treatment') throw new Error(limit.id);
  const C = c.inputs.coreC ?? 0;
  return {
    pass:
      judgeFreezing(limit, { freezeC: C, holdC: C, holdHours: c.inputs.hours ?? 0, solid: true }) === 'within' ? 1 : 0,
  };
};
const at70 = (i: Numbers) => equivalentMinutes({ refC: i.ref ?? 0, z: i.z ?? 1, minutes: i.refMin ?? 0 }, i.T ?? 0);
const checks: Readonly<Record<string, (c: Check) => Readonly<Record<string, number>>>> = {
  'RD-01': ({ inputs: i }) => ({
    endL: (i.startL ?? 0) * (i.factor ?? 0),
    evaporatedL: (i.startL ?? 0) * (1 - (i.factor ?? 0)),
  }),
  'RD-02': ({ inputs: i }) => ({
    saltGPerL: concentrated(i.saltGPerL ?? 0, i.startL ?? 0, (i.startL ?? 0) * (i.factor ?? 0)),
  }),
  'RD-03': ({ inputs: i }) => {
    const endKg = concentrated(i.startKg ?? 0, i.solidsStart ?? 0, i.solidsTarget ?? 1);
    return { endKg, evaporatedKg: (i.startKg ?? 0) - endKg };
  },
  'RD-05': ({ inputs: i }) => ({ stockL: (i.wantL ?? 0) / (i.factor ?? 1) }),
  'EN-01': ({ inputs: i }) => {
    // hours of one net kilowatt at the boil; the check takes 2,257 kJ/kg, ours is 2,256.5
    const hours = (i.kg ?? 0) / (boilRate({ watts: 1_000, efficiency: 1 }, 0) * 3_600);
    const kWh = hours * ((i.latent ?? 0) / (LATENT_AT_BOIL / 1_000));
    return { kJ: kWh * 3_600, kWh };
  },
  'EN-05': ({ inputs: i }) => {
    // hours of a burner of one net kilowatt, paid for what it draws
    const hours = (i.kg ?? 0) / (boilRate({ watts: 1_000, efficiency: 1 }, 0) * 3_600);
    return {
      cost: ((hours * ((i.latent ?? 0) / (LATENT_AT_BOIL / 1_000))) / (i.efficiency ?? 1)) * (i.pricePerKWh ?? 0),
    };
  },
  'EN-03': ({ inputs: i }) => ({
    // the check takes 2,257 kJ/kg, ours is 2,256.5
    minutes:
      ((i.kg ?? 0) * 2_257_000) / (boilRate({ watts: (i.kW ?? 0) * 1_000, efficiency: 1 }, 0) * LATENT_AT_BOIL) / 60,
  }),
  'EN-02': ({ inputs: i }) => {
    const kJ =
      heatUpSeconds(i.kg ?? 0, (i.to ?? 0) - (i.from ?? 0), { watts: 1_000, efficiency: 1 }, 0, (i.cp ?? 0) * 1_000) ??
      0;
    return { kJ, kWh: kJ / 3_600 };
  },
  'EN-06': ({ inputs: i }) => ({
    iceKg:
      (iceNeeded(i.kg ?? 0, i.from ?? 0, i.to ?? 0, (i.cp ?? 0) * 1_000, i.to) * (333_550 + 4_186 * (i.to ?? 0))) /
      ((i.fusion ?? 0) * 1_000 + (i.cp ?? 0) * 1_000 * (i.to ?? 0)),
  }),
  'CO-01': twoSteps,
  'CO-02': twoSteps,
  // the check reads a straight line between readings half an hour apart; the readings allow 130 minutes, so we do not say within
  'CO-04': (c) => ({ ...twoSteps(c), pass: progress(us(), c.inputs.points).verdict === 'not-shown' ? 1 : 0 }),
  'CO-06': (c) => {
    const p = progress(rule(63, [10, 120]), c.inputs.points);
    return { minutes: p.steps[0]?.metAbout ?? Number.NaN, pass: p.verdict === 'within' ? 1 : 0 };
  },
  'CO-09': ({ inputs: i }) => {
    const { k } = newton(i);
    return { k, minutes: Math.log(((i.T0 ?? 0) - (i.Ta ?? 0)) / ((i.target ?? 0) - (i.Ta ?? 0))) / k };
  },
  // chilled from 70 °C once it is begun; the guide's half hour before it is the log's own business
  'CO-05': ({ inputs: i }) => {
    const p = progress(rule(70, [3, 90]), [
      [0, 70],
      [i.chillMin ?? 0, i.endC ?? 0],
    ]);
    return { pass: p.verdict === 'within' && (i.startDelayMin ?? 99) <= 30 ? 1 : 0 };
  },
  'CO-07': ({ inputs: i }) => {
    const to21 = i.to21min ?? 0;
    const p = progress(rule(60, [21, 120], [5, to21 + 240]), [
      [0, 60],
      [to21, 21],
      [to21 + (i.from21to5min ?? 0), 5],
    ]);
    return { pass: p.verdict === 'within' ? 1 : 0 };
  },
  'CO-10': ({ inputs: i }) => ({
    minutes: Math.log(((i.from ?? 0) - (i.Ta ?? 0)) / ((i.to ?? 0) - (i.Ta ?? 0))) / (i.k ?? 1),
  }),
  'CO-11': ({ inputs: i }) => {
    // one litre whose faces lose just as much as the constant says
    const medium = { airC: i.Ta ?? 0, top: 0, side: 0, bottom: ((i.k ?? 0) / 60) * 4_000 };
    const vessel = { kind: 'long' as const, lengthMm: 1_000, widthMm: 1_000, heightMm: 100 };
    const { C } = coolingCurve({ vessel, litres: 1, fromC: i.T0 ?? 0 }, medium, { minutes: 60 });
    return { T: C[60] ?? 0 };
  },
  'LE-01': (c) => ({ minutes: at70(c.inputs) }),
  'LE-03': (c) => ({ seconds: 60 * at70(c.inputs) }),
  'LE-04': (c) => ({ seconds: 60 * at70(c.inputs) }),
  'PA-01': parasites,
  'PA-03': parasites,
  'PA-04': parasites,
};

describe('the handbook’s checks of heat', () => {
  const batch = file.checks.filter((c) => checks[c.id] !== undefined);
  it.each(batch.map((c) => [c.id, c.title, c] as const))('%s: %s', (_, __, c) => {
    const got = checks[c.id]?.(c) ?? {};
    for (const [name, value] of Object.entries(got)) {
      const wanted = c.expected[name];
      if (wanted === undefined) throw new Error(`${c.id} has no ${name}`);
      expect(Math.abs(value - wanted), name).toBeLessThanOrEqual(Math.max(c.tolerance.value, 1e-6));
    }
  });

  it('leaves none of them out', () => {
    const inPots = ['ST-', 'BR-', 'RX-', 'LE-05'];
    const here = file.checks.filter((c) => !inPots.some((p) => c.id.startsWith(p))).map((c) => c.id);
    expect(here.filter((id) => checks[id] === undefined)).toEqual([]);
  });

  it('cooked by readings of the core: any one pair held long enough, nothing in between', () => {
    const pairs = limitOf('uk', 'uk.cook');
    if (pairs.kind !== 'cook_time_temp') throw new Error(pairs.id);
    const log = (...C: readonly number[]) => C.map((c, minute) => ({ minute, C: c }));
    expect(cookingProgress(pairs, log(60, 69, 70, 71)).verdict).toBe('open');
    expect(cookingProgress(pairs, log(60, 69, 70, 71, 70)).verdict).toBe('within');
    expect(cookingProgress(pairs, log(70, 71, 66, 70)).verdict).toBe('open');
    expect(cookingProgress(pairs, []).verdict).toBe('open');
  });

  it('LE-05: a core log read by the minute is worth at least what the sum of steps says, and less than a minute more', () => {
    const c = file.checks.find((x) => x.id === 'LE-05');
    const T = c?.inputs.T as unknown as readonly number[];
    const log = T.map((C, minute) => ({ minute, C }));
    const ours = lethality(log, { refC: 70, z: 7.5, minutes: 2 }, { floorC: 0 });
    // the check credits each reading for the minute after it; straight lines lack the last minute
    const lastMinute = 10 ** (((T.at(-1) ?? 0) - 70) / 7.5);
    expect(Math.abs(ours + lastMinute - (c?.expected['equivalentMin'] ?? 0))).toBeLessThan(0.35);
    expect(ours).toBeGreaterThan(2);
  });
});

describe('cooling', () => {
  const pot = {
    vessel: { kind: 'round' as const, diameterMm: 400, heightMm: 400 },
    litres: 40,
    density: 1,
    heat: 4_000,
    fromC: 57,
  };

  it('agrees with an independent integrator where the surface steams', () => {
    // odex: a port of Hairer's ODEX, extrapolation method (registry), against our Runge-Kutta of fixed step
    for (const medium of media.filter((m) => m.open !== undefined)) {
      const { C } = coolingCurve(pot, medium, { minutes: 600 });
      const floor = (Math.PI / 4) * 0.4 ** 2;
      const side = Math.PI * 0.4 * (0.04 / floor);
      const rate = (_: number, [T = 0]: readonly number[]): number[] => {
        const drive = vapourDensity(T) - (medium.open?.humidity ?? 0) * vapourDensity(medium.airC);
        const steam = Math.max(0, ((medium.open?.convection ?? 0) / 1_100) * floor * drive) * latentHeat(T);
        const lost = (medium.top * floor + medium.bottom * floor + medium.side * side) * (T - medium.airC);
        return [-(lost + steam) / (40 * 4_000)];
      };
      const solver = new Solver(1);
      solver.absoluteTolerance = 1e-9;
      solver.relativeTolerance = 1e-9;
      for (const minute of [30, 120, 360, 600])
        expect(C[minute]).toBeCloseTo(solver.solve(rate, 0, [57], minute * 60).y[0] ?? 0, 4);
    }
  });

  it('shows what the models page shows: deep pots fail, ice baths and shallow open trays pass the US steps', () => {
    const steps = us();
    if (steps.kind !== 'cooling') throw new Error(steps.id);
    const judged = (medium: string, vessel: Parameters<typeof coolingCurve>[0]['vessel'], litres: number) => {
      const place = media.find((m) => m.id === medium);
      if (place === undefined) throw new Error(medium);
      const { C } = coolingCurve({ ...pot, vessel, litres }, place, { minutes: 900 });
      return coolingProgress(
        steps,
        C.map((c, minute) => ({ minute, C: c })),
        C.length - 1,
      ).verdict;
    };
    const tray = { kind: 'long' as const, lengthMm: 530, widthMm: 325, heightMm: 100 };
    expect(judged('cold-room-lidded', pot.vessel, 40)).toBe('outside');
    expect(judged('cold-room-floor', pot.vessel, 40)).toBe('outside');
    expect(judged('cold-room-open', pot.vessel, 40)).toBe('outside');
    expect(judged('ice-bath-still', pot.vessel, 40)).toBe('within');
    expect(judged('ice-bath-stirred', pot.vessel, 40)).toBe('within');
    expect(judged('cold-room-lidded', tray, 530 * 325 * 50 * 1e-6)).toBe('outside');
    expect(judged('cold-room-open', tray, 530 * 325 * 50 * 1e-6)).toBe('within');
    expect(judged('cold-room-fan', tray, 530 * 325 * 50 * 1e-6)).toBe('within');
    expect(judged('cold-room-open', tray, 530 * 325 * 100 * 1e-6)).toBe('outside');
    expect(judged('blast-chiller', trays[0]?.shape ?? tray, 6)).toBe('within');
  });

  it('gets slower once it has set: a gelled tray cools as a slab does', () => {
    const tray = { kind: 'long' as const, lengthMm: 505, widthMm: 305, heightMm: 100 };
    const base = { vessel: tray, litres: 12, fromC: 57, conductivity: 0.5 };
    const medium = { airC: 3, top: 40, side: 0, bottom: 40 };
    const loose = minutesTo(coolingCurve(base, medium, { minutes: 900 }).C, 5) ?? 0;
    const set = minutesTo(coolingCurve({ ...base, setsAtC: 15 }, medium, { minutes: 900 }).C, 5) ?? 0;
    expect(set).toBeGreaterThan(1.5 * loose);
  });

  it('learns from the probe: after four readings it foretells the rest better than the handbook’s figure', () => {
    const medium = { airC: 3, top: 10, side: 10, bottom: 10 };
    for (const truth of [0.5, 0.75, 1.4, 2.2]) {
      const real = coolingCurve(pot, medium, { minutes: 1_400, scale: truth });
      const noise = [0.3, -0.2, 0.4, -0.35, 0.1];
      const log = [0, 30, 60, 90, 120].map((minute, i) => ({
        minute,
        C: (real.C[minute] ?? 0) + (i === 0 ? 0 : (noise[i] ?? 0)),
      }));
      const fit = fitCooling(pot, medium, log);
      expect(Math.abs(Math.log(fit.scale / truth))).toBeLessThan(0.12);
      expect(fit.logSd).toBeLessThan(0.15);
      const target = 21;
      const really = minutesTo(real.C, target) ?? 0;
      const foretold = minutesTo(coolingCurve(pot, medium, { minutes: 3_000, scale: fit.scale }).C, target) ?? 0;
      const naive = minutesTo(coolingCurve(pot, medium, { minutes: 3_000 }).C, target) ?? 0;
      expect(Math.abs(foretold - really)).toBeLessThan(Math.abs(naive - really));
    }
  });
});

describe('heat through solid food', () => {
  it('has the roots of the textbooks’ tables', () => {
    // Incropera, Fundamentals of Heat and Mass Transfer, table of one-term coefficients; recalled
    const table = [
      ['slab', 0.1, 0.3111, 1.0161],
      ['slab', 1, 0.8603, 1.1191],
      ['slab', 10, 1.4289, 1.262],
      ['cylinder', 0.1, 0.4417, 1.0246],
      ['cylinder', 1, 1.2558, 1.2071],
      ['cylinder', 10, 2.1795, 1.5677],
      ['sphere', 0.1, 0.5423, 1.0298],
      ['sphere', 1, 1.5708, 1.2732],
      ['sphere', 10, 2.8363, 1.9249],
    ] as const;
    for (const [shape, biot, root, constant] of table) {
      const got = firstTerm(shape, biot);
      expect(got.root, `${shape} ${biot}`).toBeCloseTo(root, 3);
      expect(got.constant, `${shape} ${biot}`).toBeCloseTo(constant, 3);
    }
  });

  it('takes four times as long at twice the thickness, and thick before thin', () => {
    const at = (halfM: number) =>
      secondsToCentre(
        { shape: 'slab', halfM, h: 1e6, k: conduction.k, alpha: conduction.alpha, fromC: 5, mediumC: 60 },
        55,
      ) ?? 0;
    expect(at(0.02) / at(0.01)).toBeCloseTo(4, 2);
    expect(secondsToCentre({ shape: 'slab', halfM: 0.01, h: 10, k: 0.5, alpha: 1e-7, fromC: 5, mediumC: 50 }, 55)).toBe(
      undefined,
    );
  });

  it('never calls a core on its way to what is hotter than all around it', () => {
    const at = (fromC: number, mediumC: number, toC: number) =>
      secondsUntilHot(
        { shape: 'slab', halfM: 0.02, h: 1e3, k: conduction.k, alpha: conduction.alpha, fromC, mediumC },
        toC,
      );
    // as hot as its bath, hotter than its bath, and on its way: none comes to 74 in 64.5
    for (const fromC of [5, 64.5, 66]) expect(at(fromC, 64.5, 74)).toBeUndefined();
    expect(at(5, 64.5, 64.5)).toBeUndefined();
    expect(at(66, 64.5, 60)).toBe(0);
    expect(at(64.5, 64.5, 64.5)).toBe(0);
    expect(at(5, 64.5, 60)).toBeGreaterThan(60);
    expect(
      secondsToCentre({ shape: 'slab', halfM: 0.02, h: 10, k: 0.5, alpha: 1e-7, fromC: 20, mediumC: 20 }, 3),
    ).toBeUndefined();
  });

  it('freezes by Plank: a slab of lean beef 25 mm thick in a blast of -30 °C takes about an hour', () => {
    // arithmetic on Plank's equation by hand: 1050 x 0.74 x 333550 / 28.5 x (0.025/(2 x 30) + 0.025^2/(8 x 1.6)) = 4233 s
    const s = secondsToFreeze({ shape: 'slab', halfM: 0.0125, h: 30, airC: -30, waterShare: 0.74 });
    expect(s).toBeCloseTo(4_233, -1);
    expect(secondsToFreeze({ shape: 'slab', halfM: 0.01, h: 30, airC: 0, waterShare: 0.74 })).toBeUndefined();
  });

  it('never credits heat below its floor, and a long gap at its colder end only', () => {
    const target = lethalityTargets[0];
    if (target === undefined) throw new Error('no target');
    const cold = [
      { minute: 0, C: 55 },
      { minute: 600, C: 55 },
    ];
    expect(lethality(cold, target)).toBe(0);
    const gap = [
      { minute: 0, C: 65 },
      { minute: 10, C: 75 },
    ];
    expect(lethality(gap, target, { longestGap: 2 })).toBeCloseTo(10 * 10 ** (-5 / 7.5), 9);
    expect(lethality(gap, target)).toBeGreaterThan(lethality(gap, target, { probeErrorC: 1 }));
  });
});
