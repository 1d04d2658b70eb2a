import type { House } from '@zabrik/contract';
import { formatMass, unitName } from '@zabrik/core';
import { usePantry } from '../../app/queries.ts';
import { Field } from '../../kit/Field.tsx';
import { NumField } from '../../kit/NumField.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { amountOf } from './offers.ts';
import { PotDrawing } from './PotDrawing.tsx';
import type { Scaling } from './useScaling.ts';

/** What goes in and what comes out of it, as it scales now; each share can be set, and what there is of it. */
export function BatchTable({ s, house }: { readonly s: Scaling; readonly house: House | undefined }) {
  const { recipe, scaled } = s;
  const pantry = usePantry();
  if (scaled === undefined) return null;
  const priced = new Set(pantry.data?.prices.map((p) => p.id));
  const unpriced = pantry.isSuccess
    ? scaled.ingredients.filter((i) => i.massMg > i.fromLotsMg && !priced.has(i.id)).map((i) => i.name)
    : [];
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
                        aria-label={`${i.name} there is, ${unitName('g')}`}
                        placeholder={`there is, ${unitName('g')}`}
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
      {unpriced.length > 0 && (
        <p className="text-[15px] text-ink-soft">
          Nobody has said what these cost: {unpriced.join(', ')}. What the larder does not give of them is counted as
          nothing.
        </p>
      )}
      {scaled.capped.map((c) => (
        <p key={c.category} className="text-[15px] text-ink-soft">
          {formatMass(c.heldBackMg)} held back. {c.reason}.
        </p>
      ))}
    </>
  );
}
