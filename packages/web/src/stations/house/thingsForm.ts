/** Pots, burners, machines and places as they are typed, and what they are to the records. */
import type { Equipment, EquipmentKind, House, HouseMould, OwnGoods } from '@zabrik/contract';
import { type Mould, massTyped, type PlaceKind, parseMass, placeKinds } from '@zabrik/core';
import { z } from 'zod';
import { aFigure, aFigureOrNothing, aVolume, volumeTyped } from '../../kit/fieldReaders.ts';
import { named } from './named.ts';

const name = z.string().trim().min(1, 'A name').max(120);
const id = z.string();

/** Of a round pot across its inside and deep; left empty, how full it stands is not said. */
const vessel = z
  .object({
    id,
    name,
    kind: z.enum(['pot', 'pan']),
    litres: aVolume('How much it holds, such as 20'),
    acrossCm: aFigureOrNothing('Centimetres, or nothing'),
    deepCm: aFigureOrNothing('Centimetres, or nothing'),
  })
  .refine((v) => (v.acrossCm === undefined) === (v.deepCm === undefined), {
    path: ['deepCm'],
    message: 'Both, or neither',
  })
  .refine(
    ({ acrossCm, deepCm, litres }) =>
      acrossCm === undefined || deepCm === undefined || brimLitres(acrossCm, deepCm) >= 0.9 * litres,
    { path: ['litres'], message: 'It does not hold so much: look at its size' },
  );

const kinds = ['oven', 'chiller', 'probe', 'board', 'tray', 'sheet'] as const satisfies readonly EquipmentKind[];
export const kindNames: Readonly<Record<EquipmentKind, string>> = {
  oven: 'oven',
  chiller: 'blast chiller',
  probe: 'probe',
  board: 'board',
  tray: 'tray',
  sheet: 'sheet for rolls',
};
const families = ['fish', 'shellfish', 'poultry', 'game', 'meat', 'vegetables', 'ready'] as const;
export const familyNames: Readonly<Record<(typeof families)[number], string>> = {
  fish: 'fish',
  shellfish: 'shellfish',
  poultry: 'poultry',
  game: 'game',
  meat: 'meat',
  vegetables: 'vegetables',
  ready: 'ready to eat',
};

const massOrNothing = z.string().transform((text, context) => {
  if (text.trim() === '') return undefined;
  try {
    return parseMass(text);
  } catch {
    context.addIssue({ code: 'custom', message: 'A weight, or nothing' });
    return z.NEVER;
  }
});
/** Of each only what its kind has is read: the rest stays as it was typed, for when the kind is changed back. */
const equipment = z.object({
  id,
  name,
  kind: z.enum(kinds),
  longCm: aFigureOrNothing('Centimetres, or nothing'),
  wideCm: aFigureOrNothing('Centimetres, or nothing'),
  kW: aFigureOrNothing('Kilowatts, or nothing'),
  holds: massOrNothing,
  error: aFigureOrNothing('Degrees Celsius, or nothing'),
  cuts: z.enum(['', ...families]),
});

const groups = ['vegetable', 'herb', 'dairy', 'dry', 'bought-stock'] as const satisfies readonly OwnGoods['group'][];
export const groupNames: Readonly<Record<(typeof groups)[number], string>> = {
  vegetable: 'vegetable or fruit',
  herb: 'herb',
  dairy: 'dairy or egg',
  dry: 'dry, bottled, tinned',
  'bought-stock': 'bought stock or sauce',
};
const goods = z.object({
  id,
  name,
  group: z.enum(groups),
  days: z
    .string()
    .regex(/^[1-9]\d{0,3}$/, 'Days, such as 30')
    .transform(Number)
    .refine((d) => d <= 3_650, 'Ten years at most'),
  place: z.enum(placeKinds),
  allergens: z.array(z.string()),
  ready: z.boolean(),
});

/** What is measured of a mould of each shape, inside. */
export const mouldSides: Readonly<Record<Mould['kind'], readonly (readonly [side: Side, label: string])[]>> = {
  terrine: [
    ['long', 'Long'],
    ['top', 'Wide at the rim'],
    ['bottom', 'Wide at the bottom'],
    ['deep', 'Deep'],
  ],
  ring: [
    ['top', 'Across'],
    ['deep', 'Deep'],
  ],
  dariole: [
    ['top', 'Across at the rim'],
    ['bottom', 'Across at the bottom'],
    ['deep', 'Deep'],
  ],
  dome: [['top', 'Across']],
  gutter: [
    ['long', 'Long'],
    ['top', 'Across'],
  ],
};
type Side = 'long' | 'top' | 'bottom' | 'deep';
export const mouldNames: Readonly<Record<Mould['kind'], string>> = {
  terrine: 'terrine',
  ring: 'ring',
  dariole: 'dariole',
  dome: 'dome',
  gutter: 'gutter',
};
const mould = z
  .object({
    id,
    name,
    kind: z.enum(['terrine', 'ring', 'dariole', 'dome', 'gutter']),
    long: aFigureOrNothing('Centimetres'),
    top: aFigureOrNothing('Centimetres'),
    bottom: aFigureOrNothing('Centimetres'),
    deep: aFigureOrNothing('Centimetres'),
  })
  .superRefine((m, context) => {
    for (const [side] of mouldSides[m.kind])
      if (!((m[side] ?? 0) > 0)) context.addIssue({ code: 'custom', path: [side], message: 'Centimetres' });
  });

/** The mould those sides make, millimetres; undefined while one of them is missing. */
export function mouldOf(kind: Mould['kind'], cmOf: (side: Side) => number | undefined): Mould | undefined {
  const mmOf = (side: Side): number => Math.round((cmOf(side) ?? 0) * 10);
  if (mouldSides[kind].some(([side]) => !(mmOf(side) > 0))) return undefined;
  switch (kind) {
    case 'terrine':
      return { kind, lengthMm: mmOf('long'), topMm: mmOf('top'), bottomMm: mmOf('bottom'), heightMm: mmOf('deep') };
    case 'ring':
      return { kind, diameterMm: mmOf('top'), heightMm: mmOf('deep') };
    case 'dariole':
      return { kind, topMm: mmOf('top'), bottomMm: mmOf('bottom'), heightMm: mmOf('deep') };
    case 'dome':
      return { kind, diameterMm: mmOf('top') };
    case 'gutter':
      return { kind, lengthMm: mmOf('long'), diameterMm: mmOf('top') };
  }
}
const sidesOf = (m: Mould): Readonly<Record<Side, string>> => ({
  long: 'lengthMm' in m ? cm(m.lengthMm) : '',
  top: 'topMm' in m ? cm(m.topMm) : cm(m.diameterMm),
  bottom: 'bottomMm' in m ? cm(m.bottomMm) : '',
  deep: 'heightMm' in m ? cm(m.heightMm) : '',
});

/** Litres up to the brim of a round pot. */
export const brimLitres = (acrossCm: number, deepCm: number): number =>
  (Math.PI * (acrossCm / 2) ** 2 * deepCm) / 1_000;

export const thingsForm = z.object({
  places: z
    .array(z.object({ id, name, kind: z.enum(placeKinds), holds: z.enum(['raw', 'ready', 'any']) }))
    .min(1, 'A kitchen has one place at least'),
  vessels: z.array(vessel),
  burners: z.array(
    z.object({
      id,
      name,
      kW: aFigure('Kilowatts, such as 3.5'),
      percent: aFigure('A percentage, such as 40').refine((p) => p <= 100, '100 % at most'),
    }),
  ),
  machines: z.array(z.object({ id, name, watts: aFigure('Watts, such as 900') })),
  equipment: z.array(equipment),
  moulds: z.array(mould),
  goods: z.array(goods),
});
export type ThingsTyped = z.input<typeof thingsForm>;
type ThingsRead = z.output<typeof thingsForm>;

export const placeNames: Readonly<Record<PlaceKind, string>> = {
  'cold-room': 'cold room',
  fridge: 'fridge',
  freezer: 'freezer',
  'blast-chiller': 'blast chiller',
  ambient: 'dry store',
};

const cm = (mm: number): string => String(mm / 10);

export const typedOf = (
  house: Pick<House, 'places' | 'vessels' | 'burners' | 'machines' | 'equipment' | 'moulds' | 'goods'>,
): ThingsTyped => ({
  places: house.places.map((p) => ({ ...p })),
  vessels: house.vessels.map((v) => ({
    id: v.id,
    name: v.name,
    kind: v.kind ?? 'pot',
    litres: volumeTyped(v.litres),
    acrossCm: v.shape?.kind === 'round' ? cm(v.shape.diameterMm) : '',
    deepCm: v.shape?.kind === 'round' ? cm(v.shape.heightMm) : '',
  })),
  burners: house.burners.map((b) => ({
    id: b.id,
    name: b.name,
    kW: String(b.watts / 1_000),
    percent: String(b.efficiency * 100),
  })),
  machines: house.machines.map((m) => ({ id: m.id, name: m.name, watts: String(m.watts) })),
  equipment: house.equipment.map((e) => ({
    id: e.id,
    name: e.name,
    kind: e.kind,
    longCm: e.longMm === null ? '' : cm(e.longMm),
    wideCm: e.wideMm === null ? '' : cm(e.wideMm),
    kW: e.watts === null ? '' : String(e.watts / 1_000),
    holds: e.holdsMg === null ? '' : massTyped(e.holdsMg),
    error: e.errorCentiC === null ? '' : String(e.errorCentiC / 100),
    cuts: e.cuts ?? ('' as const),
  })),
  goods: house.goods.map((g) => ({
    id: g.id,
    name: g.name,
    group: g.group,
    days: String(g.lifeDays),
    place: g.place,
    allergens: [...g.allergens],
    ready: g.ready,
  })),
  moulds: house.moulds.map((m) => ({ id: m.id, name: m.name, kind: m.mould.kind, ...sidesOf(m.mould) })),
});

/** What is saved. A pot that is not round keeps the form it had. */
export function settingsOf(read: ThingsRead, house: Pick<House, 'vessels'>) {
  const shapeOf = (v: ThingsRead['vessels'][number]) => {
    const before = house.vessels.find((old) => old.id === v.id)?.shape;
    if (v.acrossCm !== undefined && v.deepCm !== undefined)
      return { shape: { kind: 'round' as const, diameterMm: v.acrossCm * 10, heightMm: v.deepCm * 10 } };
    return before === undefined || before.kind === 'round' ? {} : { shape: before };
  };
  return {
    places: named(read.places),
    vessels: named(read.vessels).map((v) => ({
      id: v.id,
      name: v.name,
      litres: v.litres,
      kind: v.kind,
      ...shapeOf(v),
    })),
    burners: named(read.burners).map((b) => ({
      id: b.id,
      name: b.name,
      watts: b.kW * 1_000,
      efficiency: b.percent / 100,
    })),
    machines: named(read.machines).map((m) => ({ ...m, kind: 'blender' as const })),
    equipment: named(read.equipment).map(({ id: of, name: called, kind, ...e }): Equipment => {
      const flat = kind === 'tray' || kind === 'sheet';
      const mm = (c: number | undefined): number | null => (flat && c !== undefined ? c * 10 : null);
      return {
        id: of,
        name: called,
        kind,
        longMm: mm(e.longCm),
        wideMm: mm(e.wideCm),
        watts: kind === 'oven' && e.kW !== undefined ? e.kW * 1_000 : null,
        holdsMg: kind === 'chiller' && e.holds !== undefined ? e.holds : null,
        errorCentiC: kind === 'probe' && e.error !== undefined ? Math.round(e.error * 100) : null,
        cuts: kind === 'board' && e.cuts !== '' ? e.cuts : null,
      };
    }),
    // a name of its own among them, and none that the catalogue could have one day
    goods: named(read.goods.map((g) => ({ ...g, id: g.id.replace(/^own-/, '') }))).map(
      ({ id: of, days, ...g }): OwnGoods => ({ ...g, id: `own-${of}`, lifeDays: days }),
    ),
    moulds: named(read.moulds).flatMap(({ id: of, name: called, kind, ...sides }): HouseMould[] => {
      const made = mouldOf(kind, (side) => sides[side]);
      return made === undefined ? [] : [{ id: of, name: called, mould: made }];
    }),
  };
}
