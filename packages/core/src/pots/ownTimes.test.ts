import { describe, expect, it } from 'vitest';
import type { BatchEventBody } from './batchState.ts';
import { minutesOffered, ownTimes, stepMinutes } from './ownTimes.ts';
import type { RecipeStep } from './recipe.ts';

const at = (minute: number): string => new Date(Date.UTC(2026, 10, 24, 10, 0) + minute * 60_000).toISOString();
const said = (minute: number, body: BatchEventBody) => ({ at: at(minute), body });
const timer = (minute: number, step: number | null) =>
  said(minute, { kind: 'timer', step, label: 'simmer', dueAt: at(minute + 30) });
const done = (minute: number, step: number, skipped = false) => said(minute, { kind: 'step', step, skipped });
const simmer = {
  kind: 'simmer',
  text: 'Simmer, not more.',
  minutes: { low: 20, typical: 30, high: 45 },
} as RecipeStep;
const strain = { kind: 'strain', text: 'Strain.' } as RecipeStep;

describe('what a step took', () => {
  it('is from its first timer to its end: moved, stopped or set again in between it is one step', () => {
    const moved = [timer(0, 0), said(5, { kind: 'timer-off', timerId: 'x' }), timer(6, 0), done(24, 0), done(30, 1)];
    expect([...stepMinutes(moved)]).toEqual([[0, 24]]);
  });
  it('is nothing where the step was left out, had no timer, or was of none', () => {
    expect([...stepMinutes([timer(0, 0), done(24, 0, true), timer(0, null), done(3, 1)])]).toEqual([]);
  });
  it('is the last word where it was said twice', () => {
    expect([...stepMinutes([timer(0, 0), done(20, 0), done(26, 0)])]).toEqual([[0, 26]]);
  });
});

describe('the house’s own times', () => {
  const batch = (minutes: number, steps = [simmer, strain], i = 0) => ({
    steps,
    standing: [timer(0, i), done(minutes, i)],
  });
  it('are the middle of the last batches, so that one that stood forgotten changes little', () => {
    expect(ownTimes([simmer, strain], [batch(22), batch(140), batch(24)])).toEqual([
      { step: 0, minutes: 24, batches: 3 },
    ]);
    expect(ownTimes([simmer], [batch(22), batch(25)])).toEqual([{ step: 0, minutes: 23.5, batches: 2 }]);
    expect(ownTimes([simmer], [batch(22)])).toEqual([]);
  });
  it('follow a step that was moved, and forget one whose words are others', () => {
    const before = [batch(22, [strain, simmer], 1), batch(26, [strain, simmer], 1)];
    expect(ownTimes([simmer, strain], before)).toEqual([{ step: 0, minutes: 24, batches: 2 }]);
    expect(ownTimes([{ ...simmer, text: 'Simmer an hour.' }], before)).toEqual([]);
  });
  it('of a step that goes by size are those of pieces of that size', () => {
    const boil = { ...simmer, bySize: [{ upToG: 800, minutes: { low: 12, typical: 12, high: 14 } }] };
    const of = (minutes: number, pieceMg: number) => ({ ...batch(minutes, [boil, strain]), pieceMg });
    const before = [of(13, 700_000), of(21, 1_900_000), of(15, 800_000)];
    expect(ownTimes([boil, strain], before, 750_000)).toEqual([{ step: 0, minutes: 14, batches: 2 }]);
    expect(ownTimes([boil, strain], before)).toEqual([]);
  });
  it('of a step on the bench count from its mark, and not once it is open again', () => {
    const salt = { title: 'Salt', minutes: { low: 20, typical: 30, high: 60 } };
    const mark = (minute: number, word: string) => ({
      at: at(minute),
      body: { kind: 'step', step: 0, mark: word },
    });
    const twice = { steps: [salt], standing: [timer(0, 0), mark(22, 'done')] };
    const open = { steps: [salt], standing: [timer(0, 0), mark(40, 'done'), mark(41, 'open')] };
    const late = { steps: [salt], standing: [timer(0, 0), mark(10, 'skipped'), mark(26, 'late')] };
    expect(ownTimes([salt], [twice, open, late])).toEqual([{ step: 0, minutes: 24, batches: 2 }]);
  });
  it('are offered, but where a temperature is held not below the least of the book', () => {
    const own = { step: 0, minutes: 12, batches: 3 };
    expect(minutesOffered(simmer, simmer.minutes, undefined)).toBe(30);
    expect(minutesOffered(simmer, simmer.minutes, own)).toBe(12);
    const held = { ...simmer, tempC: { low: 71, high: 75 } };
    expect(minutesOffered(held, held.minutes, own)).toBe(20);
    expect(minutesOffered(held, held.minutes, { ...own, minutes: 33 })).toBe(33);
    expect(minutesOffered(strain, undefined, undefined)).toBe(0);
  });
});
