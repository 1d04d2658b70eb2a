import type { PlanStage, PlanStep } from '@zabrik/core';
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
