import { fillingBands, foodOfIngredient, foodOfPiece } from '@zabrik/catalogue/composition';
import {
  bladeWatts,
  type FillingPart,
  fillingBalance,
  formatCount,
  formatDegrees,
  formatMass,
  minutesInTheCold,
} from '@zabrik/core';
import { useState } from 'react';
import { useHouse } from '../../app/queries.ts';
import { NumField } from '../../kit/NumField.tsx';
import { RangeBar } from '../../kit/RangeBar.tsx';
import type { PotLot } from './offers.ts';
import { ToTarget } from './ToTarget.tsx';
import type { Scaling } from './useScaling.ts';

const names = { fat: 'Fat', protein: 'Protein', water: 'Water', salt: 'Salt' } as const;

/** What a filling is made of, per 100 g, against where its kind holds; and how long it may stay out of the ice. */
export function FillingFigures({ s, lots }: { readonly s: Scaling; readonly lots: readonly PotLot[] }) {
  const [nowC, setNowC] = useState(4);
  const [roomC, setRoomC] = useState(22);
  const [said, setWatts] = useState<number>();
  const { data: house } = useHouse();
  const { scaled, recipe } = s;
  const machine = house?.machines.find((m) => m.kind === recipe.vessel);
  const watts = said ?? bladeWatts(recipe.vessel, machine?.watts);
  if (scaled === undefined || recipe.balance === undefined) return null;
  const lotOf = (id: string) => lots.find((l) => l.id === id);
  const parts: (FillingPart & { readonly as: string })[] = [
    ...scaled.taken.map((t) => {
      const lot = lotOf(t.lotId);
      return {
        name: lot?.name ?? '',
        as: t.as,
        massMg: t.massMg,
        of: foodOfPiece(lot?.category ?? '', lot?.species ?? null),
      };
    }),
    ...scaled.ingredients.map((i) => {
      const food = foodOfIngredient(i.id);
      return { name: i.name, as: i.id, massMg: i.massMg - i.fromLotsMg, of: food, binder: food?.binder === true };
    }),
  ];
  const balance = fillingBalance(parts, fillingBands[recipe.balance] ?? []);
  const kg = (scaled.baseMg + scaled.ingredients.reduce((sum, i) => sum + i.massMg - i.fromLotsMg, 0)) / 1e6;
  const minutes =
    recipe.splitsAboveC === undefined
      ? undefined
      : minutesInTheCold({ kg, nowC, roomC, limitC: recipe.splitsAboveC, watts });
  return (
    <section className="mt-4 rounded-plate border-[1.5px] border-line-strong bg-white p-4" aria-label="Balance">
      <h3 className="mb-1 text-[15px] font-bold">In 100 g of it</h3>
      {balance === undefined ? (
        <p className="text-ink-soft">Nobody knows what these pieces are made of.</p>
      ) : (
        <>
          <ul className="grid gap-2">
            {balance.judged.map(({ band, value, verdict }) => {
              return (
                <li key={band.of} className="grid grid-cols-[64px_1fr_70px] items-center gap-3">
                  <span className="font-semibold">{names[band.of]}</span>
                  <RangeBar
                    low={band.low}
                    high={band.high}
                    value={value}
                    from={0}
                    to={band.high * 1.6}
                    tone="calm"
                    height="bar"
                    wrong={verdict !== 'holds'}
                  />
                  <span className="figure text-right">{formatCount(value, 1)} g</span>
                  {verdict !== 'holds' && (
                    <span className="col-span-3 text-[14px] text-alarm">
                      {verdict === 'low' ? band.below : band.above}. It holds from {band.low} to {band.high} g.
                    </span>
                  )}
                </li>
              );
            })}
          </ul>
          <p className="mt-2 text-[14px] text-ink-soft">
            {formatCount(balance.water)} g water, {formatCount(balance.waterPerProtein, 1)} to one of protein;{' '}
            {formatCount(balance.binder)} % egg, starch and crumb.
            {balance.unknown.length > 0 &&
              ` Not counted, nobody knows what they are made of: ${balance.unknown.join(', ')}.`}{' '}
            Composition recalled from tables; the bands are kitchen practice. The test dumpling decides.
          </p>
        </>
      )}
      <ToTarget s={s} parts={parts} />
      {recipe.splitsAboveC !== undefined && (
        <div className="mt-3 border-t border-line pt-3">
          <h3 className="text-[15px] font-bold">Out of the ice</h3>
          <div className="mt-1 grid grid-cols-3 gap-3">
            <NumField label="It is at" unit="°C" value={nowC} min={-2} max={40} onValue={setNowC} />
            <NumField label="Room" unit="°C" value={roomC} min={0} max={50} onValue={setRoomC} />
            <NumField label="Blade heat" unit="W" value={watts} max={2_000} decimals={0} onValue={setWatts} />
          </div>
          <p className="mt-2" data-testid="cold-clock">
            <span className="figure text-2xl">
              {minutes === undefined
                ? 'as long as you like'
                : minutes === 0
                  ? 'back in the ice now'
                  : minutes < 2
                    ? `${Math.floor(minutes * 60)} s`
                    : `${Math.floor(minutes)} min`}
            </span>{' '}
            <span className="text-[14px] text-ink-soft">
              for {formatMass(kg * 1e6)} until {formatDegrees(recipe.splitsAboveC)}, where it splits, with the blade on
              {machine === undefined ? '' : ` (${machine.name}, ${machine.watts} W)`}. An estimate: the probe decides.
            </span>
          </p>
        </div>
      )}
    </section>
  );
}
