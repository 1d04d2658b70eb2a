import type { PlanStage, PlanStep } from '@zabrik/core';
import { NumField } from '../../../kit/NumField.tsx';
import { MinutesFields, SizeFields } from '../../../parts/MinutesFields.tsx';
import { PhotoField } from '../../../parts/PhotoField.tsx';
import { withField } from '../../../parts/rows.ts';
import { Chips, TextBox, toggled } from './editorParts.tsx';
import { warned, withText } from './planDraft.ts';

const TEXTS = [
  ['how', 'How'],
  ['why', 'Why it matters'],
  ['caution', 'Caution'],
  ['check', 'Look for'],
] as const;

interface Props {
  readonly step: PlanStep;
  readonly stage: PlanStage;
  readonly onChange: (step: PlanStep) => void;
}

/** One step of a stage: what is done and why, what is warned of, and which pieces come off. */
export function StepFields({ step, stage, onChange }: Props) {
  const pieceName = (id: string): string => stage.pieces.find((p) => p.id === id)?.name ?? id;
  return (
    <div className="grid grid-cols-2 gap-2">
      <TextBox label="Step" maxLength={200} value={step.title} onValue={(title) => onChange({ ...step, title })} />
      {TEXTS.map(([key, label]) => (
        <TextBox
          key={key}
          label={label}
          value={step[key] ?? ''}
          onValue={(text) => onChange(withText(step, key, text))}
        />
      ))}
      <TextBox
        label="Warning when it is left for later"
        maxLength={200}
        value={step.guard?.warn ?? ''}
        onValue={(warn) => onChange(warned(stage, step, warn))}
      />
      <div className="col-span-2 flex flex-wrap items-end gap-2 [&>*]:w-28">
        <MinutesFields minutes={step.minutes} onMinutes={(minutes) => onChange(withField(step, 'minutes', minutes))} />
        <NumField
          label="passes"
          value={step.passes ?? null}
          min={1}
          max={9}
          decimals={0}
          onNone={() => onChange(withField(step, 'passes', undefined))}
          onValue={(passes) => onChange(withField(step, 'passes', passes))}
        />
      </div>
      <div className="col-span-2">
        <SizeFields
          bySize={step.bySize}
          minutes={step.minutes}
          onSizes={(bySize) => onChange(withField(step, 'bySize', bySize))}
        />
      </div>
      <div className="col-span-2 flex flex-wrap items-end gap-2">
        <TextBox
          label="Measured: what"
          className="w-60"
          maxLength={60}
          value={step.measure?.what ?? ''}
          onValue={(what) =>
            onChange(
              withField(
                step,
                'measure',
                what === '' ? undefined : { low: 1, high: 1, unit: 'cm', ...step.measure, what },
              ),
            )
          }
        />
        {step.measure !== undefined && (
          <>
            {(['low', 'high'] as const).map((end) => (
              <NumField
                key={end}
                label={end === 'low' ? 'from' : 'to'}
                className="w-24"
                value={step.measure?.[end] ?? null}
                onValue={(value) =>
                  step.measure && onChange(withField(step, 'measure', { ...step.measure, [end]: value }))
                }
              />
            ))}
            <TextBox
              label="in"
              className="w-20"
              maxLength={12}
              value={step.measure.unit}
              onValue={(unit) =>
                step.measure && onChange(withField(step, 'measure', { ...step.measure, unit: unit || 'cm' }))
              }
            />
          </>
        )}
        <PhotoField photo={step.photo} of={step.title} onPhoto={(photo) => onChange(withField(step, 'photo', photo))} />
      </div>
      <div className="col-span-2">
        <Chips
          legend="Comes off in this step"
          all={stage.pieces.map((p) => p.id)}
          chosen={step.pieces}
          nameOf={pieceName}
          onToggle={(id) => onChange({ ...step, pieces: toggled(step.pieces, id) })}
        />
      </div>
    </div>
  );
}
