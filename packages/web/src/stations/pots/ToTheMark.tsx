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
import { z } from 'zod';
import { useKeptForm } from '../../app/keptForm.ts';
import { useTick } from '../../app/timers.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { OneField } from '../../kit/OneField.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { PotDrawing } from './PotDrawing.tsx';
import type { AtStove } from './useStove.ts';

interface Props {
  readonly stove: AtStove;
  readonly house: House | undefined;
  readonly may: boolean;
}

/** A figure typed beside the stove; what it is stands above it, also once something is typed. */
const figure = (label: string, caption: string) =>
  ({ label: caption, 'aria-label': label, dense: true, className: 'min-w-0', inputMode: 'decimal' }) as const;

const orNothing = z
  .string()
  .refine((text) => text.trim() === '' || readDecimal(text) > 0, 'A figure, or nothing')
  .transform((text) => (text.trim() === '' ? undefined : readDecimal(text)));
const markForm = z
  .object({
    pan: z.string().min(1, 'Which pan it stands in'),
    burner: z.string().min(1, 'Which burner it stands on'),
    target: z
      .string()
      .refine((text) => readDecimal(text) > 0, 'Such as 2.5')
      .transform(readDecimal),
    salt: orNothing,
    most: orNothing,
  })
  .refine(({ salt, most }) => (salt === undefined) === (most === undefined), {
    path: ['most'],
    message: 'Both, or neither',
  });
type Typed = z.input<typeof markForm>;

/** "Reduce to 11 cm in this pan": the line on the pan, what stands in it now, and how long it still takes, learnt at each reading. */
export function ToTheMark({ stove, house, may }: Props) {
  const { batch, state, say } = stove;
  const pans = (house?.vessels ?? []).filter((v) => v.shape !== undefined);
  const form = useKeptForm<Typed, z.output<typeof markForm>>(`mark/${batch.id}`, markForm, {
    pan: batch.vesselId ?? '',
    burner: '',
    target: '',
    salt: '',
    most: '',
  });
  const { register, setValue, typed } = form;
  const { errors } = form.formState;
  const [another, setAnother] = useState(false);
  const mark = another ? undefined : state.mark;
  const pan = pans.find((v) => v.id === (mark?.vesselId ?? typed.pan));
  const burner = house?.burners.find((b) => b.id === (mark?.burnerId ?? typed.burner));
  const readings = state.levels.filter((l) => state.markedAt === undefined || l.at >= state.markedAt);
  const last = readings.at(-1) ?? state.levels.at(-1);
  const tick = useTick(mark !== undefined && last !== undefined, 5_000);
  const shape = pan?.shape;
  const litresTarget = readDecimal(typed.target);
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
  const saltNow = readDecimal(typed.salt);
  const saltMost = readDecimal(typed.most);
  const salted = typed.salt.trim() !== '' && saltNow > 0 && saltMost > 0;
  const wouldStop = salted ? saltStop(litresNow, saltNow, saltMost) : undefined;
  const cm = (litres: number): string => (shape === undefined ? '' : `${(levelOf(shape, litres) / 10).toFixed(1)} cm`);
  return (
    <section className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5" aria-label="To the mark">
      <h3 className="mb-2 text-[15px] font-bold">Reduce to a mark</h3>
      {mark === undefined ? (
        <form
          className="grid gap-2"
          onSubmit={(event) =>
            void form.handleSubmit((read) => {
              say(
                {
                  kind: 'mark',
                  vesselId: read.pan,
                  burnerId: read.burner,
                  targetMg: Math.round(read.target * 1e6),
                  ...(read.salt === undefined || read.most === undefined
                    ? {}
                    : { salt: { grams: litresNow * read.salt, mostPerLitre: read.most } }),
                },
                `Mark at ${typed.target} litres`,
              );
              form.clear();
              setAnother(false);
            })(event)
          }
        >
          <div className="grid grid-cols-2 gap-2">
            <Select
              aria-label="Pan"
              value={typed.pan}
              onValue={(id) => setValue('pan', id, { shouldValidate: true })}
              none="which pan"
              error={errors.pan?.message}
              options={named(pans)}
            />
            <Select
              aria-label="Burner"
              value={typed.burner}
              onValue={(id) => setValue('burner', id, { shouldValidate: true })}
              none="which burner"
              error={errors.burner?.message}
              options={named(house?.burners)}
            />
          </div>
          <div className="flex flex-wrap gap-2">
            {batch.recipe.marks.map((m) => (
              <Button
                key={m.name}
                className="h-11"
                onClick={() =>
                  setValue(
                    'target',
                    inKilograms(markOf(batch.recipe as Recipe, batch, batch.expectedMg.mean, m.factor)).toFixed(2),
                    { shouldValidate: true },
                  )
                }
              >
                {m.name}
              </Button>
            ))}
          </div>
          <div className="grid grid-cols-[1fr_auto] items-end gap-2">
            <Field
              {...figure('Down to, litres', 'down to, litres')}
              error={errors.target?.message}
              {...register('target')}
            />
            <Button type="submit" look="plain" className="h-11" disabled={!may}>
              Set the mark
            </Button>
          </div>
          <div className="grid grid-cols-2 gap-2">
            <Field
              {...figure('Salt in it now, grams a litre', 'salt now, g/l')}
              error={errors.salt?.message}
              {...register('salt')}
            />
            <Field
              {...figure('No saltier than, grams a litre', 'no more than, g/l')}
              error={errors.most?.message}
              {...register('most')}
            />
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
        </form>
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
              onSend={(level, text) => say({ kind: 'level', ...level }, `Stands at ${text} cm`)}
              send="Read it"
              sending={{ look: 'plain', className: 'h-11' }}
            />
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
