import { conduction, lethalityTargets } from '@zabrik/catalogue/heat';
import { centreAt, equivalentMinutes, formatDegrees, lethality, mixedTemperature, secondsUntilHot } from '@zabrik/core';
import { useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { named, optionsOf, Select } from '../../../kit/Select.tsx';
import { longWords } from '../coolingMethods.ts';
import { LineOf } from './LineOf.tsx';
import { Sum } from './Sum.tsx';

/** What a hot pan comes down to when something cold goes in. */
export function PanMix() {
  const [panKg, setPanKg] = useState(1.8);
  const [panC, setPanC] = useState(220);
  const [oilKg, setOilKg] = useState(0.05);
  const [foodKg, setFoodKg] = useState(0.5);
  const [foodC, setFoodC] = useState(5);
  const mixed = mixedTemperature([
    { kg: panKg, heat: 490, C: panC },
    { kg: oilKg, heat: 2_000, C: panC },
    { kg: foodKg, heat: 3_500, C: foodC },
  ]);
  return (
    <Sum
      title="Hot pan, cold food"
      answer={mixed === undefined ? '' : formatDegrees(Math.round(mixed))}
      says={
        <p>
          {(mixed ?? 0) < 120
            ? `Below ${formatDegrees(120)} it stews before the burner brings it back: less at a time, or a heavier pan.`
            : 'It stays hot enough to brown.'}
        </p>
      }
      chart={
        <LineOf
          label="Where the pan ends over how much goes in"
          xUnit="kg"
          yUnit="°C"
          line={120}
          points={Array.from({ length: 11 }, (_, i) => (i / 10) * Math.max(1, foodKg * 1.6)).map((x) => ({
            x,
            y:
              mixedTemperature([
                { kg: panKg, heat: 490, C: panC },
                { kg: oilKg, heat: 2_000, C: panC },
                { kg: x, heat: 3_500, C: foodC },
              ]) ?? 0,
          }))}
          mark={{ x: foodKg, y: mixed ?? 0 }}
        />
      }
      equation="T = Σ(mass · heat · temperature) ÷ Σ(mass · heat)"
      source="Heat balance: steel 490, oil 2,000, meat 3,500 J/(kg K), tables of physics, recalled. The burner and the heat inside the food are left out: the first moment only."
    >
      <NumField label="Pan" unit="kg" value={panKg} min={0.1} max={20} onValue={setPanKg} />
      <NumField label="Pan at" unit="°C" value={panC} min={20} max={400} decimals={0} onValue={setPanC} />
      <NumField label="Oil in it" unit="kg" value={oilKg} max={20} decimals={2} onValue={setOilKg} />
      <NumField label="Food" unit="kg" value={foodKg} min={0.01} max={20} decimals={2} onValue={setFoodKg} />
      <NumField label="Food at" unit="°C" value={foodC} min={-20} max={60} decimals={0} onValue={setFoodC} />
    </Sum>
  );
}

const shapes = {
  slab: 'flat: a fillet, a bag',
  cylinder: 'round and long: a roll, a loin',
  sphere: 'round: a ball, a leg',
} as const;
const around = { bath: 'a stirred bath', steam: 'steam', air: 'an oven’s air' } as const;

/** How long until the core is there, and what that is worth against a target: sous-vide, poaching, confit, steam. */
export function CoreTime() {
  const [thick, setThick] = useState(30);
  const [shape, setShape] = useState<keyof typeof shapes>('slab');
  const [medium, setMedium] = useState<keyof typeof around>('bath');
  const [bathC, setBathC] = useState(60);
  const [from, setFrom] = useState(5);
  const [core, setCore] = useState(58);
  const [targetId, setTargetId] = useState(lethalityTargets[0]?.id ?? '');
  const target = lethalityTargets.find((t) => t.id === targetId);
  const h = { bath: conduction.bathH, steam: conduction.steamH, air: conduction.airH }[medium];
  const body = {
    shape,
    halfM: thick / 2_000,
    h,
    k: conduction.k,
    alpha: conduction.alpha,
    fromC: from,
    mediumC: bathC,
  };
  const seconds = secondsUntilHot(body, core);
  const minutes = seconds === undefined ? undefined : seconds / 60;
  const span = Math.max(30, (minutes ?? 60) * 1.8);
  const points = Array.from({ length: 40 }, (_, i) => (span * i) / 39).map((x) => ({ x, y: centreAt(body, x * 60) }));
  // hours until the core has had what the target asks, minute by minute
  let enough: number | undefined;
  if (target !== undefined) {
    const log: { minute: number; C: number }[] = [];
    for (let minute = 0; minute <= 1_440; minute += 1) {
      log.push({ minute, C: centreAt(body, minute * 60) });
      if (minute % 5 === 0 && lethality(log, target) >= target.minutes) {
        enough = minute;
        break;
      }
    }
  }
  return (
    <Sum
      title="Core temperature"
      answer={minutes === undefined ? 'never' : longWords(minutes)}
      says={
        <>
          <p>
            Until the core is at {formatDegrees(core)} in {around[medium]} of {formatDegrees(bathC)}
            {minutes === undefined && '; it never gets hotter than what is around it'}.
          </p>
          {target !== undefined && (
            <p>
              {enough === undefined
                ? `Not worth ${target.name} within a day: nothing is credited below ${formatDegrees(target.refC - 10)}.`
                : `Worth ${target.name} after about ${longWords(enough)}; held at ${formatDegrees(bathC)} that takes ${longWords(equivalentMinutes(target, bathC))}.`}
            </p>
          )}
          <p className="text-[15px] text-ink-soft">
            An estimate by thickness. The probe in the coldest point decides, and your code’s printed pairs, not this
            sum. Without an approved plan a restaurant does not replace its code by it.
          </p>
        </>
      }
      chart={
        <LineOf
          label="Core temperature over the minutes"
          xUnit="min"
          yUnit="°C"
          points={points}
          {...(minutes === undefined ? {} : { mark: { x: minutes, y: core } })}
          line={core}
        />
      }
      equation="θ = C₁ · exp(−ζ² · α t ÷ L²), ζ from the Biot number h L ÷ k; worth = ∫ 10^((T − Tref) ÷ z) dt"
      source="One-term solution of conduction, heat-transfer texts; k 0.5 W/mK, α 1.3·10⁻⁷ m²/s for meat and fish (typical). Targets: FSA and ACMSF advice, FDA Hazards guide, recalled."
    >
      <NumField label="Thick" unit="mm" value={thick} min={2} max={300} decimals={0} onValue={setThick} />
      <NumField label="It is at" unit="°C" value={from} min={-5} max={60} onValue={setFrom} />
      <Select label="Form" className="col-span-2" value={shape} onValue={setShape} options={optionsOf(shapes)} />
      <Select label="In" className="col-span-2" value={medium} onValue={setMedium} options={optionsOf(around)} />
      <NumField label="At" unit="°C" value={bathC} min={20} max={250} onValue={setBathC} />
      <NumField label="Core to" unit="°C" value={core} min={0} max={100} onValue={setCore} />
      <Select
        label="Target"
        className="col-span-2"
        value={targetId}
        onValue={setTargetId}
        options={named(lethalityTargets)}
      />
    </Sum>
  );
}
