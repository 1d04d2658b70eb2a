/** Pots, burners, machines and places as they are typed, and what they are to the records. */
import type { House } from '@zabrik/contract';
import { type PlaceKind, placeKinds } from '@zabrik/core';
import { z } from 'zod';
import { aFigure, aFigureOrNothing, aVolume, volumeTyped } from '../../kit/fieldReaders.ts';
import { cm, equipment, equipmentTyped, goods, goodsTyped, mould, mouldTyped } from './equipmentForm.ts';
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
  equipment: house.equipment.map(equipmentTyped),
  goods: house.goods.map(goodsTyped),
  moulds: house.moulds.map(mouldTyped),
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
    equipment: named(read.equipment),
    moulds: named(read.moulds),
    // a name of its own among them, and none that the catalogue could have one day
    goods: named(read.goods.map((g) => ({ ...g, id: g.id.replace(/^own-/, '') }))).map((g) => ({
      ...g,
      id: `own-${g.id}`,
    })),
  };
}
