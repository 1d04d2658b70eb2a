/** The steps of the stage at the bench: which one comes, what is warned of, what is marked, timed, passed and paused. */
import { type Guarded, guardsBefore } from '@zabrik/core';
import { useMemo, useState } from 'react';
import { stepAt } from './benchOrder.ts';
import type { BenchState } from './useBreakdown.ts';
import type { Choice } from './useChoice.ts';
import { useMarks } from './useMarks.ts';

export function useSteps(state: BenchState, { right, piece, taken }: Choice, say: (words: string) => void) {
  const { breakdown, stage, counted } = state;
  const told = useMarks(state);
  const { marks, paused, passes } = told;
  /** A step somebody went to, and how many weights stood then: one that is behind is looked at until the next weight. */
  const [goneTo, setGoneTo] = useState<{ readonly step: number; readonly weights: number }>();
  /** The step just skipped: a note to it may follow until the next weight. */
  const [skipped, setSkipped] = useState<Guarded | undefined>(undefined);
  const weighedIds = useMemo(() => new Set(counted.map((w) => w.piece.id)), [counted]);
  const come = stepAt(stage, taken, breakdown.animals);
  const guards: readonly Guarded[] = right === undefined ? guardsBefore(stage, piece.id, marks, weighedIds) : [];
  const guard = guards[0];
  return {
    ...told,
    at: goneTo !== undefined && (goneTo.step > come || goneTo.weights === counted.length) ? goneTo.step : come,
    goTo: (i: number): void =>
      setGoneTo({ step: Math.min(stage.steps.length - 1, Math.max(0, i)), weights: counted.length }),
    guard,
    guardsLeft: guards.length,
    answerGuard: (mark: 'done' | 'skipped', note: string | null): void => {
      if (guard === undefined) return;
      if (mark === 'skipped') setSkipped(guard); // the note to it may come once every warning is answered
      say(mark === 'done' ? `${guard.step.title}: done.` : `${guard.step.title}: skipped.`);
      void state.happen({ kind: 'step', step: guard.index, mark, note }, `${guard.step.title}, ${mark}`);
    },
    skipped,
    noteSkipped: (note: string): void => {
      if (skipped === undefined || note === '') return;
      void state.happen({ kind: 'step', step: skipped.index, mark: 'skipped', note }, `${skipped.step.title}, why`);
      say(`${skipped.step.title}: ${note}`);
      setSkipped(undefined);
    },
    forgetSkipped: (): void => setSkipped(undefined),
    /** Marks a step by hand: done, also when it was skipped before, or open again. */
    markStep: (step: number, mark: 'done' | 'late' | 'open'): void => {
      const title = stage.steps[step]?.title ?? '';
      say(mark === 'open' ? `${title}: open again.` : `${title}: ${mark === 'late' ? 'done late' : 'done'}.`);
      void state.happen({ kind: 'step', step, mark, note: null }, `${title}, ${mark}`);
    },
    setTimer: (step: number, dueAt: string, replaces?: string): void => {
      const label = (stage.steps[step]?.title ?? '').slice(0, 120);
      const moved = replaces !== undefined;
      void state.happen(
        { kind: 'timer', step, label, dueAt, ...(moved ? { replaces } : {}) },
        `timer${moved ? ' moved' : ''}, ${label}`,
      );
      say(moved ? `Timer moved: ${label}.` : `Timer: ${label}.`);
    },
    stopTimer: (timerId: string): void => {
      void state.happen({ kind: 'timer-off', timerId }, 'timer stopped');
      say('Timer stopped.');
    },
    pauseOrGoOn: (): void => {
      say(paused ? 'On again.' : 'Paused. The clock stands.');
      void state.happen({ kind: paused ? 'resume' : 'pause' }, paused ? 'on again' : 'paused');
    },
    countPass: (step: number): void => {
      void state.happen({ kind: 'pass', step }, 'a pass counted');
      say(`Pass ${(passes.get(step) ?? 0) + 1} counted.`);
    },
  };
}
