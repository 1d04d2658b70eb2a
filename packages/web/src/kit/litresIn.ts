import { parseLitres } from '@zabrik/core';

/** A volume as typed, litres: more than nothing; undefined while it is none. */
export function litresIn(text: string): number | undefined {
  try {
    return parseLitres(text);
  } catch {
    return undefined;
  }
}
