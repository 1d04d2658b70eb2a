import type { MinutesRange } from '@zabrik/core';

/** "12 min (10 to 15)", "3 h (2 h to 4 h)": what something usually takes, and its range where it has one. */
export const spreadWords = (m: MinutesRange): string => {
  const words = (v: number): string => (v >= 120 ? `${Math.round(v / 6) / 10} h` : `${v} min`);
  if (m.low === m.high) return words(m.typical);
  return `${words(m.typical)} (${m.high < 120 ? m.low : words(m.low)} to ${words(m.high).replace(' min', '')})`;
};
