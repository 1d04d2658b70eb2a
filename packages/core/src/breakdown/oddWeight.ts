/** A weight that is far from anything expected: it is asked about once before it counts. */

/** So many times the most it should weigh, and it is more likely something else on the pan. */
const MANY_TIMES = 2.5;
/** Two loads this near each other, with nothing lifted off between them, are one load; in steps of the scale. */
const SAME_STEPS = 2;

export type OddWeight =
  /** Heavier than all that is left of what is being cut. */
  | { readonly kind: 'more-than-left'; readonly leftMg: number }
  /** Several times what it should weigh at the most. */
  | { readonly kind: 'many-times'; readonly mostMg: number; readonly times: number }
  /** What lay on the pan when the last weight was taken, taken again. */
  | { readonly kind: 'same-load'; readonly tookMg: number };

/**
 * Whether a weight is so far from anything expected that it is asked about; undefined when it is not.
 *
 * Units   milligrams. leftMg: start less what was weighed; mostMg: the most this piece should weigh, undefined where nobody knows;
 *         errorMg: what the scale may be off by; lastMg: the last weight taken, while nothing was lifted off since.
 * Keeps   heavier than what is left goes before several times too heavy: it is the surer sign.
 * @example 266 g where a portion of 32 g is cut from a piece that has 400 g left -> many times, 8.3
 */
export function oddWeight(
  massMg: number,
  about: {
    readonly leftMg: number;
    readonly mostMg: number | undefined;
    readonly errorMg: number;
    readonly intervalMg: number;
    readonly lastMg: number | undefined;
  },
): OddWeight | undefined {
  const { leftMg, mostMg, errorMg, intervalMg, lastMg } = about;
  if (lastMg !== undefined && Math.abs(massMg - lastMg) <= SAME_STEPS * intervalMg)
    return { kind: 'same-load', tookMg: lastMg };
  if (massMg > leftMg + errorMg) return { kind: 'more-than-left', leftMg: Math.max(0, leftMg) };
  if (mostMg !== undefined && mostMg > 0 && massMg > MANY_TIMES * mostMg)
    return { kind: 'many-times', mostMg, times: massMg / mostMg };
  return undefined;
}
