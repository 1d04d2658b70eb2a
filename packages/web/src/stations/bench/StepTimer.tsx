import type { Minutes, RunningTimer } from '@zabrik/core';
import { countWords, useTick, useTimers } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';

interface Props {
  readonly minutes: Minutes;
  readonly running: readonly RunningTimer[];
  readonly onSet: ((dueAt: string) => void) | undefined;
  readonly onStop: ((id: string) => void) | undefined;
}

/** "20 min", "12 s". */
const long = (minutes: number): string =>
  minutes < 1
    ? `${Math.round(minutes * 60)} s`
    : minutes < 120
      ? `${minutes} min`
      : `${Math.round(minutes / 6) / 10} h`;

/** A timer for what takes its time by itself: a soak, a drain, a blanch. It rings on every screen of the house. */
export function StepTimer({ minutes, running, onSet, onStop }: Props) {
  const aheadMs = useTimers().data?.aheadMs ?? 0;
  const now = useTick(running.length > 0) + aheadMs;
  const { low, typical, high } = minutes;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2">
      {running.map((t) => (
        <span key={t.id} className="flex items-center gap-2">
          <strong className="figure text-2xl" data-testid="bench-timer">
            {countWords(Date.parse(t.dueAt) - now)}
          </strong>
          {onStop !== undefined && <Button onClick={() => onStop(t.id)}>Stop</Button>}
        </span>
      ))}
      {running.length === 0 && onSet !== undefined && (
        <Button
          size="bench"
          className="px-4"
          onClick={() => onSet(new Date(Date.now() + aheadMs + typical * 60_000).toISOString())}
        >
          Timer, {long(typical)}
        </Button>
      )}
      {low !== high && (
        <span className="text-[14px] text-ink-soft">
          {long(low)} to {long(high)}
        </span>
      )}
    </div>
  );
}
