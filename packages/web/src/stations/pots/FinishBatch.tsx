import type { Ask, House } from '@zabrik/contract';
import {
  formatCount,
  formatLitres,
  formatMass,
  inKilograms,
  type KeptAs,
  keptAsNames,
  massTyped,
  type Recipe,
  readDecimal,
  startsClock,
  unitName,
  waysKept,
} from '@zabrik/core';
import { z } from 'zod';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useConnected, useScale } from '../../app/live.ts';
import { dismiss, keep } from '../../app/outbox.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Field } from '../../kit/Field.tsx';
import { litresIn } from '../../kit/litresIn.ts';
import { Notice } from '../../kit/Notice.tsx';
import { massIn } from '../../kit/readers.ts';
import { StillHere } from '../../parts/StillHere.tsx';
import { amountOf } from './offers.ts';
import { useHouseLimits } from './potQueries.ts';
import type { AtStove } from './useStove.ts';

/** A litre typed for what is measured by the litre is a kilogram. */
const readOut = (text: string, litres: boolean): number | undefined => {
  const read = litres ? litresIn(text) : undefined;
  // a bare number over 100 was meant in grams, as the scale shows it
  const asShown = /^[\s\d.,]+$/.test(text) && readDecimal(text) >= 100;
  return read === undefined || asShown ? massIn(text) : Math.round(read * 1e6);
};

/** A weight, or nothing typed. */
const mass = <E,>(empty: E) =>
  z
    .string()
    .refine((text) => text.trim() === '' || massIn(text) !== undefined, 'A weight')
    .transform((text): number | E => (text.trim() === '' ? empty : (massIn(text) ?? empty)));

const finishForm = (litres: boolean) =>
  z
    .object({
      output: z
        .string()
        .refine(
          (text) => (readOut(text, litres) ?? 0) > 0,
          litres ? `Such as ${formatLitres(6.3)}, or a weight` : 'A weight',
        )
        .transform((text) => readOut(text, litres) ?? 0),
      spent: mass(null),
      wash: z.boolean(),
      fat: mass(0),
      labour: z
        .string()
        .refine((text) => text.trim() === '' || readDecimal(text) >= 0, 'Minutes, or nothing')
        .transform((text) => (text.trim() === '' ? null : readDecimal(text))),
      beside: z.record(z.string(), z.object({ text: mass(0), kept: z.boolean() })),
      as: z.custom<KeptAs>().nullable(),
    })
    .refine(({ wash, spent }) => !wash || spent !== null, { path: ['spent'], message: 'Weigh what is washed again' });
type Typed = z.input<ReturnType<typeof finishForm>>;

/** What came out: weighed, or measured by the litre; bones out or to a second wash, fat kept, hands-on time. */
export function FinishBatch({ stove, house }: { readonly stove: AtStove; readonly house: House | undefined }) {
  const { batch } = stove;
  const scale = useScale();
  const connected = useConnected();
  const limits = useHouseLimits();
  const litres = batch.recipe.output.measure === 'litres';
  const byProducts = batch.recipe.byProducts ?? [];
  const form = useKeptForm<Typed, z.output<ReturnType<typeof finishForm>>>(`finish/${batch.id}`, finishForm(litres), {
    output: '',
    spent: '',
    wash: false,
    fat: '',
    labour: '',
    beside: Object.fromEntries(byProducts.map((p) => [p.id, { text: '', kept: p.usuallyWaste !== true }])),
    as: null,
  });
  const { register, setValue, handleSubmit, kept } = form;
  const { errors } = form.formState;
  const { output, wash, beside, as } = form.typed;
  const outputMg = output.trim() === '' ? undefined : readOut(output, litres);
  const ways = waysKept(batch.recipe as Recipe, limits.data?.profileId ?? '');
  const keptHow = as ?? ways[0]?.as;
  const finish = (body: Ask<typeof api.pots.finish>['body']): void => {
    void keep(
      api.pots.finish,
      { params: { batchId: batch.id }, body },
      { says: `What came out, ${amountOf(batch.recipe, body.outputMg)},` },
    );
    form.clear();
  };
  // what was not taken comes back into its fields, to be put right where it was typed
  const refused = stove.refused.find((w) => w.endpoint === api.pots.finish.id);
  const putRight = (): void => {
    if (refused === undefined) return;
    const said = refused.body as Ask<typeof api.pots.finish>['body'];
    const weighed = (mg: number | null | undefined): string => ((mg ?? 0) === 0 ? '' : massTyped(mg ?? 0));
    setValue('output', litres ? `${inKilograms(said.outputMg)} l` : weighed(said.outputMg));
    setValue('spent', weighed(said.spentMg));
    setValue('wash', said.spentTo === 'wash');
    setValue('fat', weighed(said.fatMg));
    setValue('labour', said.labourMinutes == null ? '' : String(said.labourMinutes));
    setValue('as', said.keptAs ?? null);
    for (const { id, massMg, kept: isKept } of said.beside ?? [])
      setValue(`beside.${id}`, { text: weighed(massMg), kept: isKept });
    void dismiss(refused.key);
  };
  const bones = ['stock', 'pan-sauce'].includes(batch.kind);
  const usual = `eight times in ten ${amountOf(batch.recipe, batch.expectedMg.low)} to ${amountOf(batch.recipe, batch.expectedMg.high)}`;
  return (
    <form
      className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5"
      aria-label="Finish"
      onSubmit={(event) =>
        void handleSubmit((read) =>
          finish({
            outputMg: read.output,
            spentMg: read.spent,
            spentTo: read.wash ? 'wash' : 'waste',
            fatMg: read.fat,
            beside: Object.entries(read.beside).flatMap(([id, { text: massMg, kept }]) =>
              massMg === 0 ? [] : [{ id, massMg, kept }],
            ),
            keptAs: read.as ?? keptHow ?? null,
            labourMinutes: read.labour,
            at: new Date().toISOString(),
            note: null,
          }),
        )(event)
      }
    >
      <h3 className="mb-2 text-[15px] font-bold">What came out</h3>
      {refused !== undefined && (
        <div className="mb-2">
          <Notice tone="alarm">
            <strong>{refused.says}</strong> was refused by the server: {refused.refused}
            <span className="mt-2 block">
              <Button variant="plain" onClick={putRight}>
                Put it right
              </Button>
            </span>
          </Notice>
        </div>
      )}
      <StillHere draft={kept} className="mb-2" />
      <div className="grid grid-cols-2 gap-3">
        <Field
          label={litres ? 'Strained' : 'Came out'}
          unit={litres ? 'l' : 'g'}
          inputMode="decimal"
          {...register('output')}
          error={errors.output?.message}
          hint={
            outputMg !== undefined && outputMg > 0 && outputMg < batch.expectedMg.low
              ? `Less than usual: ${usual}`
              : outputMg !== undefined && outputMg > batch.expectedMg.high
                ? `More than usual: ${usual}`
                : usual
          }
        />
        {bones ? (
          <Field
            label={wash ? 'Bones to a second wash' : 'Bones thrown away'}
            unit="g"
            inputMode="decimal"
            {...register('spent')}
            error={errors.spent?.message}
            hint="Empty: counted as they went in"
          />
        ) : (
          <span />
        )}
        {(bones || batch.kind === 'preserve') && (
          <Field label="Fat kept" unit="g" inputMode="decimal" {...register('fat')} error={errors.fat?.message} />
        )}
        {byProducts.map((p) => {
          const isKept = beside[p.id]?.kept ?? p.usuallyWaste !== true;
          return (
            <div key={p.id}>
              <Field
                label={p.name.charAt(0).toUpperCase() + p.name.slice(1)}
                unit="g"
                inputMode="decimal"
                {...register(`beside.${p.id}.text`)}
                error={errors.beside?.[p.id]?.text?.message}
                hint={isKept ? 'Kept: a lot of its own' : 'Thrown away'}
              />
              <button
                type="button"
                className="min-h-11 text-[15px] underline"
                onClick={() => setValue(`beside.${p.id}.kept`, !isKept)}
              >
                {isKept ? 'Throw it away instead' : 'Keep it instead'}
              </button>
            </div>
          );
        })}
        {house?.labourMinorPerHour != null && (
          <Field
            label="Hands-on time"
            unit="min"
            inputMode="numeric"
            {...register('labour')}
            error={errors.labour?.message}
            hint="Empty: not counted"
          />
        )}
      </div>
      {bones && <Check label="Bones go to a second wash" labelClass="mt-2 min-h-11" {...register('wash')} />}
      {ways.length > 0 && (
        <div className="mt-2">
          <Choice
            legend="How it is kept"
            options={ways.map((k) => ({
              value: k.as,
              name: `${keptAsNames[k.as]}, ${k.days < 1 ? 'today' : `${k.days} ${k.days === 1 ? 'day' : 'days'}`}`,
            }))}
            value={keptHow}
            onValue={(chosen) => setValue('as', chosen)}
          />
          {batch.recipe.ready && !startsClock(batch.recipe as Recipe) && (
            <p className="mt-1 text-[14px] text-ink-soft">
              Nothing here is cooked through: it keeps no longer than what went in.
            </p>
          )}
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          className="h-14"
          disabled={scale.state !== 'steady' || scale.netMg <= 0}
          onClick={() => setValue('output', `${massTyped(scale.netMg)} ${unitName('g')}`, { shouldValidate: true })}
        >
          From the scale
        </Button>
        <Button variant="strong" size="bench" type="submit" className="flex-1" disabled={stove.finishing}>
          Batch done
        </Button>
      </div>
      {stove.finishing && !connected && (
        <p className="mt-2" role="status">
          Kept here. The batch is done once the server has it.
        </p>
      )}
      {outputMg !== undefined && outputMg > 0 && (
        <p className="mt-2 text-[14px] text-ink-soft">
          {formatMass(outputMg)} from {formatMass(batch.baseMg)} {batch.recipe.baseName}:{' '}
          <span className="figure">{formatCount(outputMg / batch.baseMg, 2)}</span> {litres ? 'l' : 'kg'} a kilo.
        </p>
      )}
    </form>
  );
}
