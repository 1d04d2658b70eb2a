import type { Ask, api } from '@zabrik/contract';
import { grams, type Milligrams, type MinorUnits, minor, parseMass, parseMoney, parseTemperature } from '@zabrik/core';
import { z } from 'zod';

const read =
  <T>(parse: (text: string) => T, says: string) =>
  (text: string, context: z.RefinementCtx): T => {
    try {
      return parse(text);
    } catch {
      context.addIssue({ code: 'custom', message: says });
      return z.NEVER;
    }
  };

const mass = (says: string) =>
  z
    .string()
    .transform(read<Milligrams>((text) => parseMass(text), says))
    .refine((value) => value > 0, says);

/** The form as it is typed: every field is text until it is read here. */
export const deliveryForm = z
  .object({
    species: z.string().min(1, 'Pick the animal'),
    form: z.string().min(1, 'Pick how it came'),
    animals: z
      .string()
      .regex(/^[1-9]\d{0,3}$/, 'How many came, a whole number')
      .transform(Number),
    supplierId: z.string().min(1, 'Who brought it?'),
    origin: z.string().trim().max(120, 'At most 120 letters'),
    gross: mass('A weight, such as 2860 or 2.86 kg'),
    tare: z
      .string()
      .transform(
        read<Milligrams>((text) => (text.trim() === '' ? grams(0) : parseMass(text)), 'A weight, or leave it empty'),
      ),
    invoice: mass('What the invoice says it weighs'),
    price: z.string().transform(read<MinorUnits>(parseMoney, 'An amount, such as 31.46')),
    temperature: z
      .string()
      .transform(read((text) => (text.trim() === '' ? null : parseTemperature(text)), 'A temperature, such as 1.4')),
    landedOn: z.string(),
    useBy: z.string(),
    note: z.string().trim().max(500, 'At most 500 letters'),
  })
  .refine((f) => f.tare < f.gross, { path: ['tare'], error: 'The box cannot weigh more than box and goods' });

export type DeliveryInput = z.input<typeof deliveryForm>;
export type DeliveryRead = z.output<typeof deliveryForm>;

export const emptyDelivery: DeliveryInput = {
  species: '',
  form: '',
  animals: '1',
  supplierId: '',
  origin: '',
  gross: '',
  tare: '',
  invoice: '',
  price: '',
  temperature: '',
  landedOn: '',
  useBy: '',
  note: '',
};

const orNull = (text: string): string | null => (text === '' ? null : text);

export const bodyOf = (f: DeliveryRead): Ask<typeof api.receive.accept>['body'] => ({
  species: f.species,
  form: f.form,
  animals: f.animals,
  supplierId: f.supplierId,
  origin: orNull(f.origin),
  grossMg: f.gross,
  tareMg: f.tare,
  invoiceMg: f.invoice,
  paidMinor: f.price,
  temperatureCentiC: f.temperature,
  landedOn: orNull(f.landedOn),
  useBy: orNull(f.useBy),
  note: orNull(f.note),
});

const readOr = <T>(read: () => T): T | undefined => {
  try {
    return read();
  } catch {
    return undefined;
  }
};

/** Gross less box, as far as both can be read yet. */
export function netOf({ gross, tare }: Pick<DeliveryInput, 'gross' | 'tare'>): number | undefined {
  const netMg = readOr(() => parseMass(gross) - (tare.trim() === '' ? 0 : parseMass(tare)));
  return netMg !== undefined && netMg > 0 ? netMg : undefined;
}

/** What is short or over against the invoice, in mass and money, as far as the form can be read yet. */
export function differenceOf(
  input: DeliveryInput,
): { readonly differenceMg: number; readonly differenceMinor: number } | undefined {
  const netMg = netOf(input);
  const invoiceMg = readOr(() => parseMass(input.invoice));
  if (netMg === undefined || invoiceMg === undefined || invoiceMg <= 0) return undefined;
  const differenceMg = netMg - invoiceMg;
  const paid = readOr(() => parseMoney(input.price)) ?? 0;
  return { differenceMg, differenceMinor: minor((paid * differenceMg) / invoiceMg) };
}
