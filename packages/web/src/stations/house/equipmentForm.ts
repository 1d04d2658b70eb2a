/** Ovens, chillers, probes, boards, trays, sheets, moulds, and goods of the house's own, as they are typed and as they are kept. */
import type { Equipment, EquipmentKind, HouseMould, OwnGoods } from '@zabrik/contract';
import { type Mould, massTyped, parseMass, placeKinds, readDecimal } from '@zabrik/core';
import { type RefinementCtx, z } from 'zod';
import { type MouldSide, mouldSides } from '../../parts/mouldSides.ts';

const name = z.string().trim().min(1, 'A name').max(120);
const id = z.string();
const keysOf = <K extends string>(names: Readonly<Record<K, string>>): [K, ...K[]] => Object.keys(names) as [K, ...K[]];
export const cm = (mm: number): string => String(mm / 10);

export const kindNames: Readonly<Record<EquipmentKind, string>> = {
  oven: 'oven',
  chiller: 'blast chiller',
  probe: 'probe',
  board: 'board',
  tray: 'tray',
  sheet: 'sheet for rolls',
};
export const familyNames: Readonly<Record<NonNullable<Equipment['cuts']>, string>> = {
  fish: 'fish',
  shellfish: 'shellfish',
  poultry: 'poultry',
  game: 'game',
  meat: 'meat',
  vegetables: 'vegetables',
  ready: 'ready to eat',
};

type Measure = 'longCm' | 'wideCm' | 'kW' | 'holds' | 'error';
/** What is asked of each kind: of the rest nothing is read, and nothing can be wrong with it. */
export const measuresOf: Readonly<Record<EquipmentKind, readonly Measure[]>> = {
  oven: ['kW'],
  chiller: ['holds'],
  probe: ['error'],
  board: [],
  tray: ['longCm', 'wideCm'],
  sheet: ['longCm', 'wideCm'],
};
const upTo =
  (most: number) =>
  (text: string): number | undefined => {
    const figure = readDecimal(text);
    return figure > 0 && figure <= most ? figure : undefined;
  };
const massOf = (text: string): number | undefined => {
  try {
    return parseMass(text);
  } catch {
    return undefined;
  }
};
const read: Readonly<Record<Measure, readonly [of: (text: string) => number | undefined, says: string]>> = {
  longCm: [upTo(300), 'Centimetres, 300 at most, or nothing'],
  wideCm: [upTo(300), 'Centimetres, 300 at most, or nothing'],
  kW: [upTo(100), 'Kilowatts, 100 at most, or nothing'],
  holds: [massOf, 'A weight, or nothing'],
  error: [upTo(5), 'Degrees Celsius, 5 at most, or nothing'],
};

export const equipment = z
  .object({
    id,
    name,
    kind: z.enum(keysOf(kindNames)),
    longCm: z.string(),
    wideCm: z.string(),
    kW: z.string(),
    holds: z.string(),
    error: z.string(),
    cuts: z.enum(['', ...keysOf(familyNames)]),
  })
  .transform((e, context): Equipment => {
    const measure = (which: Measure, by: number): number | null => {
      if (!measuresOf[e.kind].includes(which) || e[which].trim() === '') return null;
      const [of, says] = read[which];
      const figure = of(e[which]);
      if (figure !== undefined) return Math.round(figure * by);
      context.addIssue({ code: 'custom', path: [which], message: says });
      return null;
    };
    return {
      id: e.id,
      name: e.name,
      kind: e.kind,
      longMm: measure('longCm', 10),
      wideMm: measure('wideCm', 10),
      watts: measure('kW', 1_000),
      holdsMg: measure('holds', 1),
      errorCentiC: measure('error', 100),
      cuts: e.kind === 'board' && e.cuts !== '' ? e.cuts : null,
    };
  });
export const equipmentTyped = (e: Equipment): z.input<typeof equipment> => ({
  id: e.id,
  name: e.name,
  kind: e.kind,
  longCm: e.longMm === null ? '' : cm(e.longMm),
  wideCm: e.wideMm === null ? '' : cm(e.wideMm),
  kW: e.watts === null ? '' : String(e.watts / 1_000),
  holds: e.holdsMg === null ? '' : massTyped(e.holdsMg),
  error: e.errorCentiC === null ? '' : String(e.errorCentiC / 100),
  cuts: e.cuts ?? '',
});
export const newEquipment: z.input<typeof equipment> = {
  id: '',
  name: '',
  kind: 'oven',
  longCm: '',
  wideCm: '',
  kW: '',
  holds: '',
  error: '',
  cuts: '',
};

export const mouldNames: Readonly<Record<Mould['kind'], string>> = {
  terrine: 'terrine',
  ring: 'ring',
  dariole: 'dariole',
  dome: 'dome',
  gutter: 'gutter',
};
/** Centimetres as they are typed, by side. */
type Sides = Readonly<Record<MouldSide, string>>;
const noSides: Sides = { lengthMm: '', topMm: '', bottomMm: '', heightMm: '', diameterMm: '' };
const sideOf = upTo(200);

/** The mould those sides make; undefined while one that its form has is missing. `missing` hears of each. */
export function mouldOf(
  kind: Mould['kind'],
  sides: Sides,
  missing: (side: MouldSide) => void = () => undefined,
): Mould | undefined {
  const measured = mouldSides[kind].map(([side]): [MouldSide, number | undefined] => [side, sideOf(sides[side])]);
  const absent = measured.filter(([, long]) => long === undefined);
  for (const [side] of absent) missing(side);
  if (absent.length > 0) return undefined;
  return { kind, ...Object.fromEntries(measured.map(([side, long]) => [side, Math.round((long ?? 0) * 10)])) } as Mould;
}

const side = z.string();
export const mould = z
  .object({
    id,
    name,
    kind: z.enum(keysOf(mouldNames)),
    sides: z.object({ lengthMm: side, topMm: side, bottomMm: side, heightMm: side, diameterMm: side }),
  })
  .transform((m, context: RefinementCtx): HouseMould => {
    const made = mouldOf(m.kind, m.sides, (of) =>
      context.addIssue({ code: 'custom', path: ['sides', of], message: 'Centimetres, 200 at most' }),
    );
    return made === undefined ? z.NEVER : { id: m.id, name: m.name, mould: made };
  });
export const mouldTyped = ({ id: of, name: called, mould: { kind, ...sides } }: HouseMould): z.input<typeof mould> => ({
  id: of,
  name: called,
  kind,
  sides: { ...noSides, ...Object.fromEntries(Object.entries(sides).map(([key, mm]) => [key, cm(mm)])) },
});
export const newMould: z.input<typeof mould> = { id: '', name: '', kind: 'terrine', sides: { ...noSides } };

export const groupNames: Readonly<Record<OwnGoods['group'], string>> = {
  vegetable: 'vegetable or fruit',
  herb: 'herb',
  dairy: 'dairy or egg',
  dry: 'dry, bottled, tinned',
  'bought-stock': 'bought stock or sauce',
};
export const goods = z.object({
  id,
  name,
  group: z.enum(keysOf(groupNames)),
  lifeDays: z
    .string()
    .regex(/^[1-9]\d{0,3}$/, 'Days, such as 30')
    .transform(Number)
    .refine((d) => d <= 3_650, 'Ten years at most'),
  place: z.enum(placeKinds),
  allergens: z.array(z.string()),
  ready: z.boolean(),
});
export const goodsTyped = (g: OwnGoods): z.input<typeof goods> => ({
  ...g,
  lifeDays: String(g.lifeDays),
  allergens: [...g.allergens],
});
export const newGoods: z.input<typeof goods> = {
  id: '',
  name: '',
  group: 'dry',
  lifeDays: '180',
  place: 'ambient',
  allergens: [],
  ready: false,
};
