/** The units of the house that this tablet is in: kept on it, so that the first drawing is right before the house has answered. */
import { type Units, unitsComeFrom, usualUnits } from '@zabrik/core';

const KEPT = 'zabrik-units';

function kept(): Units {
  try {
    return { ...usualUnits, ...(JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Units>) };
  } catch {
    return usualUnits;
  }
}

let units = kept();
unitsComeFrom(() => units);

/** Tells what a drawing was made in: what it is keyed by is drawn anew when the house changes its units. */
export const unitsKey = (): string => Object.values(units).join(' ');

/** Said by the shell before anything below it is drawn. */
export function unitsAreOf(said: Units): void {
  const before = unitsKey();
  units = said;
  if (unitsKey() === before) return;
  try {
    localStorage.setItem(KEPT, JSON.stringify(said));
  } catch {
    // a browser that keeps nothing draws the first screen in the usual ones
  }
}
