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
