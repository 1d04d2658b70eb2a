import { formatDegreesRange, formatMass, formatTemperature, minutesFor, minutesOffered, movedDue } from '@zabrik/core';
import { Check } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { clockTime } from '../../app/dates.ts';
import { countWords, minutesWords, useTick, useTimers, wholeSeconds } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';
import { LessMore } from '../../parts/LessMore.tsx';
import { StepPhoto } from '../../parts/StepPhoto.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { verdictTone, verdictWords } from '../../parts/verdictWords.ts';
import { useLogs } from './useLogs.ts';
import type { AtStove } from './useStove.ts';

/** The log of a cooling begins in its step, when it leaves the heat, not when somebody has weighed it: the first hour is the one that counts. */
function CoolsFrom({ stove, may }: { readonly stove: AtStove; readonly may: boolean }) {
  const { open, closed } = useLogs();
  const { batch } = stove;
  const logs = [...open, ...closed].filter((c) => c.batchId === batch.id);
  return (
    <div className="mt-3 grid gap-2">
      {logs.map((log) => {
        const last = log.readings.at(-1);
        return (
          <p key={log.id} className="text-lg">
            <Link className="font-semibold underline" to="/pots/cooling">
              {log.state === 'open' ? 'Cools' : 'Cooled'} since {clockTime(log.startedAt)}
            </Link>
            {last !== undefined && (
              <span className="figure">
                {' '}
                {formatTemperature(last.centiC)} at {clockTime(last.at)}
              </span>
            )}{' '}
            <span className={verdictTone(log.verdict)}>{verdictWords[log.verdict].toLowerCase()}</span>
          </p>
        );
      })}
      {may && (
        <Link
          className="grid h-14 w-fit place-items-center rounded-md border-2 border-ink bg-attention px-5 font-head text-lg font-semibold"
          to={`/pots/cooling?batch=${batch.id}`}
        >
          {logs.length === 0 ? 'Begin its cooling log now' : 'Another log of it'}
        </Link>
      )}
    </div>
  );
}

/** The step that is next, as large as a shelf over the stove needs it. */
export function NextStep({ stove, may }: { readonly stove: AtStove; readonly may: boolean }) {
  const { state, steps, record } = stove;
  const timers = useTimers();
  const step = state.next === undefined ? undefined : steps[state.next];
  const mine = state.timers.find((t) => t.step === state.next);
  const aheadMs = timers.data?.aheadMs ?? 0;
  const now = useTick(mine !== undefined) + aheadMs;
  const [minutes, setMinutes] = useState<number>();
  const n = state.next ?? 0;
  const own = stove.batch.ownTimes.find((t) => t.step === n);
  // a step that goes by size takes what pieces of this size take
  const book = step === undefined ? undefined : minutesFor(step, stove.batch.pieceMg ?? undefined);
  const typical = minutes ?? (step === undefined ? 0 : minutesOffered(step, book, own));
  const start = (): void => {
    record(
      {
        kind: 'timer',
        step: n,
        label: `${step?.kind ?? 'timer'}, ${minutesWords(typical)}`,
        // by the server's clock, as every bell reads it: this device's may be minutes off
        dueAt: new Date(Date.now() + aheadMs + typical * 60_000).toISOString(),
      },
      `Timer of ${minutesWords(typical)}`,
    );
    setMinutes(undefined);
  };
  const move = (by: number): void => {
    if (mine === undefined) return;
    const dueAt = movedDue(mine.dueAt, by, Date.now() + aheadMs);
    const says = `Timer ${by < 0 ? 'sooner' : 'later'} by ${minutesWords(Math.abs(by))}`;
    record({ kind: 'timer', step: n, label: mine.label, dueAt, replaces: mine.id }, says);
  };
  const done = (skipped: boolean): void => {
    setMinutes(undefined);
    record({ kind: 'step', step: n, skipped }, `Step ${n + 1} ${skipped ? 'left out' : 'done'}`);
  };
  useKeys(
    may && step !== undefined
      ? { d: () => done(false), ...(step.minutes !== undefined && mine === undefined ? { t: start } : {}) }
      : {},
  );
  if (step === undefined)
    return (
      <div className="rounded-plate border-2 border-ink bg-white p-6">
        <p className="font-head text-3xl font-semibold">Every step is done. Weigh what came out.</p>
      </div>
    );
  const left = mine === undefined ? undefined : Date.parse(mine.dueAt) - now;
  return (
    <section
      className="grid gap-4 rounded-plate border-2 border-ink bg-white p-5 md:grid-cols-[1fr_auto]"
      aria-label="Next step"
    >
      <div className="min-w-0">
        <p className="text-[15px] text-ink-soft">
          Step {n + 1} of {steps.length}
        </p>
        <p className="mt-1 font-head text-[28px] leading-tight font-semibold">{step.text}</p>
        {step.watch !== undefined && (
          <p className="mt-3 border-l-4 border-attention pl-3 text-xl">
            Look: {step.watch.charAt(0).toLowerCase() + step.watch.slice(1)}.
          </p>
        )}
        {step.tempC !== undefined && (
          <p className="mt-3 text-xl">
            Keep it at <strong className="figure">{formatDegreesRange(step.tempC.low, step.tempC.high)}</strong>.
          </p>
        )}
        {step.photo !== undefined && <StepPhoto key={step.photo} photo={step.photo} of={step.text} className="mt-3" />}
        {step.kind === 'cool' && <CoolsFrom stove={stove} may={may} />}
      </div>
      <div className="flex min-w-60 flex-col items-stretch justify-between gap-3">
        {step.minutes !== undefined &&
          (mine === undefined ? (
            <div className="grid gap-2">
              <span className="figure text-center text-5xl">{minutesWords(typical)}</span>
              <span className="text-center text-[14px] text-ink-soft">
                usually {minutesWords(book?.low ?? 0)} to {minutesWords(book?.high ?? 0)}
                {step.bySize !== undefined &&
                  stove.batch.pieceMg !== null &&
                  `, ${formatMass(stove.batch.pieceMg)} each`}
                {own !== undefined && (
                  <span className="block text-ink">
                    yours {minutesWords(own.minutes)}, the middle of {own.batches}
                  </span>
                )}
              </span>
              {may && (
                <div className="grid grid-cols-[auto_1fr_auto] gap-2">
                  <LessMore of={typical} onBy={(by) => setMinutes(wholeSeconds(typical + by))}>
                    <Button size="bench" variant="plain" hotkey="t" onClick={start}>
                      Start timer
                    </Button>
                  </LessMore>
                </div>
              )}
            </div>
          ) : (
            <div className={`rounded-md p-3 text-center ${(left ?? 1) <= 0 ? 'bg-attention' : 'bg-ground'}`}>
              <span className="figure block text-6xl" data-testid="countdown">
                {countWords(left ?? 0)}
              </span>
              <span className="text-[15px] text-ink-soft">
                {(left ?? 1) <= 0 ? 'rang' : 'rings'} at {clockTime(mine.dueAt)}
              </span>
              {may && (
                <div className="mt-2 grid grid-cols-2 gap-2">
                  <LessMore of={Math.max((left ?? 0) / 60_000, Math.min(1, typical) / 2)} onBy={move} />
                </div>
              )}
            </div>
          ))}
        {may && (
          <div className="grid grid-cols-[1fr_auto] gap-2">
            <Button size="bench" variant="strong" hotkey="d" onClick={() => done(false)}>
              <Check size={20} aria-hidden="true" />
              Done
            </Button>
            <Button size="bench" onClick={() => done(true)}>
              Leave out
            </Button>
          </div>
        )}
      </div>
    </section>
  );
}
