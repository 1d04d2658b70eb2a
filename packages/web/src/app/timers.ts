import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call } from './api.ts';
import { api } from './endpoints.ts';

/**
 * How far the server's clock is ahead of this device's, milliseconds. The server looked at its clock somewhere between asking and
 * hearing; a device that may be right is taken as right, so that a slow answer delays no bell.
 *
 * @example asked at 0, heard at 400, the server said 150: 0. The server said 5,150: 4,750, the least that explains it
 */
export const clockAhead = (askedAt: number, heardAt: number, serverAt: number): number =>
  Math.max(serverAt - heardAt, Math.min(0, serverAt - askedAt));

/** Timers of every batch that is on, with how far this device's clock is from the server's, milliseconds. */
export const useTimers = () =>
  useQuery({
    queryKey: ['batches', 'timers'],
    queryFn: async () => {
      const askedAt = Date.now();
      const { at, timers } = await call(api.pots.timers, {});
      return { timers, aheadMs: clockAhead(askedAt, Date.now(), Date.parse(at)) };
    },
    // between the messages of the live stream: a screen that missed one still rings. One that was refused does not wait for the next message
    refetchInterval: ({ state }) => (state.error === null && state.fetchFailureCount === 0 ? 30_000 : 2_000),
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

/** "12 s", "20 min", "3.5 h". */
export const minutesWords = (minutes: number): string =>
  minutes < 1
    ? `${Math.round(minutes * 60)} s`
    : minutes < 120
      ? `${Math.round(minutes)} min`
      : `${Math.round(minutes / 6) / 10} h`;

/** Minutes of whole seconds, five at least: what is added up by twelfths drifts. */
export const wholeSeconds = (minutes: number): number => Math.max(5, Math.round(minutes * 60)) / 60;
