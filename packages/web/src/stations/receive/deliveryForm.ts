import type { Ask, api, House } from '@zabrik/contract';
import {
  type CameAs,
  grams,
  isShellfish,
  type Milligrams,
  minor,
  parseMass,
  parseMoney,
  parseTemperature,
  type Species,
  usuallyRaised,
} from '@zabrik/core';
import { z } from 'zod';
import { aPrice, aWeight, read } from '../../kit/fieldReaders.ts';

export type LineBody = Ask<typeof api.receive.accept>['body'];
export type RefusalReason = NonNullable<LineBody['refusedReason']>;

const empty = z
  .string()
  .regex(/^\s*$/)
  .transform(() => null);
const words = z.string().trim().max(120, 'At most 120 letters');

const fieldsIn = (currency: string) =>
  z.object({
    /** An animal's id, or goods: and theirs. */
    species: z.string(),
    goods: z.string(),
    form: z.string(),
    animals: z
      .string()
      .regex(/^[1-9]\d{0,3}$/, 'How many came, a whole number')
      .transform(Number),
    supplierId: z.string().min(1, 'Who brought it?'),
    invoiceNumber: z.string().trim().max(60, 'At most 60 letters'),
    origin: words,
    gross: aWeight('A weight, such as 2860 or 2.86 kg'),
    tare: z
      .string()
      .transform(
        read<Milligrams>((text) => (text.trim() === '' ? grams(0) : parseMass(text)), 'A weight, or leave it empty'),
      ),
    invoice: aWeight('What the invoice says it weighs'),
    price: aPrice(currency),
    temperature: z
      .string()
      .transform(read((text) => (text.trim() === '' ? null : parseTemperature(text)), 'A temperature, such as 1.4')),
    landedOn: z.string(),
    useBy: z.string(),
    note: z.string().trim().max(500, 'At most 500 letters'),
    came: z.enum(['fresh', 'live', 'frozen', 'vacuum-packed']),
    supplierLot: words,
    catchArea: words,
    gear: words,
    raised: z.enum(['', 'wild', 'farmed']),
    method: z.enum(['', 'caught', 'caught-in-freshwater', 'farmed']),
    killPlace: words,
    killedOn: z.string(),
    shotBy: words,
    declaration: words,
    shotDamage: z.enum(['', 'none', 'light', 'heavy']),
    healthMark: words,
    purified: words,
  });

/** Asked whatever else is missing: the whole form is said at once. */
const saysWhat = <T extends z.ZodType<{ goods: string; species: string; form: string }>>(form: T): T =>
  form
    .refine((f) => f.goods !== '' || f.species !== '', {
      path: ['species'],
      error: 'Pick the animal',
      when: () => true,
    })
    .refine((f) => f.goods !== '' || f.form !== '', { path: ['form'], error: 'Pick how it came', when: () => true });

/** The form as it is typed, prices in the house's currency: every field is text until it is read here. */
export const deliveryForm = (currency: string) =>
  saysWhat(fieldsIn(currency)).refine((f) => f.tare < f.gross, {
    path: ['tare'],
    error: 'The box cannot weigh more than box and goods',
  });

/** The same where all of it is refused before it lies on a scale: a weight and a price are read where they are typed. */
export const unweighedForm = (currency: string) =>
  saysWhat(
    fieldsIn(currency).extend({
      gross: z.string().transform(() => null),
      tare: z.string().transform(() => grams(0)),
      invoice: z.union([empty, aWeight('What the invoice says it weighs')]),
      price: z.union([empty.transform(() => minor(0)), aPrice(currency)]),
    }),
  );

export type DeliveryInput = z.input<ReturnType<typeof deliveryForm>>;
export type DeliveryRead = z.output<ReturnType<typeof deliveryForm>>;
type Unweighed = z.output<ReturnType<typeof unweighedForm>>;

export const emptyDelivery: DeliveryInput = {
  species: '',
  goods: '',
  form: '',
  animals: '1',
  supplierId: '',
  invoiceNumber: '',
  origin: '',
  gross: '',
  tare: '',
  invoice: '',
  price: '',
  temperature: '',
  landedOn: '',
  useBy: '',
  note: '',
  came: 'fresh',
  supplierLot: '',
  catchArea: '',
  gear: '',
  raised: '',
  method: '',
  killPlace: '',
  killedOn: '',
  shotBy: '',
  declaration: '',
  shotDamage: '',
  healthMark: '',
  purified: '',
};

/** What stays in the form from one line of a delivery to the next. */
export const nextLine = (typed: DeliveryInput): DeliveryInput => ({
  ...emptyDelivery,
  supplierId: typed.supplierId,
  invoiceNumber: typed.invoiceNumber,
});

/** Which of the papers' fields stand in the form: only what this animal has. */
export type Papers = 'fish' | 'shellfish' | 'game' | 'raised-game' | 'none';
export function papersOf(species: Species | undefined, raised: '' | 'wild' | 'farmed' = ''): Papers {
  if (species === undefined) return 'none';
  if (isShellfish(species)) return 'shellfish';
  const usually = usuallyRaised(species);
  if (usually !== null) return (raised === '' ? usually : raised) === 'wild' ? 'game' : 'raised-game';
  return species.allergen === 'none' ? 'none' : 'fish';
}

/** Shellfish and crustaceans come alive and whole unless someone says otherwise; cooked or in parts they do not. */
export const cameUsually = (species: Species | undefined, form: string): CameAs =>
  species !== undefined &&
  (species.group === 'crustacean' || papersOf(species) === 'shellfish') &&
  (form === 'whole' || form === '')
    ? 'live'
    : 'fresh';

export interface LineContext {
  readonly deliveryId: string;
  readonly orderId: string | null;
  readonly orderPosition: number | null;
  readonly inspection: NonNullable<LineBody['inspection']>;
  readonly boxes: NonNullable<LineBody['boxes']>;
  readonly codes: readonly string[];
}

const orNull = (text: string): string | null => (text === '' ? null : text);

/** A line accepted whole, as the server takes it; what the form has that does not apply to this animal is left out. */
export function bodyOf(f: DeliveryRead | Unweighed, papers: Papers, context: LineContext): LineBody {
  const pick = <K extends string>(...names: K[]): Partial<Record<K, string>> => {
    const typed = f as unknown as Record<K, string>;
    return Object.fromEntries(names.flatMap((n) => (typed[n] === '' ? [] : [[n, typed[n]]]))) as Partial<
      Record<K, string>
    >;
  };
  const details = {
    ...pick('supplierLot'),
    ...(papers === 'fish' ? pick('catchArea', 'gear', 'method') : {}),
    ...(papers === 'shellfish' ? pick('catchArea', 'healthMark', 'purified') : {}),
    ...(papers === 'game'
      ? { raised: 'wild', ...pick('killPlace', 'killedOn', 'shotBy', 'declaration', 'shotDamage') }
      : {}),
    ...(papers === 'raised-game' ? { raised: 'farmed' } : {}),
  } as NonNullable<LineBody['details']>;
  const goods = f.goods !== '';
  return {
    deliveryId: context.deliveryId,
    supplierId: f.supplierId,
    orderId: context.orderId,
    orderPosition: context.orderPosition,
    invoice: orNull(f.invoiceNumber),
    species: goods ? null : f.species,
    form: goods ? null : f.form,
    goods: goods ? f.goods : null,
    animals: f.animals,
    origin: orNull(f.origin),
    grossMg: f.gross,
    tareMg: f.tare,
    invoiceMg: f.invoice,
    paidMinor: f.price,
    temperatureCentiC: f.temperature,
    landedOn: orNull(f.landedOn),
    useBy: orNull(f.useBy),
    note: orNull(f.note),
    came: f.came,
    details,
    inspection: [...context.inspection],
    boxes: [...context.boxes],
    codes: [...context.codes],
  };
}

/** The same line with a part sent back, or all of it. */
export const refusing = (body: LineBody, reason: RefusalReason, refusedMg: number | 'all'): LineBody =>
  refusedMg === 'all'
    ? { ...body, verdict: 'refused', refusedReason: reason, refusedMg: 0 }
    : { ...body, verdict: 'part', refusedReason: reason, refusedMg };

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

/** What is short or over against the invoice, in mass and money, as far as the form can be read yet; and whether the house lets it pass. */
export function differenceOf(
  input: Pick<DeliveryInput, 'gross' | 'tare' | 'invoice' | 'price'>,
  house: Pick<House, 'tolerance' | 'currency'> | undefined,
): { readonly differenceMg: number; readonly differenceMinor: number; readonly within: boolean } | undefined {
  const netMg = netOf(input);
  const invoiceMg = readOr(() => parseMass(input.invoice));
  if (netMg === undefined || invoiceMg === undefined || invoiceMg <= 0) return undefined;
  const differenceMg = netMg - invoiceMg;
  const paid = house === undefined ? 0 : (readOr(() => parseMoney(input.price, house.currency)) ?? 0);
  const tolerance = house?.tolerance ?? { share: 0, massMg: 0 };
  return {
    differenceMg,
    differenceMinor: minor((paid * differenceMg) / invoiceMg),
    within: Math.abs(differenceMg) <= Math.max(tolerance.massMg, invoiceMg * tolerance.share),
  };
}
