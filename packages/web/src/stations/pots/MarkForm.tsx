import type { House } from '@zabrik/contract';
import {
  figureTyped,
  formatCount,
  formatLitres,
  inKilograms,
  levelOf,
  markOf,
  type Recipe,
  readDecimal,
  saltStop,
} from '@zabrik/core';
import { z } from 'zod';
import type { KeptForm } from '../../app/keptForm.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { aFigureOrNothing, aVolume } from '../../kit/fieldReaders.ts';
import { litresIn } from '../../kit/litresIn.ts';
import { named, Select } from '../../kit/Select.tsx';
import { unitWord } from '../../parts/amountIn.ts';
import type { AtStove } from './useStove.ts';

const litresWord = (): string => unitWord('l').toLowerCase();

/** A figure typed beside the stove; what it is stands above it, also once something is typed. */
export const figure = (label: string, caption: string) =>
  ({ label: caption, 'aria-label': label, dense: true, className: 'min-w-0', inputMode: 'decimal' }) as const;

const orNothing = aFigureOrNothing('A figure, or nothing');
export const markForm = z
  .object({
    pan: z.string().min(1, 'Which pan it stands in'),
    burner: z.string().min(1, 'Which burner it stands on'),
    target: aVolume('Such as 2.5'),
    salt: orNothing,
    most: orNothing,
  })
  .refine(({ salt, most }) => (salt === undefined) === (most === undefined), {
    path: ['most'],
    message: 'Both, or neither',
  });
export type MarkTyped = z.input<typeof markForm>;
export type MarkRead = z.output<typeof markForm>;

interface Props {
  readonly stove: AtStove;
  readonly house: House | undefined;
  readonly may: boolean;
  readonly form: KeptForm<MarkTyped, MarkRead>;
  /** What stands in the pan now, as far as anyone knows. */
  readonly litresNow: number;
  readonly onSet: () => void;
}

/** The mark that is set: in which pan, on which burner, down to what, and how salty it may get on the way. */
export function MarkForm({ stove, house, may, form, litresNow, onSet }: Props) {
  const { batch } = stove;
  const pans = (house?.vessels ?? []).filter((v) => v.shape !== undefined);
  const { register, setValue, typed } = form;
  const { errors } = form.formState;
  const pan = pans.find((v) => v.id === typed.pan);
  const shape = pan?.shape;
  const litresTarget = litresIn(typed.target) ?? Number.NaN;
  const saltNow = readDecimal(typed.salt);
  const saltMost = readDecimal(typed.most);
  const wouldStop = saltNow > 0 && saltMost > 0 ? saltStop(litresNow, saltNow, saltMost) : undefined;
  const cm = (litres: number): string =>
    shape === undefined ? '' : `${formatCount(levelOf(shape, litres) / 10, 1)} cm`;
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) =>
        void form.handleSubmit((read) => {
          stove.record(
            {
              kind: 'mark',
              vesselId: read.pan,
              burnerId: read.burner,
              targetMg: Math.round(read.target * 1e6),
              ...(read.salt === undefined || read.most === undefined
                ? {}
                : { salt: { grams: litresNow * read.salt, mostPerLitre: read.most } }),
            },
            `Mark at ${typed.target} ${litresWord()}`,
          );
          form.clear();
          onSet();
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
                figureTyped(
                  'l',
                  inKilograms(markOf(batch.recipe as Recipe, batch, batch.expectedMg.mean, m.factor)),
                  2,
                ),
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
          {...figure(`Down to, ${litresWord()}`, `down to, ${litresWord()}`)}
          error={errors.target?.message}
          {...register('target')}
        />
        <Button type="submit" variant="plain" className="h-11" disabled={!may}>
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
          {formatLitres(litresNow)} now: {saltMost} g a litre at {formatLitres(wouldStop, 2)}, {cm(wouldStop)}.
        </p>
      )}
      {shape !== undefined && litresTarget > 0 && (
        <p>
          That is <strong className="figure">{formatCount(levelOf(shape, litresTarget) / 10, 1)} cm</strong> in the{' '}
          {pan?.name}.
        </p>
      )}
    </form>
  );
}
