import { bodies, type CutPlan, type Species } from '@zabrik/core';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Notice } from '../../../kit/Notice.tsx';
import { Select } from '../../../kit/Select.tsx';
import type { Categories } from './PieceFields.tsx';
import { newStage } from './planDraft.ts';
import { StageFields } from './StageFields.tsx';
import { StartsFields } from './StartsFields.tsx';

interface Props {
  readonly draft: CutPlan;
  readonly onChange: (plan: CutPlan) => void;
  readonly species: readonly Species[];
  readonly categories: Categories;
  readonly saving: boolean;
  readonly refusal: string | undefined;
  readonly faults: readonly { readonly path: string; readonly message: string }[];
  readonly onSave: () => void;
  readonly onLeave: () => void;
}

const DRAWINGS = bodies.map((b) => [b, b.replaceAll('-', ' ')] as const);
const SKILLS = [
  ['1', 'learner'],
  ['2', 'trained'],
  ['3', 'practised'],
] as const;
const skillOf = { '1': 1, '2': 2, '3': 3 } as const;

/** A plan being changed: everything in the order it is worked, nothing saved until asked. */
export function PlanEditor({ draft, onChange, species, categories, saving, refusal, faults, onSave, onLeave }: Props) {
  return (
    <form
      noValidate
      className="flex-1 bg-sheet p-5 pb-24"
      aria-label={`Change ${draft.title}`}
      onSubmit={(event) => {
        event.preventDefault();
        onSave();
      }}
    >
      <h1 className="sr-only">Change {draft.title}</h1>
      <div className="mb-5 grid items-end gap-4 md:grid-cols-[1fr_220px_140px]">
        <Field
          label="Cut plan"
          value={draft.title}
          maxLength={120}
          onChange={(e) => onChange({ ...draft, title: e.target.value })}
        />
        <Select
          label="Drawing"
          options={DRAWINGS.map(([value, name]) => ({ value, name }))}
          value={draft.body}
          onValue={(body) => onChange({ ...draft, body })}
        />
        <Select
          label="Skill"
          options={SKILLS.map(([value, name]) => ({ value, name }))}
          value={SKILLS[draft.skill - 1]?.[0] ?? '2'}
          onValue={(skill) => onChange({ ...draft, skill: skillOf[skill] })}
        />
        <div className="md:col-span-3">
          <StartsFields draft={draft} species={species} onChange={onChange} />
        </div>
      </div>
      {draft.stages.map((stage, s) => (
        <StageFields key={stage.id} draft={draft} index={s} stage={stage} categories={categories} onChange={onChange} />
      ))}
      <Button
        onClick={() => onChange({ ...draft, stages: [...draft.stages, newStage(draft.stages.map((s) => s.id))] })}
      >
        Another stage
      </Button>
      <div className="fixed inset-x-0 bottom-0 z-10 grid gap-2 border-t border-ink bg-sheet px-5 py-3">
        {refusal !== undefined && (
          <Notice tone="alarm">
            {faults.length > 1 ? (
              <>
                Not saved, {faults.length} things to put right:
                <ul className="list-disc pl-5">
                  {faults.slice(0, 5).map((f) => (
                    <li key={`${f.path}/${f.message}`}>{f.message}</li>
                  ))}
                </ul>
              </>
            ) : (
              refusal
            )}
          </Notice>
        )}
        <div className="flex items-center gap-3">
          <p className="mr-auto text-[15px] text-ink-soft">
            Saved as a new version. Breakdowns already begun keep theirs.
          </p>
          <Button onClick={onLeave}>Leave it as it was</Button>
          <Button type="submit" variant="strong" disabled={saving}>
            Save the plan
          </Button>
        </div>
      </div>
    </form>
  );
}
