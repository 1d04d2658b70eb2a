import type { House } from '@zabrik/contract';
import {
  boilRate,
  concentrated,
  evaporationRate,
  facesOf,
  formatCount,
  formatLitres,
  levelOf,
  minutesToMark,
  saltStop,
  type VesselShape,
  wallLoss,
} from '@zabrik/core';
import { useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { named, Select } from '../../../kit/Select.tsx';
import { longWords } from '../coolingMethods.ts';
import { PotDrawing } from '../PotDrawing.tsx';
import { LineOf } from './LineOf.tsx';
import { Sum } from './Sum.tsx';

const usualPan: VesselShape = { kind: 'round', diameterMm: 280, heightMm: 100 };

function Choose({
  label,
  value,
  options,
  onPick,
}: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  readonly onPick: (id: string) => void;
}) {
  return <Select label={label} className="col-span-2" value={value} onValue={onPick} options={named(options)} />;
}

/** From so much to so much in this pan on this burner: minutes, the mark in centimetres, and how salty it ends. */
export function Reduction({ house }: { readonly house: House | undefined }) {
  const pans = (house?.vessels ?? []).flatMap((v) => (v.shape === undefined ? [] : [{ ...v, shape: v.shape }]));
  const burners = house?.burners ?? [];
  const [from, setFrom] = useState(4);
  const [to, setTo] = useState(1);
  const [panId, setPanId] = useState(pans.find((p) => p.kind === 'pan')?.id ?? pans[0]?.id ?? '');
  const [burnerId, setBurnerId] = useState(burners[0]?.id ?? '');
  const [salt, setSalt] = useState(0);
  const [most, setMost] = useState(10);
  const shape = pans.find((p) => p.id === panId)?.shape ?? usualPan;
  const burner = burners.find((b) => b.id === burnerId) ?? { watts: 3_500, efficiency: 0.4 };
  const faces = facesOf(shape, from);
  const kgPerHour = boilRate(burner, wallLoss(faces.side + faces.top)) * 3_600;
  const left = minutesToMark(from, to, { kgPerHour, sd: 0.3 * kgPerHour, readings: 0 });
  const end = concentrated(salt, from, to);
  const stop = salt > 0 ? saltStop(from, salt, most) : undefined;
  const cm = (litres: number): string => `${formatCount(levelOf(shape, litres) / 10, 1)} cm`;
  const minutes = left?.typical ?? 0;
  return (
    <Sum
      title="Reduction"
      answer={
        to >= from
          ? 'nothing to boil away'
          : left === undefined
            ? 'never: this burner only holds its own'
            : longWords(minutes)
      }
      says={
        <>
          <p>
            From {cm(from)} down to <strong>{cm(to)}</strong>; {formatLitres(kgPerHour)} an hour
            {left !== undefined && `, eight times in ten ${longWords(left.low)} to ${longWords(left.high)}`}.
          </p>
          {stop !== undefined && (
            <p className={stop > to ? 'text-alarm' : ''}>
              {stop > to
                ? `Stop at ${formatLitres(stop, 2)}, ${cm(stop)}: below it is saltier than ${most} g a litre. At the mark it would be ${formatCount(end, 1)}.`
                : `${formatCount(end, 1)} g of salt a litre at the mark.`}
            </p>
          )}
          <PotDrawing
            shape={shape}
            litres={from}
            mark={{ litres: Math.max(to, stop ?? 0), name: 'mark' }}
            fillShare={1}
            width={260}
          />
        </>
      }
      chart={
        left === undefined || to >= from ? undefined : (
          <LineOf
            label="Litres left over the minutes"
            xUnit="min"
            yUnit="l"
            points={[0, 0.25, 0.5, 0.75, 1].map((s) => ({ x: minutes * s, y: from + (to - from) * s }))}
            mark={{ x: minutes, y: to }}
            {...(stop === undefined ? {} : { line: stop })}
          />
        )
      }
      equation="minutes = (start − end) · 2,256.5 kJ/kg ÷ (efficiency · power − what the pan gives to the room); salt end = salt start · start ÷ end"
      source="Heat balance at the boil; latent heat from steam tables; efficiency 0.40 open gas, 0.85 induction (published appliance tests, recalled); 11 W/m²K from the wet wall (typical). A litre is taken as a kilogram."
    >
      <NumField label="From" unit="l" value={from} min={0.1} max={200} decimals={2} onValue={setFrom} />
      <NumField label="Down to" unit="l" value={to} min={0.01} max={200} decimals={2} onValue={setTo} />
      <Choose label="Pan" value={panId} options={pans} onPick={setPanId} />
      <Choose label="Burner" value={burnerId} options={burners} onPick={setBurnerId} />
      <NumField label="Salt in it now" unit="g/l" value={salt} max={50} onValue={setSalt} />
      <NumField label="No saltier than" unit="g/l" value={most} min={0.1} max={60} onValue={setMost} />
    </Sum>
  );
}

/** Water that leaves an open pot below the boil: how much to top up. */
export function Evaporation({ house }: { readonly house: House | undefined }) {
  const pots = (house?.vessels ?? []).flatMap((v) => (v.shape === undefined ? [] : [{ ...v, shape: v.shape }]));
  const [potId, setPotId] = useState(pots[0]?.id ?? '');
  const [surface, setSurface] = useState(90);
  const [air, setAir] = useState(25);
  const [damp, setDamp] = useState(50);
  const [hours, setHours] = useState(4);
  const shape = pots.find((p) => p.id === potId)?.shape ?? usualPan;
  const areaM2 = facesOf(shape, 1).top;
  const rate = (surfaceC: number): number =>
    3_600 * evaporationRate({ surfaceC, airC: air, humidity: damp / 100, convection: 5, areaM2 });
  return (
    <Sum
      title="Evaporation"
      answer={`${formatLitres(rate(surface), 2)} an hour`}
      says={
        <p>
          {formatLitres(rate(surface) * hours)} in {hours} hours; at a bare simmer the surface is a few degrees colder
          than the middle.
        </p>
      }
      chart={
        <LineOf
          label="Litres an hour over the temperature of the surface"
          xUnit="°C"
          yUnit="l/h"
          points={Array.from({ length: 13 }, (_, i) => 40 + i * 5).map((x) => ({
            x: Math.min(x, 99),
            y: rate(Math.min(x, 99)),
          }))}
          mark={{ x: surface, y: rate(surface) }}
        />
      }
      equation="kg/s = (h ÷ 1,100) · area · (vapour at the surface − humidity · vapour of the room)"
      source="Lewis relation, with h = 5 W/m²K for still air (typical); vapour pressure by the Antoine equation, recalled."
    >
      <Choose label="Pot" value={potId} options={pots} onPick={setPotId} />
      <NumField label="Surface at" unit="°C" value={surface} min={20} max={99} onValue={setSurface} />
      <NumField label="Hours" unit="h" value={hours} min={0.1} max={48} onValue={setHours} />
      <NumField label="Room at" unit="°C" value={air} min={0} max={50} onValue={setAir} />
      <NumField label="Damp" unit="%" value={damp} max={100} decimals={0} onValue={setDamp} />
    </Sum>
  );
}
