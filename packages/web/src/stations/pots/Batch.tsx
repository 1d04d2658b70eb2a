import { useMutation } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { formatMass, inKilograms, Refusal, refusalOf, type ScaledUse, scaleUse, type Use } from '@zabrik/core';
import { useMemo, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { inputLook } from '../../parts/Field.tsx';

import { offerOf, readMass } from './offers.ts';

interface BatchProps {
  readonly use: Use;
  readonly lots: readonly Lot[];
}

/** What there is for a use, oldest first, and the batch it scales to. */
export function Batch({ use, lots }: BatchProps) {
  const { data: house } = useHouse();
  const may = useMay('pots.plan');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [vesselId, setVesselId] = useState<string>('');
  const [onHand, setOnHand] = useState<Readonly<Record<string, string>>>({});
  const key = useRef(uuidv7());
  const plan = useMutation({
    mutationFn: (body: { lotIds: string[]; onHandMg: Record<string, number> }) =>
      call(
        api.pots.plan,
        { body: { useId: use.id, vesselId: vesselId === '' ? null : vesselId, ...body } },
        key.current,
      ),
    onSettled: () => {
      key.current = uuidv7();
    },
  });
  const shown = lots.filter(
    (lot) =>
      lot.category !== null &&
      lot.destination !== null &&
      (use.trays.includes(lot.destination) || refusalOf(use, offerOf(lot)) === undefined),
  );
  const usual = (lot: Lot): boolean =>
    refusalOf(use, offerOf(lot)) === undefined &&
    lot.destination !== null &&
    use.trays.includes(lot.destination) &&
    lot.destination !== 'portion';
  const isIn = (lot: Lot): boolean => (usual(lot) ? !left.has(lot.id) : left.has(lot.id));
  const chosen = shown.filter((lot) => refusalOf(use, offerOf(lot)) === undefined && isIn(lot));
  const vessel = house?.vessels.find((v) => v.id === vesselId);
  const limits = Object.fromEntries(
    Object.entries(onHand).flatMap(([id, text]) =>
      readMass(text) === undefined || text.trim() === '' ? [] : [[id, readMass(text) ?? 0]],
    ),
  );
  const scaled = useMemo((): ScaledUse | undefined => {
    try {
      return scaleUse(use, chosen.map(offerOf), {
        onHandMg: limits,
        vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
      });
    } catch (error) {
      if (error instanceof Refusal) return undefined;
      throw error;
    }
  }, [use, chosen, limits, vessel]);
  const takenOf = (id: string): number => scaled?.taken.find((t) => t.lotId === id)?.massMg ?? 0;
  return (
    <div className="grid min-h-0 gap-5 md:grid-cols-[1fr_1fr]">
      <section aria-label={`Lots for ${use.title}`}>
        <h3 className="mb-2 text-[15px] font-bold text-ink-soft">What there is, oldest first</h3>
        {shown.length === 0 && (
          <p className="text-ink-soft">
            Nothing in the trays for this. Bones and trim stand here once a stage is closed.
          </p>
        )}
        <ul className="grid gap-1.5">
          {shown.map((lot) => {
            const refusal = refusalOf(use, offerOf(lot));
            const due = dueWords(lot.useBy);
            return (
              <li key={lot.id}>
                <label
                  className={`grid min-h-13 cursor-pointer grid-cols-[22px_1fr_auto] items-center gap-3 rounded-md border-[1.5px] px-3 py-1.5 ${refusal !== undefined ? 'border-dashed border-line-strong bg-sheet-soft text-ink-soft' : isIn(lot) ? 'border-ink bg-white' : 'border-line bg-white'}`}
                >
                  <input
                    type="checkbox"
                    className="size-5 accent-flow"
                    disabled={refusal !== undefined || !may}
                    checked={refusal === undefined && isIn(lot)}
                    onChange={() =>
                      setLeft((before) => {
                        const after = new Set(before);
                        if (!after.delete(lot.id)) after.add(lot.id);
                        return after;
                      })
                    }
                  />
                  <span className="min-w-0 leading-tight">
                    <span className="block truncate font-semibold">{lot.name}</span>
                    <span
                      className={`block text-[13px] ${refusal === undefined ? 'truncate' : ''} ${due.tone === 'late' || due.tone === 'now' ? 'text-alarm' : 'text-ink-soft'}`}
                    >
                      {refusal !== undefined
                        ? `Refused: ${refusal}`
                        : `${lot.code} · ${due.text}${lot.destination === 'portion' ? ' · a portion, only if you choose it' : ''}`}
                    </span>
                  </span>
                  <span className="figure text-right">
                    {formatMass(lot.massMg)}
                    {refusal === undefined && isIn(lot) && takenOf(lot.id) < lot.massMg && (
                      <span className="block text-[13px] font-normal text-ink-soft">
                        takes {formatMass(takenOf(lot.id))}
                      </span>
                    )}
                  </span>
                </label>
              </li>
            );
          })}
        </ul>
      </section>
      <section aria-label={`Batch of ${use.title}`}>
        <h3 className="mb-2 text-[15px] font-bold text-ink-soft">The batch</h3>
        {scaled === undefined ? (
          <p className="text-ink-soft">Choose at least one lot that may go in.</p>
        ) : (
          <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
            <table className="w-full">
              <tbody>
                <tr className="border-b border-line">
                  <th scope="row" className="py-1.5 text-left font-semibold">
                    {use.baseName}
                  </th>
                  <td className="figure py-1.5 text-right">{formatMass(scaled.baseMg)}</td>
                  <td className="w-36" />
                </tr>
                {scaled.ingredients.map((i) => (
                  <tr key={i.id} className="border-b border-line">
                    <th scope="row" className="py-1 text-left font-normal">
                      {i.name}
                    </th>
                    <td className="figure py-1 text-right">{formatMass(i.massMg)}</td>
                    <td className="py-1 pl-3">
                      {i.id !== 'water' && (
                        <input
                          aria-label={`${i.name} there is, grams`}
                          placeholder="there is, g"
                          inputMode="decimal"
                          className={`${inputLook} h-9 px-2 py-1 text-[14px]`}
                          value={onHand[i.id] ?? ''}
                          onChange={(event) => setOnHand((before) => ({ ...before, [i.id]: event.target.value }))}
                        />
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {use.litresPerKg !== undefined && (
              <label className="mt-3 flex items-center justify-between gap-3 text-[15px]">
                Pot
                <select
                  className={`${inputLook} h-10 w-40!`}
                  value={vesselId}
                  onChange={(event) => setVesselId(event.target.value)}
                >
                  <option value="">large enough</option>
                  {house?.vessels.map((v) => (
                    <option key={v.id} value={v.id}>
                      {v.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <p className="mt-3">
              <span className="figure text-2xl">
                {scaled.plates === undefined
                  ? `${inKilograms(scaled.output.meanMg).toFixed(2)} kg`
                  : `${scaled.plates} plates`}
              </span>{' '}
              <span className="text-ink-soft">
                of {use.output.name}, usually {inKilograms(scaled.output.lowMg).toFixed(2)} to{' '}
                {inKilograms(scaled.output.highMg).toFixed(2)} kg
              </span>
            </p>
            <p className="text-[15px]">
              Limited by <strong>{scaled.limiting.name}</strong>.
            </p>
            {scaled.capped.map((c) => (
              <p key={c.category} className="text-[15px] text-ink-soft">
                {formatMass(c.heldBackMg)} held back. {c.reason}.
              </p>
            ))}
            {may && (
              <Button
                look="strong"
                size="bench"
                className="mt-3 w-full"
                disabled={plan.isPending}
                onClick={() => plan.mutate({ lotIds: chosen.map((lot) => lot.id), onHandMg: limits })}
              >
                Plan this batch
              </Button>
            )}
            {plan.isError && <p className="mt-2 text-alarm">{plan.error.message}</p>}
          </div>
        )}
        <ul className="mt-3 grid gap-1 text-[14px] text-ink-soft">
          {use.cautions.map((c) => (
            <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1 text-ink">
              {c}
            </li>
          ))}
          <li>Source of the ratio: {use.source}.</li>
        </ul>
      </section>
    </div>
  );
}
