import {
  formatMass,
  minutesFor,
  minutesOffered,
  type OwnTime,
  type PlanStage,
  type RunningTimer,
  type StepMark,
} from '@zabrik/core';
import { Check, Minus } from 'lucide-react';
import { minutesWords } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';
import { StepPhoto } from '../../parts/StepPhoto.tsx';
import { StepTimer } from './StepTimer.tsx';

interface Props {
  readonly stage: PlanStage;
  /** Of one animal, milligrams: what steps that go by size go by. */
  readonly animalMg: number;
  readonly ownTimes: readonly OwnTime[];
  /** Index of the step the cook is at; all before it are done. */
  readonly at: number;
  readonly onGo: (index: number) => void;
  /** What was said of steps, oldest first: the later counts. */
  readonly marks: readonly StepMark[];
  readonly onMark: ((index: number, mark: 'done' | 'late' | 'open') => void) | undefined;
  /** Passes counted by step. */
  readonly passes: ReadonlyMap<number, number>;
  readonly onPass: ((index: number) => void) | undefined;
  /** Timers of this breakdown that run or ring. */
  readonly timers: readonly RunningTimer[];
  readonly onTimer: ((index: number, dueAt: string, replaces?: string) => void) | undefined;
  readonly onTimerOff: ((id: string) => void) | undefined;
}

/** The steps of the plan: what is done, what to do now with its why and its caution, what comes. */
export function Steps({
  stage,
  animalMg,
  ownTimes,
  at,
  onGo,
  marks,
  onMark,
  passes,
  onPass,
  timers,
  onTimer,
  onTimerOff,
}: Props) {
  const last = new Map(marks.map((m) => [m.step, m.mark]));
  return (
    <ol className="grid content-start" aria-label="Steps">
      {stage.steps.map((step, i) => {
        const now = i === at;
        const mark = last.get(i);
        const skipped = mark === 'skipped';
        const minutes = minutesFor(step, animalMg);
        const own = ownTimes.find((t) => t.step === i);
        // what cooks, and what is warned of, is not made shorter than the book has it
        const holds = stage.cooks !== undefined || step.caution !== undefined;
        const done = mark === 'done' || mark === 'late' || (i < at && !skipped);
        return (
          <li
            key={step.title}
            aria-current={now ? 'step' : undefined}
            className={now ? 'border-y-[1.5px] border-ink bg-sheet' : ''}
          >
            <button
              type="button"
              onClick={() => onGo(i)}
              className={`grid w-full grid-cols-[28px_1fr] items-start gap-3 px-4 text-left ${now ? 'pt-3 pb-1' : 'min-h-8 py-1'}`}
            >
              <span
                className={`grid size-7 place-items-center rounded-full border-[1.5px] border-ink text-[14px] font-bold ${done ? 'bg-ink text-white' : skipped ? 'border-dashed bg-white' : now ? 'bg-attention' : 'border-line-strong bg-white'}`}
              >
                {done ? (
                  <Check size={15} aria-label="done" />
                ) : skipped ? (
                  <Minus size={15} aria-label="skipped" />
                ) : (
                  i + 1
                )}
              </span>
              <span className={now ? 'font-head text-[18px] leading-tight font-bold' : 'leading-7 text-ink-soft'}>
                {step.title}
                {skipped && <span className="text-[14px] font-normal text-alarm"> (skipped)</span>}
                {mark === 'late' && <span className="text-[14px] font-normal"> (done late)</span>}
              </span>
            </button>
            {now && (
              <div className="grid gap-1.5 pr-4 pb-3 pl-[56px]">
                {step.how !== undefined && <p className="leading-snug">{step.how}</p>}
                {step.why !== undefined && <p className="text-[15px] leading-snug text-ink-soft">{step.why}</p>}
                {step.caution !== undefined && (
                  <p className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5 text-[15px] leading-snug">
                    {step.caution}
                  </p>
                )}
                {step.check !== undefined && (
                  <p className="border-l-4 border-calm bg-calm-soft px-2.5 py-1.5 text-[15px] leading-snug">
                    Look: {step.check}
                  </p>
                )}
                {step.measure !== undefined && (
                  <p className="leading-snug">
                    {step.measure.what}{' '}
                    <strong className="figure text-lg">
                      {step.measure.low === step.measure.high
                        ? step.measure.low
                        : `${step.measure.low} to ${step.measure.high}`}{' '}
                      {step.measure.unit}
                    </strong>
                  </p>
                )}
                {step.photo !== undefined && <StepPhoto key={step.photo} photo={step.photo} of={step.title} />}
                {minutes !== undefined && (
                  <StepTimer
                    key={minutesOffered({ holds }, minutes, own)}
                    minutes={minutes}
                    offered={minutesOffered({ holds }, minutes, own)}
                    says={[
                      ...(step.bySize === undefined ? [] : [`${formatMass(animalMg)} each`]),
                      ...(own === undefined
                        ? []
                        : [`yours ${minutesWords(own.minutes)}, the middle of ${own.batches}`]),
                    ]}
                    running={timers.filter((t) => t.step === i)}
                    onSet={onTimer === undefined ? undefined : (dueAt, replaces) => onTimer(i, dueAt, replaces)}
                    onStop={onTimerOff}
                  />
                )}
                {onMark !== undefined &&
                  (skipped || mark === 'done' || mark === 'late' || step.pieces.length === 0) && (
                    <Button
                      className="mt-1 justify-self-start"
                      onClick={() => onMark(i, mark === 'done' || mark === 'late' ? 'open' : skipped ? 'late' : 'done')}
                    >
                      {mark === 'done' || mark === 'late' ? 'Not done yet' : skipped ? 'Done late' : 'Done'}
                    </Button>
                  )}
                {step.passes !== undefined && (
                  <div className="mt-1 flex items-center gap-3">
                    <Button size="bench" className="px-4" disabled={onPass === undefined} onClick={() => onPass?.(i)}>
                      Count a pass
                    </Button>
                    <span className="leading-tight" data-testid="passes">
                      <strong className="figure text-lg">
                        {passes.get(i) ?? 0} of {step.passes}
                      </strong>{' '}
                      passes
                    </span>
                  </div>
                )}
              </div>
            )}
          </li>
        );
      })}
    </ol>
  );
}
