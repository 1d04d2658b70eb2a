import { formatMass, grams, type Hollow, inGrams, SWELLS, stuffingFor, USUAL_FILLING } from '@zabrik/core';
import { useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
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
        <Select
          label="Boned out, in the larder"
          className="col-span-2"
          value={lotId}
          onValue={(value) => {
            const chosen = data?.boned.find((b) => b.lotId === value);
            setLotId(value);
            if (chosen === undefined) return;
            setBoned(Math.round(inGrams(chosen.bonedMg)));
            setFlesh(Math.round(inGrams(chosen.fleshOutMg)));
            setWhole(Math.round(inGrams(chosen.bonedMg + chosen.bonesMg + chosen.fleshOutMg)));
          }}
          none="by figures"
          options={data?.boned.map((b) => ({ value: b.lotId, name: `${b.code} ${b.name}, ${formatMass(b.bonedMg)}` }))}
        />
      )}
      <NumField label="Whole" unit="g" value={whole} min={50} max={20_000} decimals={0} onValue={typed(setWhole)} />
      <NumField label="Boned" unit="g" value={boned} min={30} max={20_000} decimals={0} onValue={typed(setBoned)} />
      <NumField label="Flesh out" unit="g" value={flesh} max={10_000} decimals={0} onValue={typed(setFlesh)} />
      <Select
        label="With"
        value={dry}
        onValue={(value) => setDry(value === 'grain' ? 'grain' : 'bread')}
        options={[
          { value: 'bread', name: 'soaked bread' },
          { value: 'grain', name: 'raw grain' },
        ]}
      />
    </Sum>
  );
}
