/** Where marks and their figures stand on the ruler so that none covers another, and how far a mark may be out. */
import { massBetween, type PieceProfile, type PortionSize } from '@zabrik/core';

/** How far a mark may be out and its portion still be of its size. */
export function playOf(profile: PieceProfile, from: number, sizes: readonly PortionSize[], sizeId: string | undefined) {
  const size = sizes.find((s) => s.id === sizeId);
  if (size === undefined) return undefined;
  const [light, heavy] = [size.targetMg * (1 - size.toleranceShare), size.targetMg * (1 + size.toleranceShare)];
  let low = from + 1;
  while (low < profile.lengthMm && massBetween(profile, from, low) < light) low += 1;
  let high = low;
  while (high < profile.lengthMm && massBetween(profile, from, high + 1) <= heavy) high += 1;
  return { low, high };
}

/** Room to a mark's nearest neighbour, in the drawing's units. */
const room = (marks: readonly number[], i: number, scale: number): number =>
  Math.min(
    ...[marks[i - 1], marks[i + 1]].flatMap((m) => (m === undefined ? [] : [Math.abs(m - (marks[i] ?? 0)) * scale])),
    Number.POSITIVE_INFINITY,
  );
/** Marks near each other have smaller handles, and none covers its neighbour's. */
export const dot = (marks: readonly number[], i: number, scale: number): number =>
  Math.max(4, Math.min(14, room(marks, i, scale) / 2 - 1));
export const touch = (marks: readonly number[], i: number, scale: number): number =>
  Math.max(6, Math.min(28, room(marks, i, scale) / 2));

/** A figure is about so wide in the drawing. */
const FIGURE = 76;
/**
 * Which marks carry their figure: the one in hand always; of the others as many as stand clear of it and of each other, in two rows.
 *
 * @example 30 marks 25 apart: every fourth of a row, and none that would touch the one in hand
 */
export function figured(marks: readonly number[], i: number, selected: number, scale: number): boolean {
  if (i === selected) return true;
  const at = (k: number): number => (marks[k] ?? 0) * scale;
  const row = (k: number): number => (crowded(marks, k, scale) ? k % 2 : 0);
  if (row(i) === row(selected) && Math.abs(at(i) - at(selected)) < FIGURE) return false;
  let last = Number.NEGATIVE_INFINITY;
  for (let k = 0; k <= i; k += 1) {
    if (row(k) !== row(i) || k === selected) continue;
    if (Math.abs(at(k) - at(selected)) < FIGURE && row(k) === row(selected)) continue;
    if (at(k) - last < FIGURE) {
      if (k === i) return false;
      continue;
    }
    last = at(k);
  }
  return true;
}

/** Whether a mark's figure would touch its neighbour's. */
export const crowded = (marks: readonly number[], i: number, scale: number): boolean =>
  [marks[i - 1], marks[i + 1]].some((other) => other !== undefined && Math.abs(other - (marks[i] ?? 0)) * scale < 72);
