import type { House } from '@zabrik/contract';
import {
  believeRate,
  boilRate,
  facesOf,
  inKilograms,
  levelOf,
  litresAt,
  markOf,
  minutesToMark,
  type Recipe,
  readDecimal,
  saltStop,
  wallLoss,
} from '@zabrik/core';
import { useState } from 'react';
import { useTick } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { PotDrawing } from './PotDrawing.tsx';
import type { AtStove } from './useStove.ts';

interface Props {
  readonly stove: AtStove;
  readonly house: House | undefined;
  readonly may: boolean;
}

interface FigureProps {
  readonly label: string;
  readonly caption: string;
  readonly value: string;
  readonly onValue: (value: string) => void;
}

/** A figure typed beside the stove; what it is stands above it, also once something is typed. */
const Figure = ({ label, caption, value, onValue }: FigureProps) => (
  <Field
    label={caption}
    dense
    className="min-w-0"
    aria-label={label}
    inputMode="decimal"
    value={value}
    onChange={(e) => onValue(e.target.value)}
  />
);

/** "Reduce to 11 cm in this pan": the line on the pan, what stands in it now, and how long it still takes, learnt at each reading. */
export function ToTheMark({ stove, house, may }: Props) {
  const { batch, state, say } = stove;
  const pans = (house?.vessels ?? []).filter((v) => v.shape !== undefined);
  const [panId, setPanId] = useState(batch.vesselId ?? '');
  const [burnerId, setBurnerId] = useState('');
  const [target, setTarget] = useState('');
  const [now, setNow] = useState('');
  const [another, setAnother] = useState(false);
  const [salt, setSalt] = useState('');
  const [most, setMost] = useState('');
  const mark = another ? undefined : state.mark;
  const pan = pans.find((v) => v.id === (mark?.vesselId ?? panId));
  const burner = house?.burners.find((b) => b.id === (mark?.burnerId ?? burnerId));
  const readings = state.levels.filter((l) => state.markedAt === undefined || l.at >= state.markedAt);
  const last = readings.at(-1) ?? state.levels.at(-1);
  const tick = useTick(mark !== undefined && last !== undefined, 5_000);
  const shape = pan?.shape;
  const cmNow = readDecimal(now);
  const litresTarget = readDecimal(target);
  const expected = inKilograms(batch.expectedMg.mean);

  // one number for the future: where the level will be now, at what the readings say it boils away
  const first = readings[0];
  const faces = shape === undefined ? undefined : facesOf(shape, inKilograms(last?.massMg ?? 0));
  const prior =
    burner === undefined || faces === undefined
      ? undefined
      : boilRate(burner, wallLoss(faces.side + faces.top)) * 3_600;
  const rate =
    prior === undefined || first === undefined
      ? undefined
      : believeRate(
          prior,
          readings.map((r) => ({
            minute: (Date.parse(r.at) - Date.parse(first.at)) / 60_000,
            kg: inKilograms(r.massMg),
          })),
        );
  const sinceHours = last === undefined ? 0 : Math.max(0, tick - Date.parse(last.at)) / 3_600_000;
  const nowKg =
    last === undefined ? undefined : Math.max(0, inKilograms(last.massMg) - (rate?.kgPerHour ?? 0) * sinceHours);
  // salt does not boil away: where it gets too strong before the mark, that line is the end
  const marked = mark === undefined ? 0 : inKilograms(mark.targetMg);
  const stop = mark?.salt === undefined ? 0 : mark.salt.grams / mark.salt.mostPerLitre;
  const end = Math.max(marked, stop);
  const left =
    mark === undefined || rate === undefined || nowKg === undefined ? undefined : minutesToMark(nowKg, end, rate);
  const there = mark !== undefined && nowKg !== undefined && nowKg <= end;
  const litresNow = nowKg ?? expected;
  const saltNow = readDecimal(salt);
  const saltMost = readDecimal(most);
  const salted = salt.trim() !== '' && saltNow > 0 && saltMost > 0;
  const wouldStop = salted ? saltStop(litresNow, saltNow, saltMost) : undefined;
  const cm = (litres: number): string => (shape === undefined ? '' : `${(levelOf(shape, litres) / 10).toFixed(1)} cm`);
  return (
    <section className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5" aria-label="To the mark">
      <h3 className="mb-2 text-[15px] font-bold">Reduce to a mark</h3>
      {mark === undefined ? (
        <div className="grid gap-2">
          <div className="grid grid-cols-2 gap-2">
            <Select aria-label="Pan" value={panId} onValue={setPanId} none="which pan" options={named(pans)} />
            <Select
              aria-label="Burner"
              value={burnerId}
              onValue={setBurnerId}
              none="which burner"
              options={named(house?.burners)}
            />
          </div>
          <div className="flex flex-wrap gap-2">
            {batch.recipe.marks.map((m) => (
              <Button
                key={m.name}
                className="h-11"
                onClick={() =>
                  setTarget(
                    inKilograms(markOf(batch.recipe as Recipe, batch, batch.expectedMg.mean, m.factor)).toFixed(2),
                  )
                }
              >
                {m.name}
              </Button>
            ))}
          </div>
          <div className="grid grid-cols-[1fr_auto] items-end gap-2">
            <Figure label="Down to, litres" caption="down to, litres" value={target} onValue={setTarget} />
            <Button
              look="plain"
              className="h-11"
              disabled={!may || shape === undefined || burner === undefined || !(litresTarget > 0)}
              onClick={() => {
                say(
                  {
                    kind: 'mark',
                    vesselId: panId,
                    burnerId: burnerId === '' ? null : burnerId,
                    targetMg: Math.round(litresTarget * 1e6),
                    ...(salted ? { salt: { grams: litresNow * saltNow, mostPerLitre: saltMost } } : {}),
                  },
                  `Mark at ${target} litres`,
                );
                setAnother(false);
              }}
            >
              Set the mark
            </Button>
          </div>
          <div className="grid grid-cols-2 gap-2">
            <Figure label="Salt in it now, grams a litre" caption="salt now, g/l" value={salt} onValue={setSalt} />
            <Figure label="No saltier than, grams a litre" caption="no more than, g/l" value={most} onValue={setMost} />
          </div>
          {wouldStop !== undefined && (
            <p className={wouldStop > litresTarget ? 'text-alarm' : 'text-ink-soft'}>
              {litresNow.toFixed(1)} l now: {saltMost} g a litre at {wouldStop.toFixed(2)} l, {cm(wouldStop)}.
            </p>
          )}
          {shape !== undefined && litresTarget > 0 && (
            <p>
              That is <strong className="figure">{(levelOf(shape, litresTarget) / 10).toFixed(1)} cm</strong> in the{' '}
              {pan?.name}.
            </p>
          )}
        </div>
      ) : (
        <div className="grid gap-2">
          <p className="text-xl" data-testid="mark">
            To <strong className="figure">{cm(marked)}</strong> in the {pan?.name}, {marked.toFixed(2)} l
          </p>
          {mark.salt !== undefined && (
            <p
              className={stop > marked ? 'border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5' : 'text-ink-soft'}
              data-testid="salt-stop"
            >
              {stop > marked
                ? `Stop at ${cm(stop)}, ${stop.toFixed(2)} l: below it is saltier than ${mark.salt.mostPerLitre} g a litre. At the mark it would be ${(mark.salt.grams / marked).toFixed(1)}.`
                : `${(mark.salt.grams / marked).toFixed(1)} g of salt a litre at the mark, no more than ${mark.salt.mostPerLitre}.`}
            </p>
          )}
          {shape !== undefined && (
            <PotDrawing
              shape={shape}
              litres={nowKg ?? end}
              mark={{ litres: end, name: stop > marked ? 'salt' : 'mark' }}
              fillShare={1}
              width={260}
            />
          )}
          {last === undefined ? (
            <p className="text-ink-soft">Put a ruler in: how high does it stand?</p>
          ) : (
            <p data-testid="minutes-left">
              {there ? (
                <strong className="font-head text-2xl">
                  {stop > marked ? 'As salty as it may get by now. Taste.' : 'At the mark by now. Look.'}
                </strong>
              ) : left === undefined ? (
                'Choose a burner to see how long.'
              ) : (
                <>
                  <span className="figure text-3xl">{Math.round(left.typical)} min</span>{' '}
                  <span className="text-ink-soft">
                    left, {Math.round(left.low)} to {Math.round(left.high)}; {rate?.kgPerHour.toFixed(1)} l an hour
                    {rate?.readings === 0 ? ' by the burner alone' : `, ${rate?.readings} readings`}
                  </span>
                </>
              )}
            </p>
          )}
          {may && (
            <button type="button" className="justify-self-start underline" onClick={() => setAnother(true)}>
              Another mark
            </button>
          )}
          {may && (
            <form
              className="grid grid-cols-[1fr_auto] items-end gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (shape === undefined || !(cmNow > 0)) return;
                say(
                  { kind: 'level', levelMm: cmNow * 10, massMg: Math.round(litresAt(shape, cmNow * 10) * 1e6) },
                  `Stands at ${now} cm`,
                );
                setNow('');
              }}
            >
              <Figure label="Stands at, centimetres" caption="stands at, cm" value={now} onValue={setNow} />
              <Button type="submit" look="plain" className="h-11" disabled={!(cmNow > 0 && cmNow < 100)}>
                Read it
              </Button>
            </form>
          )}
          <p className="text-[13px] text-ink-soft">
            Power of the burner less what the pan gives to the room, over the heat of evaporation; each reading pulls
            the rate. What does not boil away gets stronger: taste before the end.
          </p>
        </div>
      )}
    </section>
  );
}
