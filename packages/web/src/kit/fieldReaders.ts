/** The fields of a form, read by Zod: what a figure is, and in which words it is said that it is none. */
import {
  figureTyped,
  figureWords,
  inMajor,
  type Milligrams,
  type MinorUnits,
  parseLitres,
  parseMass,
  parseMoney,
  readDecimal,
} from '@zabrik/core';
import { type RefinementCtx, z } from 'zod';

/** Reads a text by one of the core's readers; what it cannot read is said in the core's words, or in these. */
export const read =
  <T>(parse: (text: string) => T, says: string) =>
  (text: string, context: RefinementCtx): T => {
    try {
      return parse(text);
    } catch (error) {
      context.addIssue({ code: 'custom', message: figureWords(error, says) });
      return z.NEVER;
    }
  };

/** A weight: more than nothing. */
export const aWeight = (says: string) =>
  z
    .string()
    .transform(read<Milligrams>((text) => parseMass(text), says))
    .refine((mg) => mg > 0, says);

/** Litres: more than nothing. */
export const aVolume = (says: string) => z.string().transform(read((text) => parseLitres(text), says));
/** The same as a field has it before somebody types. */
export const volumeTyped = (litres: number): string => figureTyped('l', litres, 3);

/** A number over nought. */
export const aFigure = (says: string) =>
  z
    .string()
    .refine((text) => readDecimal(text) > 0, says)
    .transform(readDecimal);

/** A number over nought, or nothing. */
export const aFigureOrNothing = (says: string) =>
  z
    .string()
    .refine((text) => text.trim() === '' || readDecimal(text) > 0, says)
    .transform((text) => (text.trim() === '' ? undefined : readDecimal(text)));

/** An amount of the house's money, or nothing, which is no amount. */
export const aPriceOrNothing = (currency: string) =>
  z.union([
    z
      .string()
      .regex(/^\s*$/)
      .transform(() => null),
    aPrice(currency),
  ]);

/** An amount of the house's money, nought too. */
export const aPrice = (currency: string) =>
  z
    .string()
    .transform(
      read<MinorUnits>((text) => parseMoney(text, currency), `An amount, such as ${inMajor(3_146, currency)}`),
    );

/**
 * A time of the day as somebody types it, as it is kept: HH:MM.
 *
 * @example "16:00", "16.00", "1600", "4 pm" -> "16:00"; "9" -> "09:00"; "25:00" -> undefined
 */
export function timeTyped(text: string): string | undefined {
  const [, hours = '', minutes = '00', half] =
    /^(\d{1,2})(?:[:.h ]?([0-5]\d))?\s*(am|pm|a\.m\.|p\.m\.)?$/.exec(text.trim().toLowerCase()) ?? [];
  const typed = Number(hours);
  if (hours === '' || (half === undefined ? typed > 23 : typed < 1 || typed > 12)) return undefined;
  const hour = half === undefined ? typed : (typed % 12) + (half.startsWith('p') ? 12 : 0);
  return `${String(hour).padStart(2, '0')}:${minutes}`;
}

const timeOr =
  <T>(nothing: T, says: string) =>
  (text: string, context: RefinementCtx): string | T => {
    if (text.trim() === '' && nothing !== undefined) return nothing;
    const time = timeTyped(text);
    if (time !== undefined) return time;
    context.addIssue({ code: 'custom', message: says });
    return z.NEVER;
  };
/** A time of the day, as HH:MM. */
export const aTime = (says: string) => z.string().transform(timeOr<never>(undefined as never, says));
/** The same, or null where nothing is typed. */
export const aTimeOrNothing = (says: string) => z.string().transform(timeOr(null, says));
