import type { Answer } from '@zabrik/contract';
import {
  bodies,
  type CutPlan,
  destinations,
  formatShare,
  type PlanPiece,
  type PlanStage,
  type PlanStep,
  type Species,
} from '@zabrik/core';
import type { ReactNode } from 'react';
import type { api } from '../../../app/endpoints.ts';
import { Button } from '../../../parts/Button.tsx';
import { trayName } from '../../../parts/destinations.ts';
import { Field, inputLook } from '../../../parts/Field.tsx';
import { Notice } from '../../../parts/Notice.tsx';
import {
  moved,
  newPiece,
  newStage,
  newStep,
  replaced,
  sharesMadeWhole,
  stageChanged,
  sumOfShares,
  without,
  withText,
} from './planDraft.ts';

type Categories = Answer<typeof api.house.catalogue>['categories'];

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

const small = `${inputLook} h-10 py-1`;

function Labelled({
  label,
  children,
  className = '',
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly className?: string;
}) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is what is put inside
    <label className={`block text-[13px] text-ink-soft ${className}`}>
      {label}
      <span className="mt-0.5 block text-[15px] text-ink">{children}</span>
    </label>
  );
}

/** A share typed as per cent. An empty field counts as nothing until something is typed. */
function PerCent({
  label,
  share,
  onShare,
}: {
  readonly label: string;
  readonly share: number;
  readonly onShare: (share: number) => void;
}) {
  return (
    <Labelled label={label} className="w-20">
      <input
        className={`${small} text-right`}
        type="number"
        min={0.01}
        max={99.9}
        step="any"
        value={Math.round(share * 10_000) / 100}
        onChange={(event) => onShare(Math.max(0.0001, Math.min(0.999, Number(event.target.value) / 100)))}
      />
    </Labelled>
  );
}

function Order({
  index,
  count,
  name,
  onMove,
  onRemove,
}: {
  readonly index: number;
  readonly count: number;
  readonly name: string;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}) {
  return (
    <span className="flex gap-1">
      <Button className="size-10 px-0" aria-label={`${name} up`} disabled={index === 0} onClick={() => onMove(-1)}>
        ↑
      </Button>
      <Button
        className="size-10 px-0"
        aria-label={`${name} down`}
        disabled={index === count - 1}
        onClick={() => onMove(1)}
      >
        ↓
      </Button>
      <Button className="size-10 px-0" aria-label={`${name} away`} disabled={count === 1} onClick={onRemove}>
        ×
      </Button>
    </span>
  );
}

function Chips<T extends string>({
  legend,
  all,
  chosen,
  nameOf,
  onToggle,
}: {
  readonly legend: string;
  readonly all: readonly T[];
  readonly chosen: readonly T[];
  readonly nameOf: (item: T) => string;
  readonly onToggle: (item: T) => void;
}) {
  return (
    <fieldset className="border-0 p-0">
      <legend className="text-[13px] text-ink-soft">{legend}</legend>
      <div className="mt-0.5 flex flex-wrap gap-1">
        {all.map((item) => {
          const on = chosen.includes(item);
          return (
            <button
              key={item}
              type="button"
              aria-pressed={on}
              onClick={() => onToggle(item)}
              className={`min-h-8 rounded-md border px-2 text-[13px] ${on ? 'border-ink bg-ink text-white' : 'border-line-strong bg-white'}`}
            >
              {nameOf(item)}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

const toggled = <T,>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];

function StepFields({
  step,
  stage,
  onChange,
}: {
  readonly step: PlanStep;
  readonly stage: PlanStage;
  readonly onChange: (step: PlanStep) => void;
}) {
  const text = (key: 'how' | 'why' | 'caution' | 'check', label: string) => (
    <Labelled label={label}>
      <input
        className={small}
        value={step[key] ?? ''}
        maxLength={500}
        onChange={(e) => onChange(withText(step, key, e.target.value))}
      />
    </Labelled>
  );
  const pieceName = (id: string): string => stage.pieces.find((p) => p.id === id)?.name ?? id;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Labelled label="Step">
        <input
          className={`${small} font-semibold`}
          value={step.title}
          maxLength={200}
          onChange={(e) => onChange({ ...step, title: e.target.value })}
        />
      </Labelled>
      {text('how', 'How')}
      {text('why', 'Why it matters')}
      {text('caution', 'Caution')}
      {text('check', 'Look for')}
      <Labelled label="Warning when it is left for later">
        <input
          className={small}
          maxLength={200}
          value={step.guard?.warn ?? ''}
          onChange={(e) => {
            const warn = e.target.value;
            const { guard, ...rest } = step;
            const later = stage.steps.slice(stage.steps.indexOf(step) + 1).flatMap((s) => s.pieces);
            onChange(
              warn.trim() === ''
                ? { ...rest, orderMatters: false }
                : {
                    ...rest,
                    orderMatters: true,
                    guard: {
                      warn,
                      before: guard?.before ?? [...new Set(later)].filter((id) => !step.pieces.includes(id)),
                    },
                  },
            );
          }}
        />
      </Labelled>
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

function PieceFields({
  piece,
  later,
  categories,
  onChange,
}: {
  readonly piece: PlanPiece;
  readonly later: readonly PlanStage[];
  readonly categories: Categories;
  readonly onChange: (piece: PlanPiece) => void;
}) {
  const refused = piece.refused.map((r) => r.destination);
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-end gap-2">
        <Labelled label="Piece" className="min-w-48 flex-1">
          <input
            className={`${small} font-semibold`}
            maxLength={120}
            value={piece.name}
            onChange={(e) => onChange({ ...piece, name: e.target.value })}
          />
        </Labelled>
        <Labelled label="how many" className="w-20">
          <input
            className={`${small} text-right`}
            type="number"
            min={1}
            max={1000}
            value={piece.count}
            onChange={(e) => {
              const { units: _named, ...rest } = piece;
              onChange({ ...rest, count: Math.max(1, Math.round(Number(e.target.value)) || 1) });
            }}
          />
        </Labelled>
        <PerCent
          label="share, %"
          share={piece.share.mean}
          onShare={(mean) =>
            onChange({ ...piece, share: { ...piece.share, mean, provenance: 'estimate', source: 'This house' } })
          }
        />
        <PerCent
          label="± sd, %"
          share={piece.share.sd}
          onShare={(sd) => onChange({ ...piece, share: { ...piece.share, sd: Math.min(0.49, sd) } })}
        />
        <Labelled label="goes to" className="w-32">
          <select
            className={small}
            value={piece.destination}
            onChange={(e) => {
              const destination = e.target.value as PlanPiece['destination'];
              onChange({
                ...piece,
                destination,
                alternatives: piece.alternatives.filter((a) => a !== destination),
                refused: piece.refused.filter((r) => r.destination !== destination),
              });
            }}
          >
            {destinations.map((d) => (
              <option key={d} value={d}>
                {trayName(d)}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="kind" className="w-56">
          <select
            className={small}
            value={piece.category}
            onChange={(e) => {
              const category = categories.find((c) => c.id === e.target.value);
              onChange({ ...piece, category: e.target.value, edible: category?.edible ?? piece.edible });
            }}
          >
            {categories.map((c) => (
              <option key={c.id} value={c.id}>
                {c.label}
              </option>
            ))}
          </select>
        </Labelled>
        {later.length > 0 && (
          <Labelled label="goes on to" className="w-36">
            <select
              className={small}
              value={piece.next ?? ''}
              onChange={(e) => onChange(withText(piece, 'next', e.target.value))}
            >
              <option value="">nothing</option>
              {later.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </Labelled>
        )}
      </div>
      <div className="flex flex-wrap items-start gap-5">
        <Chips
          legend="May also go to"
          all={destinations.filter((d) => d !== piece.destination && !refused.includes(d))}
          chosen={piece.alternatives}
          nameOf={(d) => trayName(d)}
          onToggle={(d) => onChange({ ...piece, alternatives: toggled(piece.alternatives, d) })}
        />
        <Chips
          legend="Must not go to"
          all={destinations.filter((d) => d !== piece.destination && !piece.alternatives.includes(d))}
          chosen={refused}
          nameOf={(d) => trayName(d)}
          onToggle={(d) =>
            onChange({
              ...piece,
              refused: refused.includes(d)
                ? piece.refused.filter((r) => r.destination !== d)
                : [...piece.refused, { destination: d, reason: 'This house does not' }],
            })
          }
        />
        <Chips
          legend="It is"
          all={['main cut', 'picked bit by bit'] as const}
          chosen={[
            ...(piece.main ? (['main cut'] as const) : []),
            ...(piece.accumulates === true ? (['picked bit by bit'] as const) : []),
          ]}
          nameOf={(x) => x}
          onToggle={(x) => {
            if (x === 'main cut') onChange({ ...piece, main: !piece.main });
            else if (piece.accumulates === true) {
              const { accumulates: _no, ...rest } = piece;
              onChange(rest);
            } else onChange({ ...piece, accumulates: true });
          }}
        />
      </div>
      {piece.refused.length > 0 && (
        <div className="grid grid-cols-2 gap-2">
          {piece.refused.map((r, i) => (
            <Labelled key={r.destination} label={`Why not to ${trayName(r.destination).toLowerCase()}`}>
              <input
                className={small}
                maxLength={200}
                value={r.reason}
                onChange={(e) =>
                  onChange({ ...piece, refused: replaced(piece.refused, i, { ...r, reason: e.target.value }) })
                }
              />
            </Labelled>
          ))}
        </div>
      )}
    </div>
  );
}

/** A plan being changed: everything in the order it is worked, nothing saved until asked. */
export function PlanEditor({ draft, onChange, species, categories, saving, refusal, faults, onSave, onLeave }: Props) {
  const change = (index: number, part: Partial<PlanStage>): void => onChange(stageChanged(draft, index, part));
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
      <div className="mb-5 grid grid-cols-[1fr_220px_140px] items-end gap-4">
        <Field
          label="Cut plan"
          value={draft.title}
          maxLength={120}
          onChange={(e) => onChange({ ...draft, title: e.target.value })}
        />
        <Labelled label="Drawing">
          <select
            className={`${inputLook} h-11`}
            value={draft.body}
            onChange={(e) => onChange({ ...draft, body: e.target.value as CutPlan['body'] })}
          >
            {bodies.map((b) => (
              <option key={b} value={b}>
                {b.replaceAll('-', ' ')}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="Skill">
          <select
            className={`${inputLook} h-11`}
            value={draft.skill}
            onChange={(e) => onChange({ ...draft, skill: Number(e.target.value) as CutPlan['skill'] })}
          >
            <option value={1}>learner</option>
            <option value={2}>trained</option>
            <option value={3}>practised</option>
          </select>
        </Labelled>
        <div className="col-span-3 grid gap-2">
          {draft.starts.map((start, i) => {
            const known = species.find((s) => s.id === start.species);
            return (
              <div key={start.species} className="grid grid-cols-[230px_1fr_auto] items-start gap-4">
                <Labelled label={i === 0 ? 'Shares are written for' : 'also for'} className="w-64">
                  <select
                    className={small}
                    value={start.species}
                    onChange={(e) => {
                      const next = species.find((s) => s.id === e.target.value);
                      const form = next?.forms.find((f) => f.purchase)?.id;
                      if (next !== undefined && form !== undefined)
                        onChange({ ...draft, starts: replaced(draft.starts, i, { species: next.id, forms: [form] }) });
                    }}
                  >
                    {species
                      .filter((s) => s.id === start.species || !draft.starts.some((x) => x.species === s.id))
                      .map((s) => (
                        <option key={s.id} value={s.id}>
                          {s.name}
                        </option>
                      ))}
                  </select>
                </Labelled>
                <Chips
                  legend="bought as"
                  all={known?.forms.map((f) => f.id) ?? start.forms}
                  chosen={start.forms}
                  nameOf={(id) => known?.forms.find((f) => f.id === id)?.name ?? id}
                  onToggle={(id) => {
                    const forms = toggled(start.forms, id);
                    if (forms.length > 0)
                      onChange({ ...draft, starts: replaced(draft.starts, i, { ...start, forms }) });
                  }}
                />
                {draft.starts.length > 1 && (
                  <Button onClick={() => onChange({ ...draft, starts: without(draft.starts, i) })}>Not this one</Button>
                )}
              </div>
            );
          })}
          <span>
            <Button
              onClick={() => {
                const next = species.find((s) => !draft.starts.some((x) => x.species === s.id));
                const form = next?.forms.find((f) => f.purchase)?.id;
                if (next !== undefined && form !== undefined)
                  onChange({ ...draft, starts: [...draft.starts, { species: next.id, forms: [form] }] });
              }}
            >
              Another animal
            </Button>
          </span>
        </div>
      </div>
      {draft.stages.map((stage, s) => {
        const sum = sumOfShares(draft, stage);
        const whole = Math.abs(sum - 1) <= 0.0015;
        return (
          <section
            key={stage.id}
            aria-label={`Stage ${s + 1}`}
            className="mb-8 rounded-plate border-[1.5px] border-ink bg-white p-4"
          >
            <div className="mb-3 flex flex-wrap items-end gap-3">
              <Labelled label={`Stage ${s + 1}`} className="min-w-56 flex-1">
                <input
                  className={`${inputLook} h-11 font-head text-lg font-bold`}
                  maxLength={120}
                  value={stage.name}
                  onChange={(e) => change(s, { name: e.target.value })}
                />
              </Labelled>
              {(['low', 'typical', 'high'] as const).map((key) => (
                <Labelled key={key} label={`minutes, ${key}`} className="w-28">
                  <input
                    className={`${small} text-right`}
                    type="number"
                    min={0.1}
                    step="any"
                    value={stage.minutes[key]}
                    onChange={(e) =>
                      change(s, { minutes: { ...stage.minutes, [key]: Math.max(0.1, Number(e.target.value)) } })
                    }
                  />
                </Labelled>
              ))}
              <PerCent
                label="drip, %"
                share={stage.drip.mean}
                onShare={(mean) => change(s, { drip: { ...stage.drip, mean } })}
              />
              {draft.stages.length > 1 && (
                <Button onClick={() => onChange({ ...draft, stages: without(draft.stages, s) })}>Stage away</Button>
              )}
            </div>
            <h3 className="mb-1 font-bold">Steps, in their order</h3>
            <ol className="grid gap-2">
              {stage.steps.map((step, t) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a step has no name of its own until it is saved
                <li key={t} className="grid grid-cols-[28px_1fr_auto] items-start gap-3 border-t border-line pt-2">
                  <span className="figure pt-6">{t + 1}</span>
                  <StepFields
                    step={step}
                    stage={stage}
                    onChange={(next) => change(s, { steps: replaced(stage.steps, t, next) })}
                  />
                  <Order
                    index={t}
                    count={stage.steps.length}
                    name={`Step ${t + 1}`}
                    onMove={(by) => change(s, { steps: moved(stage.steps, t, by) })}
                    onRemove={() => change(s, { steps: without(stage.steps, t) })}
                  />
                </li>
              ))}
            </ol>
            <Button className="mt-2" onClick={() => change(s, { steps: [...stage.steps, newStep()] })}>
              Another step
            </Button>
            <h3 className="mt-5 mb-1 flex items-center gap-4 font-bold">
              Pieces
              <span
                className={`text-[15px] font-normal ${whole ? 'text-ink-soft' : 'font-semibold text-alarm'}`}
                data-testid={`sum-${s}`}
              >
                with the drip {formatShare(sum)}
              </span>
              {!whole && <Button onClick={() => change(s, sharesMadeWhole(draft, stage))}>Share out to 100 %</Button>}
            </h3>
            <ol className="grid gap-3">
              {stage.pieces.map((piece, p) => (
                <li key={piece.id} className="grid grid-cols-[1fr_auto] items-start gap-3 border-t border-line pt-2">
                  <PieceFields
                    piece={piece}
                    later={draft.stages.slice(s + 1)}
                    categories={categories}
                    onChange={(next) => change(s, { pieces: replaced(stage.pieces, p, next) })}
                  />
                  <Order
                    index={p}
                    count={stage.pieces.length}
                    name={piece.name}
                    onMove={(by) => change(s, { pieces: moved(stage.pieces, p, by) })}
                    onRemove={() =>
                      change(s, {
                        pieces: without(stage.pieces, p),
                        steps: stage.steps.map((step) => ({
                          ...step,
                          pieces: step.pieces.filter((id) => id !== piece.id),
                          ...(step.guard === undefined
                            ? {}
                            : { guard: { ...step.guard, before: step.guard.before.filter((id) => id !== piece.id) } }),
                        })),
                      })
                    }
                  />
                </li>
              ))}
            </ol>
            <Button
              className="mt-2"
              onClick={() => change(s, { pieces: [...stage.pieces, newPiece(stage.pieces.map((p) => p.id))] })}
            >
              Another piece
            </Button>
          </section>
        );
      })}
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
          <Button type="submit" look="strong" disabled={saving}>
            Save the plan
          </Button>
        </div>
      </div>
    </form>
  );
}
