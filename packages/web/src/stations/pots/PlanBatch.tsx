import type { House, ListedRecipe } from '@zabrik/contract';
import { formatMass, inKilograms, type Recipe, refusalOf, roleIn, SWELLS, stuffingFor } from '@zabrik/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { NumField } from '../../kit/NumField.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { FillingFigures } from './FillingFigures.tsx';
import { OnlyThese } from './OnlyThese.tsx';
import { amountOf, goesByItself, offerOf, type PotLot } from './offers.ts';
import { PotDrawing } from './PotDrawing.tsx';
import { useBoned } from './potQueries.ts';
import { TheTin } from './TheTin.tsx';
import { MOST_LOTS, type Scaling, useScaling } from './useScaling.ts';

function Wishes({ recipe, s }: { readonly recipe: Recipe; readonly s: Scaling }) {
  const kinds = [
    { id: 'all' as const, name: 'All there is' },
    { id: 'mass' as const, name: recipe.output.measure === 'litres' ? 'So many litres' : 'So much' },
    ...(recipe.gramsPerPlate === undefined ? [] : [{ id: 'plates' as const, name: 'So many plates' }]),
    ...(recipe.piece === undefined ? [] : [{ id: 'pieces' as const, name: `So many ${recipe.piece.name}` }]),
  ];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <fieldset
        className="flex flex-wrap overflow-hidden rounded-md border-[1.5px] border-line-strong p-0"
        aria-label="What is wanted"
      >
        {kinds.map((k) => (
          <Toggle
            key={k.id}
            on={s.wish.kind === k.id}
            shape="part"
            className="font-head font-semibold"
            onPress={() => s.setWish({ kind: k.id, amount: s.wish.amount })}
          >
            {k.name}
          </Toggle>
        ))}
      </fieldset>
      {s.wish.kind !== 'all' && (
        <span className="flex items-center gap-1.5">
          <Field
            aria-label={
              s.wish.kind === 'mass' ? (recipe.output.measure === 'litres' ? 'Litres' : 'Kilograms') : 'How many'
            }
            className="figure w-24! text-lg"
            inputMode="decimal"
            value={s.wish.amount}
            onChange={(event) => s.setWish({ kind: s.wish.kind, amount: event.target.value })}
          />
          {s.wish.kind === 'mass' ? (recipe.output.measure === 'litres' ? 'l' : 'kg') : ''}
        </span>
      )}
    </div>
  );
}

/** What lies boned out and waits for this: how much of it fills each, by what came out. A touch makes that the wish. */
function ToFill({ s }: { readonly s: Scaling }) {
  const { data } = useBoned();
  const boned = s.recipe.fills === true ? (data?.boned ?? []) : [];
  return boned.length === 0 ? null : (
    <ul className="flex flex-wrap gap-2" aria-label="To fill">
      {boned.slice(0, 6).map((b) => {
        const { massMg, usualLowMg, usualHighMg } = stuffingFor({ ...b, swell: SWELLS.bread });
        return (
          <li key={b.lotId}>
            <Button
              className="h-auto! min-h-13 max-w-full py-1 text-left leading-tight"
              onClick={() => s.setWish({ kind: 'mass', amount: inKilograms(massMg).toFixed(3) })}
            >
              <span className="min-w-0">
                <span className="block truncate">
                  Fill {b.code} {b.name}: <span className="figure">{formatMass(massMg)}</span>
                </span>
                <span className="block text-[13px] font-normal text-ink-soft">
                  for {formatMass(b.bonesMg + b.fleshOutMg)} that came out; cooks take {formatMass(usualLowMg)} to{' '}
                  {formatMass(usualHighMg)}
                </span>
              </span>
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

function Questions({ listed, s }: { readonly listed: ListedRecipe; readonly s: Scaling }) {
  return (
    <>
      {listed.recipe.questions.map((q) => {
        const chosen = q.ways.find((w) => s.ways.includes(w.id));
        return (
          <div key={q.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="w-40 text-[15px] font-semibold">{q.question}</span>
            <fieldset
              className="flex flex-wrap overflow-hidden rounded-md border-[1.5px] border-line-strong p-0"
              aria-label={q.question}
            >
              {q.ways.map((w) => (
                <Toggle
                  key={w.id}
                  on={s.ways.includes(w.id)}
                  shape="part"
                  className="text-left"
                  onPress={() =>
                    s.choose(
                      q.ways.map((other) => other.id),
                      w.id,
                    )
                  }
                >
                  {w.name}
                </Toggle>
              ))}
            </fieldset>
            <span className="min-w-40 flex-1 text-[14px] leading-snug text-ink-soft">{chosen?.gives}</span>
          </div>
        );
      })}
    </>
  );
}

function LotRow({ lot, s, may }: { readonly lot: PotLot; readonly s: Scaling; readonly may: boolean }) {
  const offer = offerOf(lot);
  const refusal = refusalOf(s.recipe, offer);
  const role = roleIn(s.recipe, offer);
  const due = dueWords(lot.useBy);
  const taken = s.scaled?.taken.find((t) => t.lotId === lot.id)?.massMg ?? 0;
  const on = refusal === undefined && s.isIn(lot);
  const part = role === 'base' ? undefined : s.recipe.ingredients.find((i) => i.id === role)?.name;
  return (
    <li>
      <label
        htmlFor={`take-${lot.id}`}
        className={`grid min-h-13 cursor-pointer grid-cols-[22px_1fr_auto] items-center gap-3 rounded-md border-[1.5px] px-3 py-1.5 ${refusal !== undefined ? 'border-dashed border-line-strong bg-sheet-soft text-ink-soft' : on ? 'border-ink bg-white' : 'border-line bg-white'}`}
      >
        <Check
          id={`take-${lot.id}`}
          disabled={refusal !== undefined || !may}
          checked={on}
          onChange={() => s.turn(lot)}
        />
        <span className="min-w-0 leading-tight">
          <span className="block truncate font-semibold">{lot.name}</span>
          <span
            className={`block text-[13px] ${refusal === undefined ? 'truncate' : 'text-alarm'} ${due.tone === 'late' || due.tone === 'now' ? 'text-alarm' : 'text-ink-soft'}`}
          >
            {refusal !== undefined
              ? `Refused: ${refusal}`
              : `${lot.code} · ${due.text}${lot.state === 'frozen' ? ' · frozen' : ''}${part === undefined ? '' : ` · as ${part}`}${lot.destination === 'portion' ? ' · a portion' : ''}`}
          </span>
        </span>
        <span className="figure text-right">
          {formatMass(lot.massMg)}
          {on && taken < lot.massMg && (
            <span className="block text-[13px] font-normal text-ink-soft">takes {formatMass(taken)}</span>
          )}
        </span>
      </label>
    </li>
  );
}

function BatchTable({ s, house }: { readonly s: Scaling; readonly house: House | undefined }) {
  const { recipe, scaled } = s;
  if (scaled === undefined) return null;
  const raw = scaled.baseMg / 1e6;
  return (
    <>
      <table className="w-full">
        <thead className="text-right text-[13px] text-ink-soft">
          <tr>
            <td />
            <th scope="col" className="font-normal">
              goes in
            </th>
            <th scope="col" className="font-normal">
              to one
            </th>
            <th scope="col" className="font-normal">
              if it is short
            </th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-line">
            <th scope="row" className="py-1.5 text-left font-semibold">
              {recipe.baseName}
            </th>
            <td className="figure py-1.5 text-right whitespace-nowrap">{formatMass(scaled.baseMg)}</td>
            <td />
            <td className="w-28" />
          </tr>
          {recipe.ingredients
            .filter((i) => i.perBase > 0 || s.shares[i.id] !== undefined)
            .map((i) => {
              const mine = scaled.ingredients.find((x) => x.id === i.id);
              return (
                <tr key={i.id} className="border-b border-line align-middle">
                  <th scope="row" className="py-1 text-left font-normal">
                    {i.name}
                    {(mine?.fromLotsMg ?? 0) > 0 && (
                      <span className="block text-[13px] text-ink-soft">
                        {formatMass(mine?.fromLotsMg ?? 0)} from the lots
                      </span>
                    )}
                  </th>
                  <td className="figure py-1 text-right whitespace-nowrap">{formatMass(mine?.massMg ?? 0)}</td>
                  <td className="w-24 py-1 pl-3">
                    <NumField
                      label={`${i.name} to one`}
                      value={s.shares[i.id] ?? i.perBase}
                      decimals={3}
                      max={50}
                      className="[&_label]:sr-only [&_input]:h-9 [&_input]:px-2 [&_input]:text-right"
                      onValue={(share) => s.setShare(i.id, share)}
                    />
                  </td>
                  <td className="py-1 pl-2">
                    {i.id !== 'water' && (
                      <Field
                        aria-label={`${i.name} there is, grams`}
                        placeholder="there is, g"
                        inputMode="decimal"
                        dense
                        value={s.onHand[i.id] ?? ''}
                        onChange={(event) => s.setOnHand(i.id, event.target.value)}
                      />
                    )}
                  </td>
                </tr>
              );
            })}
        </tbody>
      </table>
      {s.outside.map((words) => (
        <p key={words} className="mt-2 border-l-4 border-attention bg-[#fff7e0] px-2.5 py-1 text-[14px]">
          {words}.
        </p>
      ))}
      {(recipe.litresPerKg !== undefined || recipe.layerKgPerM2 !== undefined) && (
        <div className="mt-3 flex items-end gap-4">
          <Select
            label={recipe.vessel === 'pan' ? 'Pan' : 'Pot'}
            className="flex-1"
            value={s.vesselId}
            onValue={s.setVesselId}
            none="large enough"
            options={named(
              recipe.layerKgPerM2 === undefined ? house?.vessels : house?.vessels.filter((v) => v.shape !== undefined),
            )}
          />
          {s.vessel?.shape !== undefined && recipe.litresPerKg !== undefined && (
            <PotDrawing shape={s.vessel.shape} litres={raw * recipe.litresPerKg} width={190} />
          )}
        </div>
      )}
      <p className="mt-3">
        <span className="figure text-3xl" data-testid="comes-out">
          {scaled.plates !== undefined
            ? `${scaled.plates} plates`
            : scaled.pieces !== undefined && s.wish.kind === 'pieces'
              ? `${scaled.pieces} ${recipe.piece?.name}`
              : amountOf(recipe, scaled.output.meanMg)}
        </span>{' '}
        <span className="text-ink-soft">
          {scaled.plates !== undefined && `${amountOf(recipe, scaled.output.meanMg)} `}of {recipe.output.name}, eight
          times in ten {amountOf(recipe, scaled.output.lowMg)} to {amountOf(recipe, scaled.output.highMg)}
          {scaled.pieces !== undefined && s.wish.kind !== 'pieces' && `, ${scaled.pieces} ${recipe.piece?.name}`}
        </span>
      </p>
      <p className="text-[15px]">
        Limited by <strong>{scaled.limiting.name}</strong>.
      </p>
      {scaled.short.map((x) => (
        <p key={x.id} className="text-[15px] text-alarm">
          Short of {formatMass(x.massMg)} {x.name}.
        </p>
      ))}
      {scaled.capped.map((c) => (
        <p key={c.category} className="text-[15px] text-ink-soft">
          {formatMass(c.heldBackMg)} held back. {c.reason}.
        </p>
      ))}
    </>
  );
}

/** So many rows at first; the rest when someone asks. */
const SOME = 30;

function LotRows({
  lots,
  s,
  may,
  label,
}: {
  readonly lots: readonly PotLot[];
  readonly s: Scaling;
  readonly may: boolean;
  readonly label?: string;
}) {
  const [all, setAll] = useState(false);
  const shown = all ? lots : lots.slice(0, SOME);
  return (
    <>
      <ul className="grid gap-1.5" aria-label={label}>
        {shown.map((lot) => (
          <LotRow key={lot.id} lot={lot} s={s} may={may} />
        ))}
      </ul>
      {shown.length < lots.length && (
        <Button className="mt-2 h-11" onClick={() => setAll(true)}>
          {lots.length - shown.length} more
        </Button>
      )}
    </>
  );
}

interface BatchProps {
  readonly listed: ListedRecipe;
  readonly lots: readonly PotLot[];
  /** Whether these are all there are. */
  readonly all: boolean;
  readonly house: House | undefined;
}

/** What there is for a recipe, oldest first, what is wanted, and the batch it scales to. */
export function PlanBatch({ listed, lots, all, house }: BatchProps) {
  const may = useMay('pots.plan');
  const navigate = useNavigate();
  const s = useScaling(listed, lots, house);
  const plan = useCommand(api.pots.plan, {
    spoken: () => ({ says: `A batch of ${s.recipe.title.toLowerCase()}` }),
    onDone: (batch) => void navigate(`/pots/stove/${batch.id}`),
    onKept: () => void navigate('/pots/stove'),
  });
  const refused = s.shown.filter((lot) => refusalOf(s.recipe, offerOf(lot)) !== undefined);
  const fine = s.shown.filter((lot) => !refused.includes(lot));
  const usual = fine.filter((lot) => goesByItself(s.recipe, lot));
  const besides = fine.filter((lot) => !usual.includes(lot));
  const wishUnread = s.wish.kind !== 'all' && s.want === undefined;
  return (
    <div className="grid gap-4">
      <div className="grid gap-2.5">
        <Questions listed={listed} s={s} />
        {s.asksForCure && <TheTin s={s} />}
        <Wishes recipe={s.recipe} s={s} />
        <ToFill s={s} />
      </div>
      <div className="grid gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.05fr)]">
        <section aria-label={`Lots for ${s.recipe.title}`} className="min-w-0">
          <h3 className="mb-2 text-[15px] font-bold text-ink-soft">What there is, oldest first</h3>
          {usual.length === 0 && (
            <p className="mb-2 text-ink-soft">
              Nothing lies in the larder for this. Bones and trim stand here once a stage is closed.
            </p>
          )}
          {may && <OnlyThese s={s} lots={fine} />}
          <LotRows lots={usual} s={s} may={may} />
          {(!all || usual.length > MOST_LOTS) && (
            <p className="mt-2 text-[14px] text-ink-soft">
              {all ? '' : 'Only the lots with the earliest dates were looked at. '}
              {usual.length > MOST_LOTS && `A batch takes ${MOST_LOTS} lots at most, the oldest first.`}
            </p>
          )}
          {besides.length > 0 && (
            <>
              <h3 className="mt-4 mb-2 text-[15px] font-bold text-ink-soft">Could go in, if you choose it</h3>
              <LotRows lots={besides} s={s} may={may} />
            </>
          )}
          {refused.length > 0 && (
            <>
              <h3 className="mt-4 mb-2 text-[15px] font-bold text-ink-soft">Not in this</h3>
              <LotRows lots={refused} s={s} may={may} label="Refused" />
            </>
          )}
        </section>
        <section aria-label={`Batch of ${s.recipe.title}`} className="min-w-0">
          <h3 className="mb-2 text-[15px] font-bold text-ink-soft">The batch</h3>
          {s.scaled === undefined ? (
            <p className={s.wantedBaseMg === undefined ? 'text-ink-soft' : 'text-alarm'}>
              {s.wantedBaseMg !== undefined && `Short of ${formatMass(s.wantedBaseMg)} ${s.recipe.baseName}. `}Choose at
              least one lot that may go in.
            </p>
          ) : (
            <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
              <BatchTable s={s} house={house} />
              {may && (
                <Button
                  look="strong"
                  size="bench"
                  className="mt-3 w-full"
                  disabled={plan.pending || wishUnread || (s.asksForCure && s.cure === undefined)}
                  onClick={() =>
                    plan.send({
                      body: {
                        recipeId: s.recipe.id,
                        lotIds: s.chosen.map((lot) => lot.id),
                        vesselId: s.vesselId === '' ? null : s.vesselId,
                        onHandMg: s.onHandMg,
                        ways: [...s.ways],
                        shares: s.shares,
                        want: s.want ?? null,
                        cure: s.cure ?? null,
                      },
                    })
                  }
                >
                  Plan this batch
                </Button>
              )}
              {plan.error !== null && <p className="mt-2 text-alarm">{plan.error.message}</p>}
            </div>
          )}
          {s.scaled !== undefined && s.recipe.balance !== undefined && <FillingFigures s={s} lots={lots} />}
          <ul className="mt-3 grid gap-1 text-[14px]">
            {s.recipe.cautions.map((c) => (
              <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1">
                {c}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
