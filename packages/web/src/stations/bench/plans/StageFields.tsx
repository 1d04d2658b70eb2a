import { type CutPlan, formatShare, type PlanStage } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { changed, moved, without } from '../../../parts/rows.ts';
import { NumberBox, Order, PerCent, TextBox } from './editorParts.tsx';
import { type Categories, PieceFields } from './PieceFields.tsx';
import { newPiece, newStep, sharesMadeWhole, stageChanged, sumOfShares, withoutPiece } from './planDraft.ts';
import { StepFields } from './StepFields.tsx';

interface Props {
  readonly draft: CutPlan;
  readonly index: number;
  readonly stage: PlanStage;
  readonly categories: Categories;
  readonly onChange: (plan: CutPlan) => void;
}

/** Names for things that have none of their own, moved along with them: what is typed stays with its step. */
function useRowKeys(count: number) {
  const [keys, setKeys] = useState(() => Array.from({ length: count }, (_, i) => i));
  const all = [...keys];
  while (all.length < count) all.push(Math.max(-1, ...all) + 1);
  return { keys: all.slice(0, count), setKeys };
}

/** One stage of a plan: its time and drip, its steps in order, its pieces with shares that add up. */
export function StageFields({ draft, index, stage, categories, onChange }: Props) {
  const change = (part: Partial<PlanStage>): void => onChange(stageChanged(draft, index, part));
  const rows = useRowKeys(stage.steps.length);
  const sum = sumOfShares(draft, stage);
  const whole = Math.abs(sum - 1) <= 0.0015;
  return (
    <section aria-label={`Stage ${index + 1}`} className="mb-8 rounded-plate border-[1.5px] border-ink bg-white p-4">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <TextBox
          label={`Stage ${index + 1}`}
          className="min-w-56 flex-1"
          maxLength={120}
          value={stage.name}
          onValue={(name) => change({ name })}
        />
        {(['low', 'typical', 'high'] as const).map((key) => (
          <NumberBox
            key={key}
            label={`minutes, ${key}`}
            className="w-28"
            min={0.1}
            step="any"
            value={stage.minutes[key]}
            onValue={(minutes) => change({ minutes: { ...stage.minutes, [key]: Math.max(0.1, minutes) } })}
          />
        ))}
        <PerCent
          label="drip, %"
          value={stage.drip.mean}
          onValue={(mean) => change({ drip: { ...stage.drip, mean } })}
        />
        {draft.stages.length > 1 && (
          <Button onClick={() => onChange({ ...draft, stages: without(draft.stages, index) })}>Stage away</Button>
        )}
      </div>
      <h3 className="mb-1 font-bold">Steps, in their order</h3>
      <ol className="grid gap-2">
        {stage.steps.map((step, t) => (
          <li key={rows.keys[t]} className="grid grid-cols-[28px_1fr_auto] items-start gap-3 border-t border-line pt-2">
            <span className="figure pt-6">{t + 1}</span>
            <StepFields
              step={step}
              stage={stage}
              onChange={(next) => change({ steps: changed(stage.steps, t, next) })}
            />
            <Order
              index={t}
              count={stage.steps.length}
              name={`Step ${t + 1}`}
              onMove={(by) => {
                rows.setKeys(moved(rows.keys, t, by));
                change({ steps: moved(stage.steps, t, by) });
              }}
              onRemove={() => {
                rows.setKeys(without(rows.keys, t));
                change({ steps: without(stage.steps, t) });
              }}
            />
          </li>
        ))}
      </ol>
      <Button className="mt-2" onClick={() => change({ steps: [...stage.steps, newStep()] })}>
        Another step
      </Button>
      <h3 className="mt-5 mb-1 flex items-center gap-4 font-bold">
        Pieces
        <span
          className={`text-[15px] font-normal ${whole ? 'text-ink-soft' : 'font-semibold text-alarm'}`}
          data-testid={`sum-${index}`}
        >
          with the drip {formatShare(sum)}
        </span>
        {!whole && <Button onClick={() => change(sharesMadeWhole(draft, stage))}>Share out to 100 %</Button>}
      </h3>
      <ol className="grid gap-3">
        {stage.pieces.map((piece, p) => (
          <li key={piece.id} className="grid grid-cols-[1fr_auto] items-start gap-3 border-t border-line pt-2">
            <PieceFields
              piece={piece}
              later={draft.stages.slice(index + 1)}
              categories={categories}
              onChange={(next) => change({ pieces: changed(stage.pieces, p, next) })}
            />
            <Order
              index={p}
              count={stage.pieces.length}
              name={piece.name}
              onMove={(by) => change({ pieces: moved(stage.pieces, p, by) })}
              onRemove={() => change(withoutPiece(stage, piece.id))}
            />
          </li>
        ))}
      </ol>
      <Button
        className="mt-2"
        onClick={() => change({ pieces: [...stage.pieces, newPiece(stage.pieces.map((p) => p.id))] })}
      >
        Another piece
      </Button>
    </section>
  );
}
