/** The form of a supplier's terms: what is typed, and what it means. */
import { amountText, massTyped } from '@zabrik/core';
import { z } from 'zod';
import { clockTimeOf } from '../../app/dates.ts';
import { aPriceOrNothing, aTimeOrNothing } from '../../kit/fieldReaders.ts';
import { weightIn } from '../../kit/readers.ts';
import { itemId } from './boughtItems.ts';
import type { Supplier } from './useSuppliers.ts';

const textOrNothing = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `${most} letters at most`)
    .transform((text) => (text === '' ? null : text));

const itemForm = z.object({
  /** species/form, or goods/id. */
  what: z.string().regex(/\//, 'Say what it is'),
  theirCode: textOrNothing(40),
  theirName: textOrNothing(120),
  pack: z.string().transform((text, context) => {
    if (text.trim() === '') return null;
    const mg = weightIn(text);
    if (mg !== undefined && mg > 0) return mg;
    context.addIssue({ code: 'custom', message: 'A weight, such as 5 kg, or nothing' });
    return z.NEVER;
  }),
});

export const supplierForm = (currency: string) =>
  z
    .object({
      name: z.string().trim().min(1, 'A name').max(120),
      contact: textOrNothing(120),
      phone: textOrNothing(40).refine((p) => p === null || p.length >= 3, 'A telephone number'),
      email: z
        .string()
        .trim()
        .refine((text) => text === '' || z.email().safeParse(text).success, 'An address, such as orders@quay.example')
        .transform((text) => (text === '' ? null : text)),
      account: textOrNothing(120),
      orderDays: z.array(z.int()),
      cutOff: aTimeOrNothing('A time of the day, such as 16:00 or 4 pm'),
      deliveryDays: z.array(z.int()),
      lead: z
        .string()
        .regex(/^(?:\d|1[0-4])$/, 'Days, 0 to 14')
        .transform(Number),
      minimum: aPriceOrNothing(currency),
      carriage: aPriceOrNothing(currency),
      carriageFree: aPriceOrNothing(currency),
      note: textOrNothing(500),
      items: z.array(itemForm),
    })
    .transform(({ name, lead, minimum, carriage, carriageFree, items, ...terms }) => ({
      name,
      terms: {
        ...terms,
        leadDays: lead,
        minimumMinor: minimum,
        carriageMinor: carriage,
        carriageFreeMinor: carriageFree,
        items: items.map(({ what, pack, ...theirs }) => {
          const [first = '', second = ''] = what.split('/');
          const goods = first === 'goods';
          return {
            ...theirs,
            species: goods ? null : first,
            form: goods ? null : second,
            goods: goods ? second : null,
            packMg: pack,
          };
        }),
      },
    }));
export type SupplierTyped = z.input<ReturnType<typeof supplierForm>>;
export type SupplierRead = z.output<ReturnType<typeof supplierForm>>;

/** A supplier as the form shows it. */
export function supplierTyped({ name, terms }: Supplier, currency: string): SupplierTyped {
  const amount = (minor: number | null): string => (minor === null ? '' : amountText(minor, currency));
  return {
    name,
    contact: terms.contact ?? '',
    phone: terms.phone ?? '',
    email: terms.email ?? '',
    account: terms.account ?? '',
    orderDays: [...terms.orderDays],
    cutOff: terms.cutOff === null ? '' : clockTimeOf(terms.cutOff),
    deliveryDays: [...terms.deliveryDays],
    lead: String(terms.leadDays),
    minimum: amount(terms.minimumMinor),
    carriage: amount(terms.carriageMinor),
    carriageFree: amount(terms.carriageFreeMinor),
    note: terms.note ?? '',
    items: terms.items.map((i) => ({
      what: itemId(i),
      theirCode: i.theirCode ?? '',
      theirName: i.theirName ?? '',
      pack: i.packMg === null ? '' : massTyped(i.packMg),
    })),
  };
}
