import { boneStrengths } from '@zabrik/catalogue/heat';
import { formatCount, stockStrength } from '@zabrik/core';
import { useState } from 'react';
import { useCatalogue } from '../../../app/queries.ts';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { LineOf } from './LineOf.tsx';
import { Sum } from './Sum.tsx';

/** How strong a stock is likely to be: gelatin, solids, and whether it sets. */
export function Strength() {
  const { data: catalogue } = useCatalogue();
  const [kind, setKind] = useState('poultry-carcass');
  const [kg, setKg] = useState(5);
  const [trotter, setTrotter] = useState(0);
  const [hours, setHours] = useState(4);
  const [litres, setLitres] = useState(5);
  const label = (id: string): string =>
    catalogue?.categories.find((c) => c.id === id)?.label ?? id.replaceAll('-', ' ');
  const of = boneStrengths[kind];
  const feet = boneStrengths['pork-trotter'];
  const bones = [
    ...(of === undefined ? [] : [{ kg, of }]),
    ...(feet === undefined || trotter === 0 ? [] : [{ kg: trotter, of: feet }]),
  ];
  const strength = stockStrength(bones, hours * 60, litres);
  const at = (h: number): number => stockStrength(bones, h * 60, litres)?.gelatin ?? 0;
  return (
    <Sum
      title="Strength of a stock"
      answer={strength === undefined ? '' : `${Math.round(strength.gelatin)} g/l`}
      says={
        strength !== undefined && (
          <p>
            of gelatin, {Math.round(strength.low)} to {Math.round(strength.high)}; about{' '}
            {formatCount(strength.solids / 10, 1)} % solids.{' '}
            {strength.sets === 'no' ? 'It does not set.' : `Cold, it sets ${strength.sets}.`}
          </p>
        )
      }
      chart={
        <LineOf
          label="Gelatin over the hours"
          xUnit="h"
          yUnit="g/l"
          points={Array.from({ length: 21 }, (_, i) => (i / 20) * Math.max(2, hours * 2)).map((x) => ({ x, y: at(x) }))}
          mark={{ x: hours, y: strength?.gelatin ?? 0 }}
        />
      }
      equation="g/l = Σ kg · what a kilo gives · (1 − e^(−t/τ)) ÷ litres left"
      source="What bones give and how fast: estimates of this project, good to a factor of about 1.6 either way; they set softly from about 10 g/l, firmly from 20, hard from 40 (kitchen practice with leaf gelatin)."
    >
      <Select
        label="Bones"
        className="col-span-2"
        value={kind}
        onValue={setKind}
        options={Object.keys(boneStrengths).map((id) => ({ value: id, name: label(id) }))}
      />
      <NumField label="Of them" unit="kg" value={kg} min={0.1} max={300} onValue={setKg} />
      <NumField label="Trotters" unit="kg" value={trotter} max={50} onValue={setTrotter} />
      <NumField label="For" unit="h" value={hours} min={0.1} max={72} onValue={setHours} />
      <NumField label="Litres left" unit="l" value={litres} min={0.1} max={300} onValue={setLitres} />
    </Sum>
  );
}
