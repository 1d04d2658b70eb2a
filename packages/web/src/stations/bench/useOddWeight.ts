import { formatCount, formatMass, type OddWeight, oddWeight } from '@zabrik/core';
import { useRef, useState } from 'react';
import { liftsNow, useChosenScale } from '../../app/live.ts';
import { useHouse } from '../../app/queries.ts';

export interface Expected {
  /** What is left of what is being cut. */
  readonly leftMg: number;
  /** The most this piece should weigh; undefined where nobody knows. */
  readonly mostMg: number | undefined;
  /** What it is, in words: "a portion of 32 g", "fillet, first side". */
  readonly what: string;
}

const wordsOf = (odd: OddWeight, massMg: number, what: string): string => {
  const mass = formatMass(massMg);
  switch (odd.kind) {
    case 'same-load':
      return `${mass} lies there since the last weight was taken. Is it the same load?`;
    case 'more-than-left':
      return `${mass} is more than the ${formatMass(odd.leftMg)} that is left. Is something else on the pan?`;
    case 'many-times':
      return `${mass} is ${odd.times < 10 ? formatCount(odd.times, 1) : Math.round(odd.times)} times what ${what} weighs at the most. Is it something else on the pan?`;
  }
};

/**
 * Asks once about a weight that is far from anything expected. The same weight of the same load meant again counts.
 *
 * `asks`: whether it is asked about now, in words, and then it must not be counted. `took`: it was counted.
 */
export function useOddWeight() {
  const { data: house } = useHouse();
  const scaleId = useChosenScale();
  const last = useRef<{ readonly massMg: number; readonly lifts: number }>(undefined);
  const answered = useRef<string>(undefined);
  const [standing, setAsked] = useState<{ readonly words: string; readonly lifts: number | undefined }>();
  const intervalMg = house?.scales.find((s) => s.id === scaleId)?.intervalMg ?? house?.scales[0]?.intervalMg ?? 1_000;
  return {
    /** What stands asked, until it is answered, lifted off or something else is weighed. */
    asked: standing?.lifts === undefined || standing.lifts === liftsNow() ? standing?.words : undefined,
    asks: (massMg: number, source: 'scale' | 'typed', expected: Expected): string | undefined => {
      const lifts = liftsNow();
      const same = source === 'scale' && last.current?.lifts === lifts ? last.current.massMg : undefined;
      const odd = oddWeight(massMg, {
        leftMg: expected.leftMg,
        mostMg: expected.mostMg,
        errorMg: Math.max(2 * intervalMg, 0.01 * expected.leftMg),
        intervalMg,
        lastMg: same,
      });
      const about = `${source} ${source === 'scale' ? lifts : ''} ${Math.round(massMg / intervalMg)} ${expected.what}`;
      if (odd === undefined || answered.current === about) {
        setAsked(undefined);
        return undefined;
      }
      answered.current = about;
      const words = `${wordsOf(odd, massMg, expected.what)} Press again to count it all the same.`;
      setAsked({ words, lifts: source === 'scale' ? lifts : undefined });
      return words;
    },
    took: (massMg: number, source: 'scale' | 'typed'): void => {
      if (source === 'scale') last.current = { massMg, lifts: liftsNow() };
      answered.current = undefined;
      setAsked(undefined);
    },
    /** What was taken back may be weighed again as it lies there. */
    forget: (): void => {
      last.current = undefined;
      answered.current = undefined;
      setAsked(undefined);
    },
  };
}
