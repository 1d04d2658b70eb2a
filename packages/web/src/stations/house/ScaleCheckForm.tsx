/** Test weights laid on a scale: what each is, what it showed, and what is allowed there. */
import { useQueryClient } from '@tanstack/react-query';
import type { House, ScaleCheckListed } from '@zabrik/contract';
import { formatMass, judgeScale, massTyped, parseMass, unitName } from '@zabrik/core';
import { useFieldArray } from 'react-hook-form';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useReadingOf } from '../../app/live.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { aWeight, read } from '../../kit/fieldReaders.ts';
import { Notice } from '../../kit/Notice.tsx';
import { massIn } from '../../kit/readers.ts';
import { StillHere } from '../../parts/StillHere.tsx';
import { lastCheckWords, pointWords } from './scaleCheckWords.ts';

type Scale = House['scales'][number];

const checkForm = z.object({
  points: z
    .array(
      z.object({
        load: aWeight('A test weight, such as 500 g'),
        shown: z.string().transform(read((text) => parseMass(text), 'What it showed, such as 500 g')),
      }),
    )
    .min(1),
});

export function ScaleCheckForm({
  scale,
  checks,
  done,
}: {
  readonly scale: Scale;
  readonly checks: readonly ScaleCheckListed[];
  readonly done: () => void;
}) {
  const client = useQueryClient();
  const reading = useReadingOf(scale.id);
  const blank = {
    points: [500_000, Math.min(scale.maxMg, 5_000_000)].map((mg) => ({ load: formatMass(mg), shown: '' })),
  };
  const form = useKeptForm(`scale-check/${scale.id}`, checkForm, blank);
  const { control, register, setValue, formState, typed, kept } = form;
  const points = useFieldArray({ control, name: 'points', keyName: 'row' });
  const checking = useCommand(api.house.checkScale, {
    onDone: () => {
      void client.invalidateQueries({ queryKey: ['house', 'devices'] });
      done();
    },
  });
  const lies = reading?.state === 'steady' ? reading.netMg : undefined;
  const judged = (i: number) => {
    const [loadMg, shownMg] = [massIn(typed.points[i]?.load ?? ''), massIn(typed.points[i]?.shown ?? '')];
    return loadMg === undefined || shownMg === undefined
      ? undefined
      : judgeScale(scale, [{ loadMg, shownMg }]).points[0];
  };
  // a form inside the page's form: it sends by its own button
  const send = form.handleSubmit(({ points: said }) =>
    checking.send(
      { body: { scale: scale.id, points: said.map(({ load, shown }) => ({ loadMg: load, shownMg: shown })) } },
      form.clear,
    ),
  );
  return (
    <fieldset aria-label={`Check ${scale.name}`} className="mt-2 grid gap-2 border-0 p-0">
      <StillHere draft={kept} />
      <p className="text-[15px] text-ink-soft">
        Weights whose mass is known: one of what you mostly weigh, one near the most. A scale in use may be out by twice
        what a new one may (OIML R 76).
      </p>
      <ul className="grid gap-2">
        {points.fields.map((row, i) => {
          const point = judged(i);
          return (
            <li key={row.row} className="flex flex-wrap items-start gap-2">
              <Field
                label="Test weight"
                dense
                className="w-32"
                error={formState.errors.points?.[i]?.load?.message}
                {...register(`points.${i}.load`)}
              />
              <Field
                label="It showed"
                dense
                className="w-32"
                error={formState.errors.points?.[i]?.shown?.message}
                {...register(`points.${i}.shown`)}
              />
              <Button
                className="mt-[22px] h-10"
                disabled={lies === undefined}
                onClick={() =>
                  setValue(`points.${i}.shown`, `${massTyped(lies ?? 0)} ${unitName('g')}`, { shouldValidate: true })
                }
              >
                From the scale
              </Button>
              {point !== undefined && (
                <p
                  className={`mt-[30px] min-w-48 flex-1 text-[15px] ${point.verdict === 'outside' ? 'font-semibold text-alarm' : point.verdict === 'within' ? 'text-calm' : ''}`}
                >
                  {pointWords(point)}
                </p>
              )}
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button className="h-11" onClick={() => points.append({ load: '', shown: '' })}>
          Another weight
        </Button>
        <Button variant="strong" className="h-11" disabled={checking.pending} onClick={() => void send()}>
          Keep this check
        </Button>
      </div>
      {checking.error !== null && <Notice tone="alarm">{checking.error.message}</Notice>}
      {checks.length > 0 && (
        <ul aria-label={`Checks of ${scale.name}`} className="grid gap-0.5 text-[14px] text-ink-soft">
          {checks.map((check) => (
            <li key={check.id}>
              {dayAndTime(check.at)}: {lastCheckWords(check)}{' '}
              {check.points.map((p) => `${formatMass(p.loadMg)} showed ${formatMass(p.shownMg)}`).join(', ')}
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}
