import type { Ask, House } from '@zabrik/contract';
import {
  formatMass,
  inGrams,
  type KeptAs,
  keptAsNames,
  type Recipe,
  readDecimal,
  startsClock,
  waysKept,
} from '@zabrik/core';
import { useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import { useConnected, useScale } from '../../app/live.ts';
import { keep } from '../../app/outbox.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Field } from '../../kit/Field.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { amountOf, readMass } from './offers.ts';
import { useHouseLimits } from './potQueries.ts';
import type { AtStove } from './useStove.ts';

const none = (text: string): number | undefined => (text.trim() === '' ? 0 : readMass(text));

/** A litre typed for what is measured by the litre is a kilogram. */
const readOut = (text: string, litres: boolean): number | undefined => {
  const match = litres ? /^\s*([\d.,]+)\s*(l|litres?)?\s*$/i.exec(text) : null;
  if (match !== null) {
    const number = readDecimal(match[1] ?? '');
    // a bare number over 100 was meant in grams, as the scale shows it
    if (Number.isFinite(number) && (match[2] !== undefined || number < 100)) return Math.round(number * 1e6);
  }
  return readMass(text);
};

interface Typed {
  readonly output: string;
  readonly spent: string;
  readonly wash: boolean;
  readonly fat: string;
  readonly labour: string;
  readonly beside: Readonly<Record<string, { readonly text: string; readonly kept: boolean }>>;
  readonly as: KeptAs | null;
}
const nothingTyped: Typed = { output: '', spent: '', wash: false, fat: '', labour: '', beside: {}, as: null };

/** What came out: weighed, or measured by the litre; bones out or to a second wash, fat kept, hands-on time. */
export function FinishBatch({ stove, house }: { readonly stove: AtStove; readonly house: House | undefined }) {
  const { batch } = stove;
  const scale = useScale();
  const connected = useConnected();
  const draft = useDraft<Typed>(`finish/${batch.id}`, nothingTyped);
  const { output, spent, wash, fat, labour, beside, as } = draft.value;
  const limits = useHouseLimits();
  const litres = batch.recipe.output.measure === 'litres';
  const outputMg = output.trim() === '' ? undefined : readOut(output, litres);
  const spentMg = spent.trim() === '' ? null : readMass(spent);
  const byProducts = (batch.recipe.byProducts ?? []).map((p) => {
    const typed = beside[p.id] ?? { text: '', kept: p.usuallyWaste !== true };
    return { ...p, ...typed, massMg: none(typed.text) };
  });
  const ways = waysKept(batch.recipe as Recipe, limits.data?.profileId ?? '');
  const keptHow = as ?? ways[0]?.as;
  const fatMg = none(fat);
  const minutes = labour.trim() === '' ? null : Number(labour);
  const finish = (body: Ask<typeof api.pots.finish>['body']): void => {
    void keep(
      api.pots.finish,
      { params: { batchId: batch.id }, body },
      { says: `What came out, ${amountOf(batch.recipe, body.outputMg)},` },
    );
    draft.clear();
  };
  const bones = ['stock', 'pan-sauce'].includes(batch.kind);
  const usual = `eight times in ten ${amountOf(batch.recipe, batch.expectedMg.low)} to ${amountOf(batch.recipe, batch.expectedMg.high)}`;
  const fine =
    outputMg !== undefined &&
    outputMg > 0 &&
    spentMg !== undefined &&
    (!wash || spentMg !== null) &&
    byProducts.every((p) => p.massMg !== undefined) &&
    fatMg !== undefined &&
    (minutes === null || (Number.isFinite(minutes) && minutes >= 0));
  return (
    <form
      className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5"
      aria-label="Finish"
      onSubmit={(event) => {
        event.preventDefault();
        if (fine)
          finish({
            outputMg,
            spentMg,
            spentTo: wash ? 'wash' : 'waste',
            fatMg,
            beside: byProducts.flatMap(({ id, massMg, kept }) =>
              massMg === undefined || massMg === 0 ? [] : [{ id, massMg, kept }],
            ),
            keptAs: keptHow ?? null,
            labourMinutes: minutes,
            at: new Date().toISOString(),
            note: null,
          });
      }}
    >
      <h3 className="mb-2 text-[15px] font-bold">What came out</h3>
      <StillHere draft={draft} className="mb-2" />
      <div className="grid grid-cols-2 gap-3">
        <Field
          label={litres ? 'Strained' : 'Came out'}
          unit={litres ? 'l' : 'g'}
          inputMode="decimal"
          value={output}
          onChange={(event) => draft.put({ output: event.target.value })}
          error={output !== '' && outputMg === undefined ? 'Such as 6.3 l, 6300 or 6.3 kg' : undefined}
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
            value={spent}
            onChange={(event) => draft.put({ spent: event.target.value })}
            error={
              spentMg === undefined ? 'A weight' : wash && spentMg === null ? 'Weigh what is washed again' : undefined
            }
            hint="Empty: counted as they went in"
          />
        ) : (
          <span />
        )}
        {(bones || batch.kind === 'preserve') && (
          <Field
            label="Fat kept"
            unit="g"
            inputMode="decimal"
            value={fat}
            onChange={(event) => draft.put({ fat: event.target.value })}
            error={fatMg === undefined ? 'A weight' : undefined}
          />
        )}
        {byProducts.map((p) => (
          <div key={p.id}>
            <Field
              label={p.name.charAt(0).toUpperCase() + p.name.slice(1)}
              unit="g"
              inputMode="decimal"
              value={p.text}
              onChange={(event) =>
                draft.put({ beside: { ...beside, [p.id]: { text: event.target.value, kept: p.kept } } })
              }
              error={p.massMg === undefined ? 'A weight' : undefined}
              hint={p.kept ? 'Kept: a lot of its own' : 'Thrown away'}
            />
            <button
              type="button"
              className="min-h-11 text-[15px] underline"
              onClick={() => draft.put({ beside: { ...beside, [p.id]: { text: p.text, kept: !p.kept } } })}
            >
              {p.kept ? 'Throw it away instead' : 'Keep it instead'}
            </button>
          </div>
        ))}
        {house?.labourMinorPerHour != null && (
          <Field
            label="Hands-on time"
            unit="min"
            inputMode="numeric"
            value={labour}
            onChange={(event) => draft.put({ labour: event.target.value })}
            hint="Empty: not counted"
          />
        )}
      </div>
      {bones && (
        <Check
          label="Bones go to a second wash"
          labelClass="mt-2 min-h-11"
          checked={wash}
          onChange={() => draft.put({ wash: !wash })}
        />
      )}
      {ways.length > 0 && (
        <div className="mt-2">
          <Choice
            legend="How it is kept"
            options={ways.map((k) => ({
              value: k.as,
              name: `${keptAsNames[k.as]}, ${k.days < 1 ? 'today' : `${k.days} ${k.days === 1 ? 'day' : 'days'}`}`,
            }))}
            value={keptHow}
            onValue={(as) => draft.put({ as })}
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
          onClick={() => draft.put({ output: `${inGrams(scale.netMg)} g` })}
        >
          From the scale
        </Button>
        <Button look="strong" size="bench" type="submit" className="flex-1" disabled={!fine || stove.finishing}>
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
          <span className="figure">{(outputMg / batch.baseMg).toFixed(2)}</span> {litres ? 'l' : 'kg'} a kilo.
        </p>
      )}
    </form>
  );
}
