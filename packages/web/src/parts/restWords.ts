import type { WaitingStage } from '@zabrik/contract';

/** "1 h 24 min", "7 min". */
export function hoursAndMinutes(minutes: number): string {
  const whole = Math.max(0, Math.round(minutes));
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${whole % 60} min`;
}

/** Where the rest of what waits stands: still resting, ready, or too long. */
export function restWords(
  stage: Pick<WaitingStage, 'readyAt' | 'lateAt' | 'restNote'>,
  now: Date,
): { readonly text: string; readonly tone: 'none' | 'resting' | 'ready' | 'late' } {
  if (stage.readyAt === null || stage.lateAt === null) return { text: 'can go on at once', tone: 'none' };
  const until = (at: string): string => hoursAndMinutes((new Date(at).getTime() - now.getTime()) / 60_000);
  if (now < new Date(stage.readyAt)) return { text: `resting, ready in ${until(stage.readyAt)}`, tone: 'resting' };
  if (now < new Date(stage.lateAt))
    return { text: `rested, within its window for ${until(stage.lateAt)}`, tone: 'ready' };
  return { text: 'past its resting window: look and smell before going on', tone: 'late' };
}
