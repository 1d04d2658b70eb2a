import type { CutPlan, Species } from '@zabrik/core';
import { Button } from '../../../kit/Button.tsx';
import { Select } from '../../../kit/Select.tsx';
import { changed, without } from '../../../parts/rows.ts';
import { Chips, toggled } from './editorParts.tsx';

interface Props {
  readonly draft: CutPlan;
  readonly species: readonly Species[];
  readonly onChange: (plan: CutPlan) => void;
}

const asBought = (species: Species | undefined): CutPlan['starts'][number] | undefined => {
  const form = species?.forms.find((f) => f.purchase)?.id;
  return species === undefined || form === undefined ? undefined : { species: species.id, forms: [form] };
};

/** Which animals a plan is for, and the forms they are bought in. */
export function StartsFields({ draft, species, onChange }: Props) {
  const others = species.filter((s) => !draft.starts.some((x) => x.species === s.id) && asBought(s) !== undefined);
  return (
    <div className="grid gap-2">
      {draft.starts.map((start, i) => {
        const known = species.find((s) => s.id === start.species);
        return (
          <div
            key={`${start.species}/${start.at ?? ''}`}
            className="grid items-start gap-4 md:grid-cols-[256px_1fr_200px_auto]"
          >
            <Select
              dense
              label={i === 0 ? 'Shares are written for' : 'also for'}
              value={start.species}
              options={[
                { value: start.species, name: known?.name ?? start.species },
                ...others.map((s) => ({ value: s.id, name: s.name })),
              ].sort((a, b) => a.name.localeCompare(b.name))}
              onValue={(id) => {
                const next = asBought(species.find((s) => s.id === id));
                if (next !== undefined)
                  onChange({
                    ...draft,
                    starts: changed(draft.starts, i, start.at === undefined ? next : { ...next, at: start.at }),
                  });
              }}
            />
            <Chips
              legend="bought as"
              all={known?.forms.map((f) => f.id) ?? start.forms}
              chosen={start.forms}
              nameOf={(id) => known?.forms.find((f) => f.id === id)?.name ?? id}
              onToggle={(id) => {
                const forms = toggled(start.forms, id);
                if (forms.length > 0) onChange({ ...draft, starts: changed(draft.starts, i, { ...start, forms }) });
              }}
            />
            {i > 0 && draft.stages.length > 1 ? (
              <Select
                dense
                label="comes in at"
                value={start.at ?? ''}
                none={draft.stages[0]?.name ?? 'the first stage'}
                options={draft.stages.slice(1).map((s) => ({ value: s.id, name: s.name }))}
                onValue={(at) => {
                  const { at: _, ...rest } = start;
                  onChange({ ...draft, starts: changed(draft.starts, i, at === '' ? rest : { ...rest, at }) });
                }}
              />
            ) : (
              <span />
            )}
            {draft.starts.length > 1 && (
              <Button onClick={() => onChange({ ...draft, starts: without(draft.starts, i) })}>Not this one</Button>
            )}
          </div>
        );
      })}
      <span>
        <Button
          disabled={others.length === 0}
          onClick={() => {
            const next = asBought(others[0]);
            if (next !== undefined) onChange({ ...draft, starts: [...draft.starts, next] });
          }}
        >
          Another animal
        </Button>
      </span>
    </div>
  );
}
