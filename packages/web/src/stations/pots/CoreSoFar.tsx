import { conduction, lethalityTargets } from '@zabrik/catalogue/heat';
import {
  type CookedAs,
  cookedAs,
  cookedSoFar,
  cookingFor,
  type Food,
  formatCount,
  formatDegrees,
  formatDegreesRange,
  formatTemperature,
  type Limit,
  LONGEST_UNREAD_COOKING_MINUTES,
  lethality,
  logOf,
  type Recipe,
  type RecipeStep,
  secondsUntilHot,
} from '@zabrik/core';
import { useState } from 'react';
import { clockTime } from '../../app/dates.ts';
import { Button } from '../../kit/Button.tsx';
import { NumField } from '../../kit/NumField.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { TakeTemperature } from '../../parts/TakeTemperature.tsx';
import { longWords } from './coolingMethods.ts';
import { useHouseLimits } from './potQueries.ts';
import type { AtStove } from './useStove.ts';

const held = (seconds: number): string =>
  seconds < 120 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 6) / 10} min`;

/** A step that cooks what is in it through: a cure is kept cold and is no such step. */
const cooksThrough = (step: RecipeStep | undefined): boolean =>
  step !== undefined && step.kind === 'cook' && (step.tempC === undefined || step.tempC.low >= 50);

interface ComeUpProps {
  readonly stove: AtStove;
  /** The pairs of the limit, and how long each is to be held. */
  readonly pairs: readonly { readonly C: number; readonly asksSeconds: number }[];
}

/** How long a piece so thick still takes until its core is there, in what it is cooked in, and how long it is held then. */
function ComeUp({ stove, pairs }: ComeUpProps) {
  const { state, steps } = stove;
  // what is salted now is cooked in the step that comes for it
  const now = state.next ?? 0;
  const step = steps.slice(now).find(cooksThrough) ?? steps.find(cooksThrough);
  const usual = step?.tempC === undefined ? 85 : (step.tempC.low + step.tempC.high) / 2;
  const [thick, setThick] = useState(40);
  const [around, setAround] = useState<number>();
  const [wanted, setWanted] = useState<number>();
  const mediumC = around ?? usual;
  // the hottest printed pair that this heat can reach, and no hotter than 70 while a cooler one is printed; where the heat reaches none,
  // the coolest: it is said that it never comes there. Without pairs, as near to 70 as it comes
  const most = Math.min(70, mediumC - 1);
  const asked = pairs.map((p) => p.C);
  const reached = asked.filter((C) => C <= most);
  const core = wanted ?? (asked.length === 0 ? most : reached.length > 0 ? Math.max(...reached) : Math.min(...asked));
  const pair = [...pairs].sort((a, b) => b.C - a.C).find((p) => p.C <= core);
  const fromC = (state.probes.at(-1)?.centiC ?? 500) / 100;
  const seconds = secondsUntilHot(
    {
      shape: 'slab',
      halfM: thick / 2_000,
      h: stove.batch.recipe.vessel === 'oven' ? conduction.airH : conduction.bathH,
      k: conduction.k,
      alpha: conduction.alpha,
      fromC,
      mediumC,
    },
    core,
  );
  return (
    <div className="mt-3 border-t border-line pt-3">
      <div className="grid grid-cols-3 gap-2">
        <NumField label="Thick" unit="mm" value={thick} min={3} max={300} decimals={0} onValue={setThick} />
        <NumField label="Heat at" unit="°C" value={mediumC} min={30} max={300} onValue={setAround} />
        <NumField label="Core to" unit="°C" value={core} min={30} max={100} onValue={setWanted} />
      </div>
      <p className="mt-1 text-[15px]" data-testid="come-up">
        <span className="figure text-xl">
          {fromC >= core ? 'As hot as wanted' : longWords(seconds === undefined ? undefined : seconds / 60)}
        </span>{' '}
        <span className="text-ink-soft">
          {fromC >= core ? 'by the last reading' : `in ${formatDegrees(mediumC)}, by thickness from the last reading`}
          {pair !== undefined && `; then ${held(pair.asksSeconds)} at ${formatDegrees(pair.C)}`}. An estimate: the probe
          decides.
        </span>
      </p>
    </div>
  );
}

const foodNames: Readonly<Record<Food, string>> = {
  fish: 'fish',
  scombroid: 'oily fish',
  crustacean: 'crustaceans',
  'live-crustacean': 'crustaceans',
  shellfish: 'shellfish',
  'live-shellfish': 'shellfish',
  cephalopod: 'squid and its kin',
  poultry: 'poultry',
  rabbit: 'rabbit',
  'small-game': 'feathered game or hare',
  'large-game': 'deer or boar',
  meat: 'beef, veal, lamb or pork',
  offal: 'liver and offal',
  mince: 'mince',
  eggs: 'egg',
  ready: 'ready to eat',
  dairy: 'dairy',
  other: 'other',
  unknown: 'not known',
};
const cookedAsNames: Readonly<Record<CookedAs, string>> = {
  whole: 'whole pieces',
  minced: 'minced, pierced or injected',
  stuffed: 'stuffed, or a stuffing',
};
const asked = [
  'fish',
  'crustacean',
  'shellfish',
  'poultry',
  'small-game',
  'large-game',
  'meat',
  'offal',
  'eggs',
] as const;

interface WhatIsInProps {
  readonly stove: AtStove;
  readonly known: { readonly foods: readonly Food[]; readonly how: CookedAs | undefined };
  readonly onDone?: () => void;
}

/** What nobody can tell from the lots is asked of the cook: until it is said, the strictest limit stands. */
function WhatIsIn({ stove, known, onDone }: WhatIsInProps) {
  const [foods, setFoods] = useState<readonly Food[]>(known.foods.filter((f) => f !== 'unknown'));
  const [how, setHow] = useState<CookedAs | undefined>(known.how);
  return (
    <fieldset className="mt-2 min-w-0 rounded-md border-[1.5px] border-attention bg-[#fff7e0] p-2.5">
      <legend className="px-1 text-[15px] font-semibold">What raw is in it?</legend>
      <p className="mb-1.5 text-[14px]">
        It cannot be told from what went in. Until you say, the strictest limit stands.
      </p>
      <div className="flex flex-wrap gap-1.5">
        {asked.map((food) => (
          <Toggle
            key={food}
            on={foods.includes(food)}
            onPress={() => setFoods(foods.includes(food) ? foods.filter((f) => f !== food) : [...foods, food])}
          >
            {foodNames[food]}
          </Toggle>
        ))}
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {cookedAs.map((as) => (
          <Toggle key={as} on={how === as} onPress={() => setHow(as)}>
            {cookedAsNames[as]}
          </Toggle>
        ))}
      </div>
      <Button
        variant="strong"
        className="mt-2 h-11"
        disabled={foods.length === 0 || how === undefined}
        onClick={() => {
          if (how !== undefined) stove.record({ kind: 'holds', foods, how }, 'What is raw in it');
          onDone?.();
        }}
      >
        That is in it
      </Button>
    </fieldset>
  );
}

/** The probe at the stove: what the step wants, what was read, and for what is cooked through: time at temperature so far. */
export function CoreSoFar({ stove }: { readonly stove: AtStove }) {
  const { state, steps, batch } = stove;
  const limits = useHouseLimits();
  const [again, setAgain] = useState(false);
  const step = state.next === undefined ? undefined : steps[state.next];
  const last = state.probes.at(-1);
  // what was read in a step before says nothing of what this one wants
  const since =
    [...state.done.values()]
      .map((d) => d.at)
      .sort()
      .at(-1) ?? '';
  const wanted = last !== undefined && last.at >= since ? step?.tempC : undefined;
  const fits =
    wanted === undefined || last === undefined || (last.centiC / 100 >= wanted.low && last.centiC / 100 <= wanted.high);
  // cooked through in one piece: the core is what counts. A stock at the simmer needs no core
  const cooked = ['filling', 'assembly', 'preserve', 'staff-dish'].includes(batch.kind) && steps.some(cooksThrough);
  // a core on its way is colder than what is round it, and nothing is wrong with that
  const comingUp = cooked && cooksThrough(step) && last !== undefined && last.centiC / 100 < (wanted?.low ?? 0);
  // what was read before a lot joined says nothing of that lot
  const counted = state.probes.filter((r) => state.joinedAt === undefined || r.at >= state.joinedAt);
  const log = logOf(counted.map((r) => ({ at: r.at, C: r.centiC / 100 })));
  const shown = (limits.data?.limits ?? []).map((l) => l.limit as Limit);
  const what = state.holds ?? { foods: batch.foods, how: (batch.recipe as Recipe).cooksAs };
  const cooking = cookingFor(shown, what.foods, what.how);
  const reached = cookedSoFar(cooking.limits, log);
  const limit = reached?.deciding;
  const progress = log.length > 0 ? reached?.progress : undefined;
  const pairs = (limit?.value.points ?? []).map((p) => ({ C: p.T_C, asksSeconds: p.t_s }));
  const best = progress?.points.reduce((a, b) =>
    b.heldSeconds / Math.max(1, b.asksSeconds) > a.heldSeconds / Math.max(1, a.asksSeconds) ? b : a,
  );
  const target = lethalityTargets[0];
  const record = (c: number, source: 'probe' | 'typed'): void =>
    stove.record({ kind: 'probe', centiC: c, source }, formatTemperature(c));
  return (
    <section className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5" aria-label="Probe">
      <h3 className="mb-2 text-[15px] font-bold">{cooked ? 'Core' : 'Probe'}</h3>
      <TakeTemperature label="Temperature as read" onTake={record} />
      {last !== undefined && (
        <p className={`mt-2 ${fits || comingUp ? 'text-ink-soft' : 'text-alarm'}`}>
          {clockTime(last.at)}: <span className="figure">{formatTemperature(last.centiC)}</span>
          {wanted !== undefined &&
            (fits
              ? ', as it should be'
              : comingUp
                ? `, not at ${formatDegrees(wanted.low)} yet`
                : `, wanted ${formatDegreesRange(wanted.low, wanted.high)}`)}
        </p>
      )}
      {cooked && counted.length < state.probes.length && (
        <p className="mt-2 text-[15px]">
          Something joined at {clockTime(state.joinedAt ?? '')}: what was read before does not count.
        </p>
      )}
      {cooked && cooking.asks.length > 0 && <WhatIsIn stove={stove} known={what} />}
      {cooked && limits.data !== undefined && cooking.limits.length === 0 && what.foods.length > 0 && (
        <p className="mt-2 text-[15px]">Your profile has no cooking limit for this: your own plan decides.</p>
      )}
      {cooked && limit !== undefined && (
        <div className="mt-2 text-[15px]" data-testid="core">
          {progress !== undefined && best !== undefined && reached !== undefined && (
            <p className={reached.verdict === 'within' ? 'font-semibold text-calm' : ''}>
              {reached.verdict === 'within' ? 'Within the limit you selected: ' : 'So far '}
              {best.asksSeconds === 0
                ? `${formatDegrees(best.C)} ${reached.verdict === 'within' ? 'reached' : 'is not reached'}.`
                : `${held(best.heldSeconds)} at ${formatDegrees(best.C)} or hotter of ${held(best.asksSeconds)}.`}
            </p>
          )}
          {target !== undefined && log.length > 0 && (
            <p>
              Worth <span className="figure">{formatCount(lethality(log, target, { longestGap: 2 }), 1)} min</span> at{' '}
              {formatDegrees(target.refC)} of {target.minutes}.
            </p>
          )}
          <p className="text-[13px] text-ink-soft">
            Judged as{' '}
            {what.foods
              .filter((f) => f !== 'unknown')
              .map((f) => foodNames[f])
              .join(', ') || 'the strictest'}
            {what.how === undefined ? '' : `, ${cookedAsNames[what.how]}`}: {limit.product}. {limit.citation.document}{' '}
            {limit.citation.section}. Coldest point, measured readings no more than {LONGEST_UNREAD_COOKING_MINUTES} min
            apart; the printed pairs decide, not the sum.
          </p>
          {state.holds !== undefined && (
            <button type="button" className="min-h-11 underline" onClick={() => setAgain(true)}>
              Something else is in it
            </button>
          )}
          {again && <WhatIsIn stove={stove} known={what} onDone={() => setAgain(false)} />}
        </div>
      )}
      {cooked && <ComeUp key={state.next} stove={stove} pairs={pairs} />}
    </section>
  );
}
