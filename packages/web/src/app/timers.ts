import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call } from './api.ts';
import { api } from './endpoints.ts';

/** Timers of every batch that is on, with how far this device's clock is from the server's, milliseconds. */
export const useTimers = () =>
  useQuery({
    queryKey: ['runs', 'timers'],
    queryFn: async () => {
      const { at, timers } = await call(api.pots.timers, {});
      return { timers, aheadMs: Date.parse(at) - Date.now() };
    },
    // between the messages of the live stream: a screen that missed one still rings
    refetchInterval: 30_000,
  });

/** Milliseconds since 1970, drawn anew several times a second while someone counts on it. */
export function useTick(on: boolean, everyMs = 250): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!on) return;
    setNow(Date.now());
    const ticking = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(ticking);
  }, [on, everyMs]);
  return now;
}

/** "18:05", "1:02:00", and "−0:12" once it is over. */
export function countWords(ms: number): string {
  const over = ms < 0;
  const s = over ? Math.floor(-ms / 1_000) : Math.ceil(ms / 1_000);
  const two = (n: number): string => String(n).padStart(2, '0');
  const h = Math.floor(s / 3_600);
  const words = h > 0 ? `${h}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`;
  return over ? `−${words}` : words;
}
