import type { House } from '@zabrik/contract';
import {
  formatCount,
  formatLitres,
  inKilograms,
  levelOf,
  litresAt,
  readDecimal,
  type StandsAt,
  standsAt,
  type VesselShape,
} from '@zabrik/core';
import { useState } from 'react';
import { useKeptForm } from '../../app/keptForm.ts';
import { useTick } from '../../app/timers.ts';
import { OneField } from '../../kit/OneField.tsx';
import { figure, MarkForm, type MarkRead, type MarkTyped, markForm } from './MarkForm.tsx';
import { PotDrawing } from './PotDrawing.tsx';
import type { AtStove } from './useStove.ts';

interface Props {
  readonly stove: AtStove;
  readonly house: House | undefined;
  readonly may: boolean;
}

interface AtProps {
  readonly stove: AtStove;
  readonly mark: NonNullable<AtStove['state']['mark']>;
  readonly panName: string;
  readonly shape: VesselShape | undefined;
  readonly now: StandsAt;
  readonly may: boolean;
  readonly onAnother: () => void;
}

/** The line on the pan, what stands in it by now, and how long it still takes. */
function AtTheMark({ stove, mark, panName, shape, now, may, onAnother }: AtProps) {
  const { rate, nowKg, markKg, stopKg, endKg, left, there } = now;
  const cm = (litres: number): string =>
    shape === undefined ? '' : `${formatCount(levelOf(shape, litres) / 10, 1)} cm`;
  return (
    <div className="grid gap-2">
      <p className="text-xl" data-testid="mark">
        To <strong className="figure">{cm(markKg)}</strong> in the {panName}, {formatLitres(markKg, 2)}
      </p>
      {mark.salt !== undefined && (
        <p
          className={stopKg > markKg ? 'border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5' : 'text-ink-soft'}
          data-testid="salt-stop"
        >
          {stopKg > markKg
            ? `Stop at ${cm(stopKg)}, ${formatLitres(stopKg, 2)}: below it is saltier than ${mark.salt.mostPerLitre} g a litre. At the mark it would be ${formatCount(mark.salt.grams / markKg, 1)}.`
            : `${formatCount(mark.salt.grams / markKg, 1)} g of salt a litre at the mark, no more than ${mark.salt.mostPerLitre}.`}
        </p>
      )}
      {shape !== undefined && (
        <PotDrawing
          shape={shape}
          litres={nowKg ?? endKg}
          mark={{ litres: endKg, name: stopKg > markKg ? 'salt' : 'mark' }}
          fillShare={1}
          width={260}
        />
      )}
      {nowKg === undefined ? (
        <p className="text-ink-soft">Put a ruler in: how high does it stand?</p>
      ) : (
        <p data-testid="minutes-left">
          {there ? (
            <strong className="font-head text-2xl">
              {stopKg > markKg ? 'As salty as it may get by now. Taste.' : 'At the mark by now. Look.'}
            </strong>
          ) : left === undefined ? (
            'Choose a burner to see how long.'
          ) : (
            <>
              <span className="figure text-3xl">{Math.round(left.typical)} min</span>{' '}
              <span className="text-ink-soft">
                left, {Math.round(left.low)} to {Math.round(left.high)}; {formatLitres(rate?.kgPerHour ?? 0)} an hour
                {rate?.readings === 0 ? ' by the burner alone' : `, ${rate?.readings} readings`}
              </span>
            </>
          )}
        </p>
      )}
      {may && (
        <button type="button" className="justify-self-start underline" onClick={onAnother}>
          Another mark
        </button>
      )}
      {may && (
        <OneField
          {...figure('Stands at, centimetres', 'stands at, cm')}
          formClass="grid grid-cols-[1fr_auto] items-end gap-2"
          again
          read={(text) => {
            const cmNow = readDecimal(text);
            return shape !== undefined && cmNow > 0 && cmNow < 100
              ? { levelMm: cmNow * 10, massMg: Math.round(litresAt(shape, cmNow * 10) * 1e6) }
              : undefined;
          }}
          onSend={(level, text) => stove.record({ kind: 'level', ...level }, `Stands at ${text} cm`)}
          send="Read it"
          sending={{ variant: 'plain', className: 'h-11' }}
        />
      )}
      <p className="text-[13px] text-ink-soft">
        Power of the burner less what the pan gives to the room, over the heat of evaporation; each reading pulls the
        rate. What does not boil away gets stronger: taste before the end.
      </p>
    </div>
  );
}

/** "Reduce to 11 cm in this pan": the line on the pan, what stands in it now, and how long it still takes, learnt at each reading. */
export function ToTheMark({ stove, house, may }: Props) {
  const { batch, state } = stove;
  const pans = (house?.vessels ?? []).filter((v) => v.shape !== undefined);
  const form = useKeptForm<MarkTyped, MarkRead>(`mark/${batch.id}`, markForm, {
    pan: batch.vesselId ?? '',
    burner: '',
    target: '',
    salt: '',
    most: '',
  });
  const [another, setAnother] = useState(false);
  const mark = another ? undefined : state.mark;
  const pan = pans.find((v) => v.id === (mark?.vesselId ?? form.typed.pan));
  const burner = house?.burners.find((b) => b.id === (mark?.burnerId ?? form.typed.burner));
  const readings = state.levels.filter((l) => state.markedAt === undefined || l.at >= state.markedAt);
  const last = readings.at(-1) ?? state.levels.at(-1);
  const tick = useTick(mark !== undefined && last !== undefined, 5_000);
  const now = standsAt({
    shape: pan?.shape,
    burner,
    readings,
    last,
    mark: mark ?? { targetMg: 0 },
    nowMs: tick,
  });
  return (
    <section className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5" aria-label="To the mark">
      <h3 className="mb-2 text-[15px] font-bold">Reduce to a mark</h3>
      {mark === undefined ? (
        <MarkForm
          stove={stove}
          house={house}
          may={may}
          form={form}
          litresNow={now.nowKg ?? inKilograms(batch.expectedMg.mean)}
          onSet={() => setAnother(false)}
        />
      ) : (
        <AtTheMark
          stove={stove}
          mark={mark}
          panName={pan?.name ?? 'pan'}
          shape={pan?.shape}
          now={now}
          may={may}
          onAnother={() => setAnother(true)}
        />
      )}
    </section>
  );
}
