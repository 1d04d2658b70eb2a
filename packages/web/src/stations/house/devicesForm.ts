/** Scales, probe and printer as they are typed, and what they are to the records. */
import type { House } from '@zabrik/contract';
import { deviceAddress } from '@zabrik/contract/deviceAddress';
import { SHIFT_MINUTES, SHORTEST_IDLE_MINUTES } from '@zabrik/contract/roles';
import { inGrams, inKilograms, PRACTICE_SCALE, readDecimal } from '@zabrik/core';
import { z } from 'zod';
import { aFigure } from '../../kit/fieldReaders.ts';
import { named } from './named.ts';

const says = 'Address and port in the kitchen’s network, such as 192.168.1.40:7001';
const addressOrNothing = z
  .string()
  .trim()
  .refine((text) => text === '' || deviceAddress.safeParse(text).success, says);

const scale = z
  .object({
    id: z.string(),
    name: z.string().trim().min(1, 'A name').max(120),
    address: addressOrNothing,
    accuracyClass: z.enum(['II', 'III', 'IIII']),
    intervalG: aFigure('Grams, such as 1'),
    maxKg: aFigure('Kilograms, such as 15'),
  })
  .refine((s) => s.maxKg * 1_000 >= s.intervalG * 100, {
    path: ['maxKg'],
    message: 'It holds a hundred of its steps at least',
  });

/** How long somebody may leave a tablet alone. */
const minutes = z
  .string()
  .refine((text) => {
    const read = readDecimal(text);
    return Number.isInteger(read) && read >= SHORTEST_IDLE_MINUTES && read <= SHIFT_MINUTES;
  }, `Minutes, ${SHORTEST_IDLE_MINUTES} to ${SHIFT_MINUTES}`)
  .transform(readDecimal);

export const devicesForm = z.object({
  scales: z.array(scale).min(1, 'A kitchen has one scale at least, if only to type from'),
  practiceScale: z.boolean(),
  idleMinutes: z.object({ butcher: minutes, 'sous-chef': minutes, 'head-chef': minutes, viewer: minutes }),
  probeAt: addressOrNothing,
  printerAt: addressOrNothing,
});
export type DevicesTyped = z.input<typeof devicesForm>;
export type ScaleTyped = DevicesTyped['scales'][number];
type DevicesRead = z.output<typeof devicesForm>;

export const newScale: ScaleTyped = {
  id: '',
  name: '',
  address: '',
  accuracyClass: 'III',
  intervalG: '1',
  maxKg: '15',
};

export const typedOf = (
  house: Pick<House, 'scales' | 'practiceScale' | 'idleMinutes' | 'probeAt' | 'printerAt'>,
): DevicesTyped => ({
  scales: house.scales.map((s) => ({
    id: s.id,
    name: s.name,
    address: s.address ?? '',
    accuracyClass: s.accuracyClass,
    intervalG: String(inGrams(s.intervalMg)),
    maxKg: String(inKilograms(s.maxMg)),
  })),
  practiceScale: house.practiceScale,
  idleMinutes: {
    butcher: String(house.idleMinutes.butcher),
    'sous-chef': String(house.idleMinutes['sous-chef']),
    'head-chef': String(house.idleMinutes['head-chef']),
    viewer: String(house.idleMinutes.viewer),
  },
  probeAt: house.probeAt ?? '',
  printerAt: house.printerAt ?? '',
});

/** What is saved: a new scale gets an id of its name. */
export function settingsOf({ scales, practiceScale, idleMinutes, probeAt, printerAt }: DevicesRead) {
  const [first, ...others] = named(scales, [PRACTICE_SCALE]).map(
    ({ id, name, address, accuracyClass, intervalG, maxKg }) => ({
      id,
      name,
      accuracyClass,
      intervalMg: Math.round(intervalG * 1_000),
      maxMg: Math.round(maxKg * 1_000_000),
      ...(address === '' ? {} : { address }),
    }),
  );
  if (first === undefined) throw new Error('the form lets no kitchen be without a scale');
  return {
    scales: [first, ...others] as const,
    practiceScale,
    idleMinutes,
    probeAt: probeAt === '' ? null : probeAt,
    printerAt: printerAt === '' ? null : printerAt,
  };
}
