import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { useScaleAtRest } from '../../../app/live.ts';
import { weightIn } from '../../../kit/readers.ts';
import { panRefuses } from '../panWords.ts';
import { type Expected, useOddWeight } from '../useOddWeight.ts';
import type { AtBoard } from './useCutting.ts';

/** What is left of what lies on a board whose pieces nobody can foretell. */
export const leftOn = ({ cutting, state }: Pick<AtBoard, 'cutting' | 'state'>): Expected => ({
  leftMg: cutting.startMg - state.weights.reduce((sum, w) => sum + w.massMg, 0),
  mostMg: undefined,
  what: 'it',
});

/** Taking what lies on the pan, once for every time it comes to rest, or a weight typed where there is no scale. */
export function useTake(onMass: (massMg: number) => string, expected?: () => Expected) {
  const reading = useScaleAtRest();
  const odd = useOddWeight();
  const [takenAt, setTakenAt] = useState<number | undefined>(undefined);
  const [typing, setTyping] = useState<string | undefined>(undefined);
  const [says, setSays] = useState('');
  const wasTaken = takenAt === reading.settled && reading.state === 'steady';
  const ask = (massMg: number, source: 'scale' | 'typed'): string | undefined =>
    expected === undefined ? undefined : odd.asks(massMg, source, expected());
  const take = (): void => {
    const refuses = panRefuses(reading, wasTaken);
    if (reading.state === 'away') setTyping('');
    if (refuses !== undefined) setSays(refuses);
    else {
      const words = ask(reading.netMg, 'scale');
      if (words !== undefined) setSays(words);
      else {
        setTakenAt(reading.settled);
        setSays(onMass(reading.netMg));
        odd.took(reading.netMg, 'scale');
      }
    }
  };
  const typedMg = typing === undefined ? undefined : weightIn(typing);
  return {
    reading,
    take,
    /** What stands on the pan and is not taken yet. */
    panMg: reading.state === 'steady' && reading.netMg > 0 && !wasTaken ? reading.netMg : undefined,
    wasTaken,
    typing,
    setTyping,
    typedMg,
    takeTyped: (): void => {
      if (typedMg === undefined) return;
      const words = ask(typedMg, 'typed');
      if (words !== undefined) {
        setSays(words);
        return;
      }
      odd.took(typedMg, 'typed');
      setSays(onMass(typedMg));
      setTyping(undefined);
    },
    says,
    setSays,
    /** What is asked before it counts, in words. */
    asked: odd.asked,
    /** What was taken back may be weighed again as it lies there. */
    forget: odd.forget,
    panWords: reading.state === 'away' ? '–' : formatMass(Math.max(0, reading.netMg)),
  };
}
export type Taking = ReturnType<typeof useTake>;
