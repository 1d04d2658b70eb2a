/** Fields that several stations share. Each says its unit; bounds are what a kitchen can mean, not what an integer can hold. */
import { destinations } from '@zabrik/core';
import { z } from 'zod';

export const id = z.uuid();
export const massMg = z.int().min(1).max(5_000_000_000).describe('mass, whole milligrams');
export const massOrNoneMg = z.int().min(0).max(5_000_000_000).describe('mass, whole milligrams; 0 for none');
export const signedMassMg = z.int().min(-5_000_000_000).max(5_000_000_000).describe('mass, whole milligrams, signed');
export const amountMinor = z.int().min(0).max(100_000_000).describe('money, whole minor units of the house’s currency');
export const signedMinor = z.int().min(-100_000_000).max(100_000_000).describe('money, whole minor units, signed');
export const temperatureCentiC = z.int().min(-8_000).max(30_000).describe('hundredths of a degree Celsius');
// a kitchen's own century: what lies outside it is a clock that was never set, and other tools trip over it
const CENTURY = /^20\d\d-/;
const inCentury = 'a time between the years 2000 and 2099';
export const instant = z.iso.datetime().regex(CENTURY, inCentury).describe('UTC, RFC 3339, from 2000 to 2099');
export const day = z.iso.date().regex(CENTURY, inCentury).describe('calendar day, YYYY-MM-DD, from 2000 to 2099');
export const slug = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/);
export const confirmed = z.boolean().default(false).describe('someone has read the warning and means it');
export const note = z.string().trim().min(1).max(500);
export const shortText = z.string().trim().min(1).max(120);
// marks that turn or hide what is read: two suppliers could look like one. Joiners stay, some scripts cannot be written without
const UNSEEN = /[\u00ad\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff]/;
/** A name that a person gives and others must be able to tell from another. */
export const newName = shortText.refine((text) => !UNSEEN.test(text), 'there is a mark in it that cannot be seen');
export const share = z.number().min(-1).max(2).describe('a ratio, 0..1');
export const destination = z.enum(destinations);
export const cursor = z.string().max(200).optional();
export const limit = z.coerce.number<number | string>().int().min(1).max(200).default(50);
/** ISO 4217, one that the runtime knows. */
export const currency = z
  .string()
  .regex(/^[A-Z]{3}$/)
  .refine((code) => Intl.supportedValuesOf('currency').includes(code), 'no currency of ISO 4217');
/** A time zone of the IANA's list. */
export const timezone = z
  .string()
  .max(64)
  .refine((name) => {
    try {
      return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
    } catch {
      return false;
    }
  }, 'no time zone of the IANA’s list');
/** Counted up with each change: who saves on an older one is told (`changed_since`). */
export const version = z.int().positive();
export const nothing = z.strictObject({ done: z.literal(true) });
