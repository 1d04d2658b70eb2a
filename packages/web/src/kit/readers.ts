/** What was typed, read: one reader for each kind of figure. They give undefined while it is none; a form says why (`fieldReaders.ts`). */
import { type Milligrams, parseMass, parseTemperature } from '@zabrik/core';

const orNone = <T>(parse: (text: string) => T, text: string): T | undefined => {
  try {
    return parse(text);
  } catch {
    return undefined;
  }
};

/** A weight with its unit, the house's small one without: nought counts as one. */
export const massIn = (text: string): Milligrams | undefined => orNone(parseMass, text);

/** A weight of something: more than nothing. */
export function weightIn(text: string): Milligrams | undefined {
  const mg = massIn(text);
  return mg !== undefined && mg > 0 ? mg : undefined;
}

/** Hundredths of a degree. */
export const temperatureIn = (text: string): number | undefined => orNone(parseTemperature, text);
