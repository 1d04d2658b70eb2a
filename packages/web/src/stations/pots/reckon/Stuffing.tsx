import { formatMass, grams, type Hollow, inGrams, SWELLS, stuffingFor, USUAL_FILLING } from '@zabrik/core';
import { useState } from 'react';
import { inputLook } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { useBoned } from '../potQueries.ts';
import { Sum } from './Sum.tsx';

/** Stuffing that brings a boned bird back to its form: of one on hand, by what its breakdown took out, or by figures typed. */
export function Stuffing() {
  const { data } = useBoned();
  const [lotId, setLotId] = useState('');
  const [whole, setWhole] = useState(1_800);
  const [boned, setBoned] = useState(1_152);
  const [flesh, setFlesh] = useState(0);
  const [dry, setDry] = useState<keyof typeof SWELLS>('bread');
  const lot = data?.boned.find((b) => b.lotId === lotId);
  const hollow: Hollow = lot ?? {
    bonedMg: grams(boned),
    bonesMg: grams(Math.max(0, whole - boned - flesh)),
    fleshOutMg: grams(flesh),
    ...USUAL_FILLING,
  };
  const out = stuffingFor({ ...hollow, swell: SWELLS[dry] });
  const typed = (set: (value: number) => void) => (value: number) => {
    setLotId('');
    set(value);
  };
  return (
    <Sum
      title="Stuffing for a boned bird"
      answer={formatMass(out.massMg)}
      says={
        <>
          <p>
            By what came out: {formatMass(hollow.bonesMg)} of bones
            {hollow.fleshOutMg > 0 && `, ${formatMass(hollow.fleshOutMg)} of flesh and fat`}. Cooks take{' '}
            {formatMass(out.usualLowMg)} to {formatMass(out.usualHighMg)} for {formatMass(hollow.bonedMg)} boned: a
            drawn bird was hollow before.
          </p>
          <p>Stuff cold, cook at once; the middle of the stuffing is the coldest point.</p>
        </>
      }
      equation="stuffing = (bones ÷ 1.15 + flesh ÷ 1.05) · 11/12 ÷ (1 + swell) · 1.02"
      source={`Volume of what came out; densities typical (estimate). It swells by ${SWELLS.bread * 100} % with soaked bread, ${SWELLS.grain * 100} % with raw grain; the range beside it is the cut plan’s: kitchen practice.`}
    >
      {(data?.boned.length ?? 0) > 0 && (
        <label className="col-span-2 text-[15px] font-semibold">
          Boned out, in the larder
          <select
            className={`${inputLook} mt-1 h-11 font-normal`}
            value={lotId}
            onChange={(event) => {
              const chosen = data?.boned.find((b) => b.lotId === event.target.value);
              setLotId(event.target.value);
              if (chosen === undefined) return;
              setBoned(Math.round(inGrams(chosen.bonedMg)));
              setFlesh(Math.round(inGrams(chosen.fleshOutMg)));
              setWhole(Math.round(inGrams(chosen.bonedMg + chosen.bonesMg + chosen.fleshOutMg)));
            }}
          >
            <option value="">by figures</option>
            {data?.boned.map((b) => (
              <option key={b.lotId} value={b.lotId}>
                {b.code} {b.name}, {formatMass(b.bonedMg)}
              </option>
            ))}
          </select>
        </label>
      )}
      <NumField label="Whole" unit="g" value={whole} min={50} max={20_000} decimals={0} onValue={typed(setWhole)} />
      <NumField label="Boned" unit="g" value={boned} min={30} max={20_000} decimals={0} onValue={typed(setBoned)} />
      <NumField label="Flesh out" unit="g" value={flesh} max={10_000} decimals={0} onValue={typed(setFlesh)} />
      <label className="text-[15px] font-semibold">
        With
        <select
          className={`${inputLook} mt-1 h-11 font-normal`}
          value={dry}
          onChange={(event) => setDry(event.target.value === 'grain' ? 'grain' : 'bread')}
        >
          <option value="bread">soaked bread</option>
          <option value="grain">raw grain</option>
        </select>
      </label>
    </Sum>
  );
}
