/** What happened at this stage beside weighing, as the bench needs it: steps marked, passes counted, the clock, notes to trays. */
import { isPaused, runningTimers, type StepMark, workedMinutes } from '@zabrik/core';
import { useMemo } from 'react';
import type { BenchState } from './useBreakdown.ts';

export function useMarks({ events, stage, breakdown }: BenchState) {
  return useMemo(() => {
    const marks: StepMark[] = [];
    const times: { kind: 'pause' | 'resume'; at: Date }[] = [];
    const passes = new Map<number, number>();
    const trayNotes = new Map<string, string>();
    for (const { body } of events) {
      if (body.kind === 'step') marks.push({ step: body.step, mark: body.mark });
      else if (body.kind === 'pause' || body.kind === 'resume') times.push({ kind: body.kind, at: new Date(body.at) });
      else if (body.kind === 'pass') passes.set(body.step, (passes.get(body.step) ?? 0) + 1);
      else if (body.kind === 'tray-note') trayNotes.set(body.destination, body.text);
    }
    const done = new Set<number>();
    for (const { step, mark } of marks) {
      if (mark === 'open') done.delete(step);
      else done.add(step);
    }
    return {
      marks,
      timers: runningTimers(
        events.map(({ id, body }) => ({ id, at: body.at, body })),
        done,
      ),
      passes,
      trayNotes,
      missingPasses: stage.steps.flatMap((step, i) => {
        const done = passes.get(i) ?? 0;
        return step.passes !== undefined && done < step.passes
          ? [{ step: step.title, index: i, done, wanted: step.passes }]
          : [];
      }),
      paused: isPaused(times),
      /** Minutes worked from the start until now, pauses left out. */
      minutes: (now: Date): number => workedMinutes(new Date(breakdown.startedAt), now, times),
      workedBetween: (from: Date, to: Date): number => workedMinutes(from, to, times),
    };
  }, [events, stage, breakdown.startedAt]);
}
