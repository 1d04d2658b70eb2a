import { cookedAs, formatDegrees, type RecipeStep, stepKinds } from '@zabrik/core';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { MinutesFields, SizeFields } from '../../../parts/MinutesFields.tsx';
import { PhotoField } from '../../../parts/PhotoField.tsx';
import { withField } from '../../../parts/rows.ts';
import { useRows } from '../../../parts/useRows.ts';
import type { Edit } from './edit.ts';
import { Section } from './Section.tsx';

const icon = 'grid size-11 place-items-center disabled:opacity-30';

function StepMore({
  step,
  no,
  ways,
  onStep,
}: {
  readonly step: RecipeStep;
  readonly no: number;
  readonly ways: readonly { readonly id: string; readonly name: string }[];
  readonly onStep: (next: RecipeStep) => void;
}) {
  const heat = (field: 'low' | 'high', value: number): void =>
    onStep({ ...step, tempC: { low: value, high: value, ...step.tempC, [field]: value } });
  return (
    <div className="col-span-full grid grid-cols-[repeat(5,104px)_1fr] items-end gap-2 max-md:grid-cols-2 md:pl-8">
      <MinutesFields minutes={step.minutes} onMinutes={(next) => onStep(withField(step, 'minutes', next))} />
      {(['low', 'high'] as const).map((f) => (
        <NumField
          key={f}
          label={f === 'low' ? 'probe, from' : 'to'}
          unit="°C"
          value={step.tempC?.[f] ?? null}
          min={-40}
          max={400}
          onNone={() => onStep(withField(step, 'tempC', undefined))}
          onValue={(value) => heat(f, value)}
        />
      ))}
      <Field
        label={`Look for, step ${no}`}
        maxLength={200}
        value={step.watch ?? ''}
        onChange={(event) =>
          onStep(withField(step, 'watch', event.target.value === '' ? undefined : event.target.value))
        }
      />
      <div className="col-span-full flex flex-wrap items-end gap-x-6 gap-y-2">
        <SizeFields
          bySize={step.bySize}
          minutes={step.minutes}
          onSizes={(bySize) => onStep(withField(step, 'bySize', bySize))}
        />
        <PhotoField photo={step.photo} of={`step ${no}`} onPhoto={(photo) => onStep(withField(step, 'photo', photo))} />
      </div>
      {ways.length > 0 && (
        <div className="col-span-full flex flex-wrap items-center gap-x-4 text-[14px]">
          <span className="text-ink-soft">only for</span>
          {ways.map((w) => (
            <Check
              key={w.id}
              label={w.name === '' ? w.id : w.name}
              checked={step.ways?.includes(w.id) === true}
              onChange={() => {
                const { ways: now = [], ...rest } = step;
                const next = now.includes(w.id) ? now.filter((x) => x !== w.id) : [...now, w.id];
                onStep(next.length === 0 ? rest : { ...rest, ways: next });
              }}
            />
          ))}
        </div>
      )}
    </div>
  );
}

/** The steps in their order, each with its time, its heat, what to look for, and for which way it is. */
export function StepFields({ recipe, put, drop }: Edit) {
  const { steps } = recipe;
  const list = useRows<RecipeStep>(steps, (next) => put({ steps: next }));
  const [open, setOpen] = useState<string>();
  const { change: to, move } = list;
  const ways = recipe.questions.flatMap((q) => q.ways);
  return (
    <Section name="Steps">
      <ol className="grid gap-2">
        {list.rows.map(({ row: step, i, id }) => {
          return (
            <li
              key={id}
              className="grid grid-cols-[24px_110px_1fr_auto] items-center gap-2 max-md:grid-cols-[24px_1fr]"
            >
              <span className="figure text-ink-soft">{i + 1}</span>
              <Select
                aria-label={`Kind of step ${i + 1}`}
                value={step.kind}
                onValue={(value) => to(i, { ...step, kind: value })}
                options={stepKinds.map((k) => ({ value: k, name: k }))}
              />
              <Field
                aria-label={`Step ${i + 1}`}
                maxLength={400}
                value={step.text}
                onChange={(event) => to(i, { ...step, text: event.target.value })}
              />
              <span className="flex items-center">
                <Button
                  aria-expanded={open === id}
                  aria-label={`Time and heat of step ${i + 1}`}
                  onClick={() => setOpen(open === id ? undefined : id)}
                >
                  {step.minutes === undefined ? 'time, heat' : `${step.minutes.typical} min`}
                  {step.tempC !== undefined && `, ${formatDegrees(step.tempC.high)}`}
                </Button>
                <button
                  type="button"
                  aria-label={`Step ${i + 1} up`}
                  className={icon}
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                >
                  <ArrowUp size={18} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={`Step ${i + 1} down`}
                  className={icon}
                  disabled={i === steps.length - 1}
                  onClick={() => move(i, 1)}
                >
                  <ArrowDown size={18} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={`Without step ${i + 1}`}
                  className={`${icon} text-alarm`}
                  disabled={steps.length === 1}
                  onClick={() => list.leaveOut(i)}
                >
                  <Trash2 size={18} aria-hidden="true" />
                </button>
              </span>
              {open === id && <StepMore step={step} no={i + 1} ways={ways} onStep={(next) => to(i, next)} />}
            </li>
          );
        })}
        <li>
          <Button disabled={steps.length >= 30} onClick={() => list.add({ kind: 'cook', text: '' })}>
            One more step
          </Button>
        </li>
      </ol>
      <div className="grid gap-3 md:grid-cols-2">
        <Select
          label="Cooked through in"
          value={String(steps.findIndex((s) => s.kills === true))}
          onValue={(value) => {
            const at = Number(value);
            put({
              steps: steps.map((s, i) => {
                const { kills: _, ...step } = s;
                return i === at ? { ...step, kills: true as const } : step;
              }),
            });
          }}
          options={[
            { value: '-1', name: 'no step: it keeps no longer than what goes in' },
            ...steps.map((s, i) => ({ value: String(i), name: `${i + 1}: ${s.text.slice(0, 60)}` })),
          ]}
        />
        <Select
          label="Its core is judged as"
          value={recipe.cooksAs ?? ''}
          onValue={(value) => {
            const as = cookedAs.find((c) => c === value);
            if (as === undefined) drop('cooksAs');
            else put({ cooksAs: as });
          }}
          none="asked at the stove"
          options={cookedAs.map((c) => ({
            value: c,
            name:
              c === 'whole'
                ? 'whole pieces'
                : c === 'minced'
                  ? 'minced, pierced or injected'
                  : 'stuffed, or a stuffing',
          }))}
        />
      </div>
    </Section>
  );
}
