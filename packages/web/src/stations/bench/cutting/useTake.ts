import { formatMass, parseMass } from '@zabrik/core';
import { useState } from 'react';
import { useScaleAtRest } from '../../../app/live.ts';
import { panRefuses } from '../panWords.ts';

/** Taking what lies on the pan, once for every time it comes to rest, or a weight typed where there is no scale. */
export function useTake(onMass: (massMg: number) => string) {
  const reading = useScaleAtRest();
  const [takenAt, setTakenAt] = useState<number | undefined>(undefined);
  const [typing, setTyping] = useState<string | undefined>(undefined);
  const [says, setSays] = useState('');
  const wasTaken = takenAt === reading.settled && reading.state === 'steady';
  const take = (): void => {
    const refuses = panRefuses(reading, wasTaken);
    if (reading.state === 'away') setTyping('');
    if (refuses !== undefined) setSays(refuses);
    else {
      setTakenAt(reading.settled);
      setSays(onMass(reading.netMg));
    }
  };
  const typedMg = ((): number | undefined => {
    try {
      const mg = typing === undefined ? undefined : parseMass(typing);
      return mg !== undefined && mg > 0 ? mg : undefined;
    } catch {
      return undefined;
    }
  })();
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
      setSays(onMass(typedMg));
      setTyping(undefined);
    },
    says,
    setSays,
    panWords: reading.state === 'away' ? '–' : formatMass(Math.max(0, reading.netMg)),
  };
}
export type Taking = ReturnType<typeof useTake>;
