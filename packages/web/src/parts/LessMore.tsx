import { timerStep } from '@zabrik/core';
import { minutesWords } from '../app/timers.ts';
import { Button } from '../kit/Button.tsx';

/** Sooner and later by one touch, each side of what stands between them. `of`: the minutes it is about. */
export function LessMore({
  of,
  onBy,
  children,
}: {
  readonly of: number;
  readonly onBy: (minutes: number) => void;
  readonly children?: React.ReactNode;
}) {
  const more = timerStep(of);
  // from 30 minutes down to 29, not to 25
  const less = timerStep(of - 1 / 12);
  return (
    <>
      <Button
        size="bench"
        className="min-w-14 px-1!"
        aria-label={`${minutesWords(less)} less`}
        onClick={() => onBy(-less)}
      >
        −{minutesWords(less)}
      </Button>
      {children}
      <Button
        size="bench"
        className="min-w-14 px-1!"
        aria-label={`${minutesWords(more)} more`}
        onClick={() => onBy(more)}
      >
        +{minutesWords(more)}
      </Button>
    </>
  );
}
