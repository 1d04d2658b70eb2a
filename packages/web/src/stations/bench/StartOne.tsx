import { useQueryClient } from '@tanstack/react-query';
import type { Lot, Way } from '@zabrik/contract';
import { figureWords, formatMass, massTyped, parseMass, startOf } from '@zabrik/core';
import { Link, useNavigate } from 'react-router';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { BodyMap } from '../../parts/BodyMap.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { NotForMe } from '../../parts/NotForMe.tsx';
import { StillHere } from '../../parts/StillHere.tsx';

const ways: readonly { readonly id: Way; readonly name: string; readonly says: string }[] = [
  { id: 'one-by-one', name: 'Piece by piece', says: 'every piece has its own weight' },
  { id: 'pooled', name: 'By kind', says: 'all legs together, all breasts together' },
  { id: 'by-animal', name: 'Animal by animal', says: 'one after the other, so that they can be compared' },
];

/** All that is free of a lot, or some of it: so many, which weigh so much. */
const startForm = (lot: Lot) =>
  z
    .object({ all: z.boolean(), mass: z.string(), animals: z.string(), way: z.custom<Way | ''>() })
    .transform(({ all, mass, animals, way }, context) => {
      const said = { way: way === '' ? null : way };
      // of the last one nobody is asked how much
      if (all || lot.freePieces === 1) return { animals: lot.freePieces, massMg: null, ...said };
      const says = (path: 'mass' | 'animals', message: string): never => {
        context.addIssue({ code: 'custom', path: [path], message });
        return z.NEVER;
      };
      if (!/^[1-9]\d{0,2}$/.test(animals)) return says('animals', 'A whole number');
      if (Number(animals) > lot.freePieces) return says('animals', `There are ${lot.freePieces}`);
      try {
        const massMg = parseMass(mass);
        if (massMg > lot.freeMg) return says('mass', `There are ${formatMass(lot.freeMg)}`);
        return { animals: Number(animals), massMg, ...said };
      } catch (thrown) {
        return says('mass', figureWords(thrown, 'A weight, such as 2860'));
      }
    });

/** A lot on its way to the bench: how much of it, how it is weighed, by which plan. */
export default function StartOne({
  lot,
  gone,
  back,
}: {
  readonly lot: Lot;
  /** Somebody else has taken it since it was chosen. */
  readonly gone: boolean;
  readonly back: () => void;
}) {
  const catalogue = useCatalogue();
  const { data: house } = useHouse();
  const scale = useScale();
  const navigate = useNavigate();
  const client = useQueryClient();
  const form = useKeptForm(`start/${lot.id}`, startForm(lot), {
    all: lot.freePieces === 1,
    mass: '',
    animals: '1',
    way: '' as Way | '',
  });
  const { register, setValue, handleSubmit, formState, typed } = form;
  const { animals, way } = typed;
  const all = typed.all || lot.freePieces === 1;
  const start = useCommand(api.bench.start, {
    onDone: (breakdown) => {
      form.clear();
      client.setQueryData(['breakdowns', 'one', breakdown.id], breakdown);
      void navigate(`/bench/${breakdown.id}`);
    },
  });
  if (catalogue.isPending) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  const plans = catalogue.data.plans.flatMap((plan) => {
    const entry = lot.species === null || lot.form === null ? undefined : startOf(plan, lot.species, lot.form);
    if (plan.retired || entry === undefined) return [];
    // a side enters where sides begin
    const from = Math.max(
      0,
      plan.stages.findIndex((s) => s.id === entry.at),
    );
    return [{ plan, stages: plan.stages.slice(from), each: from > 0 ? 'for all of one animal' : 'an animal' }];
  });
  // of all of it nothing is asked, so nothing of it is wrong
  const { mass: massError, animals: animalsError } = all ? {} : formState.errors;
  // said under the field once there is something to be wrong
  const weighed = all || typed.mass.trim() !== '';
  return (
    <section aria-label={`Start ${lot.name}`} className="grid content-start gap-5">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h2 className="text-3xl font-extrabold">{lot.name}</h2>
          <p className="text-ink-soft">
            {lot.code}
            {lot.supplierName !== null && ` · ${lot.supplierName}`} ·{' '}
            {lot.freePieces === 1 ? 'one' : `${lot.freePieces} of them`} · {formatMass(lot.freeMg)} ·{' '}
            {moneyOf(house)((lot.costMinor * lot.freeMg) / Math.max(1, lot.massMg))} · {dueWords(lot.useBy).text}
          </p>
        </div>
        <Button onClick={back}>Another lot</Button>
      </div>
      {gone && !start.pending && start.answer === undefined && (
        <Notice tone="attention">
          {lot.code} is not here to be cut any more: somebody has put it on the bench, moved it on or used it up.
        </Notice>
      )}
      <NotForMe has={lot.allergens} />
      <StillHere draft={form.kept} />
      {lot.freePieces > 1 && (
        <fieldset className="border-0 p-0">
          <legend className="mb-2 text-[15px] font-semibold">How much of it?</legend>
          <div className="flex flex-wrap items-end gap-3">
            <Toggle on={all} size="bench" onPress={() => setValue('all', true)}>
              All {lot.freePieces}, {formatMass(lot.freeMg)}
            </Toggle>
            <Toggle on={!all} size="bench" onPress={() => setValue('all', false)}>
              Some
            </Toggle>
            {!all && (
              <>
                <Field
                  label="How many"
                  className="w-28"
                  inputMode="numeric"
                  error={animalsError?.message}
                  {...register('animals')}
                />
                <Field
                  label="Weight at the start"
                  unit="g"
                  className="w-80"
                  inputMode="decimal"
                  error={massError?.message}
                  {...register('mass')}
                  action={
                    <Button
                      variant="plain"
                      className="h-11"
                      disabled={scale.state !== 'steady' || scale.netMg <= 0}
                      onClick={() => setValue('mass', massTyped(scale.netMg), { shouldValidate: true })}
                    >
                      From the scale
                    </Button>
                  }
                />
              </>
            )}
          </div>
        </fieldset>
      )}
      {(all ? lot.freePieces : Number(animals)) > 1 && (
        <fieldset className="border-0 p-0">
          <legend className="mb-2 text-[15px] font-semibold">How are they weighed?</legend>
          <div className="flex flex-wrap gap-3">
            {ways.map(({ id, name, says }) => (
              <Toggle
                key={id}
                on={way === id}
                size="bench"
                className="max-w-60 text-left leading-tight"
                onPress={() => setValue('way', way === id ? '' : id)}
              >
                <span className="block font-head font-semibold">{name}</span>
                <span className="block text-[13px]">{says}</span>
              </Toggle>
            ))}
          </div>
        </fieldset>
      )}
      <h3 className="text-lg font-bold">
        Cut plan
        {!weighed && <span className="ml-3 text-[15px] font-normal text-ink-soft">once what you take is weighed</span>}
      </h3>
      {plans.length === 0 && (
        <Notice tone="attention">
          No cut plan starts from {lot.name} yet.{' '}
          <Link className="font-semibold underline" to="/bench/plans">
            Make one from another
          </Link>
          .
        </Notice>
      )}
      <ul className="grid grid-cols-2 gap-4">
        {plans.map(({ plan, stages, each }) => (
          <li key={plan.id}>
            <button
              type="button"
              disabled={gone || start.pending || !weighed || massError !== undefined || animalsError !== undefined}
              onClick={() =>
                void handleSubmit((read) =>
                  start.send({ body: { lotId: lot.id, planId: plan.id, ...read, confirmed: false } }),
                )()
              }
              className="block w-full rounded-plate border-[1.5px] border-ink bg-white p-4 text-left hover:bg-sheet-soft disabled:opacity-50"
            >
              <BodyMap body={plan.body} lit={new Set()} className="mb-2 h-24" />
              <span className="block font-head text-xl font-semibold">{plan.title}</span>
              <span className="block text-[14px] text-ink-soft">
                {stages.map((stage) => stage.name.toLowerCase()).join(', then ')}
              </span>
              <span className="block text-[14px] text-ink-soft">
                {stages[0]?.steps} steps first, {stages[0]?.minutes.low} to {stages[0]?.minutes.high} min {each}
                {plan.own && ' · your own'}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Confirm
        error={start.error}
        words="Put it on the bench all the same"
        onConfirm={() => {
          if (start.last !== undefined) start.send({ body: { ...start.last.body, confirmed: true } });
        }}
      />
    </section>
  );
}
