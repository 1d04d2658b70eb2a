/** Which limits of a profile apply to what is in hand. The profile's data says what each covers; nothing is taken because it stands first. */
import type { CookedAs, Food } from './food.ts';
import { isShownAsLimit } from './judge.ts';
import type { Limit, MostTemperature } from './limit.ts';

export const limitTasks = [
  'receive',
  'receive-frozen',
  'store',
  'cook',
  'histamine',
  'parasites',
  'made',
  'opened',
] as const;
export type LimitTask = (typeof limitTasks)[number];

/** What a limit is applied to by itself: at this task, to these foods, where it matters in these states of them. */
export interface Cover {
  readonly task: LimitTask;
  readonly foods: readonly Food[];
  readonly as?: readonly (CookedAs | 'fresh' | 'frozen')[];
}

/** Every limit of this kind that covers one of these foods at this task. Limits we are not sure of are left out: shown, never judged by. */
export function limitsFor<K extends Limit['kind']>(
  limits: readonly Limit[],
  kind: K,
  task: LimitTask,
  food: Food,
  as?: CookedAs | 'fresh' | 'frozen',
): Extract<Limit, { kind: K }>[] {
  return limits.filter(
    (l): l is Extract<Limit, { kind: K }> =>
      l.kind === kind &&
      isShownAsLimit(l) &&
      (l.covers ?? []).some(
        (c) =>
          c.task === task && c.foods.includes(food) && (c.as === undefined || (as !== undefined && c.as.includes(as))),
      ),
  );
}

/** The coldest of the limits that cover it: where two speak of it, the stricter one. */
export const strictestMost = (limits: readonly MostTemperature[]): MostTemperature | undefined =>
  limits.reduce<MostTemperature | undefined>(
    (a, b) => (a === undefined || b.value.max_C < a.value.max_C ? b : a),
    undefined,
  );

/** The limit a chilled or frozen delivery is received by; undefined where the profile has none for it. */
export function receivingLimit(limits: readonly Limit[], food: Food, frozen: boolean): MostTemperature | undefined {
  return strictestMost(limitsFor(limits, 'max_temp', frozen ? 'receive-frozen' : 'receive', food));
}

/** The limit it is stored by while it is not frozen. */
export const storageLimit = (limits: readonly Limit[], food: Food): MostTemperature | undefined =>
  strictestMost(limitsFor(limits, 'max_temp', 'store', food));
