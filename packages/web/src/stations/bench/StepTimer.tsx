import { type Minutes, movedDue, type RunningTimer } from '@zabrik/core';
import { useState } from 'react';
import { countWords, minutesWords, useTick, useTimers, wholeSeconds } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';
import { LessMore } from '../../parts/LessMore.tsx';

interface Props {
  readonly minutes: Minutes;
  /** What it is set to unless somebody says otherwise. */
  readonly offered: number;
  /** What stands beside the book's minutes: the size they are for, what this house took. */
  readonly says: readonly string[];
  readonly running: readonly RunningTimer[];
  /** Sets one, or sets the one that runs to another time. */
  readonly onSet: ((dueAt: string, replaces?: string) => void) | undefined;
  readonly onStop: ((id: string) => void) | undefined;
}

/** A timer for what takes its time by itself: a soak, a drain, a blanch. It rings on every screen of the house, and is moved while it runs. */
export function StepTimer({ minutes, offered, says, running, onSet, onStop }: Props) {
  const aheadMs = useTimers().data?.aheadMs ?? 0;
  const now = useTick(running.length > 0) + aheadMs;
  const { low, typical, high } = minutes;
  const [wanted, setWanted] = useState(offered);
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2">
      {running.map((t) => {
        const leftMs = Date.parse(t.dueAt) - now;
        return (
          <span key={t.id} className="flex flex-wrap items-center gap-2">
            <strong className="figure text-2xl" data-testid="bench-timer">
              {countWords(leftMs)}
            </strong>
            {onSet !== undefined && (
              <LessMore
                of={Math.max(leftMs / 60_000, Math.min(1, typical) / 2)}
                onBy={(by) => onSet(movedDue(t.dueAt, by, Date.now() + aheadMs), t.id)}
              />
            )}
            {onStop !== undefined && (
              <Button size="bench" onClick={() => onStop(t.id)}>
                Stop
              </Button>
            )}
          </span>
        );
      })}
      {running.length === 0 && onSet !== undefined && (
        <LessMore of={wanted} onBy={(by) => setWanted(wholeSeconds(wanted + by))}>
          <Button
            size="bench"
            className="px-4"
            onClick={() => onSet(new Date(Date.now() + aheadMs + Math.round(wanted * 60_000)).toISOString())}
          >
            Timer, {minutesWords(wanted)}
          </Button>
        </LessMore>
      )}
      {(low !== high || says.length > 0) && (
        <span className="text-[14px] text-ink-soft">
          {[low === high ? minutesWords(typical) : `${minutesWords(low)} to ${minutesWords(high)}`, ...says].join(', ')}
        </span>
      )}
    </div>
  );
}
