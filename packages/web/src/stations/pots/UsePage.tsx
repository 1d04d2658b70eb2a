import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ListedUse } from '@zabrik/contract';
import { carryAllergens, cookedAs, recipeOf, stepKinds, type Use, type UseStep, waysKept } from '@zabrik/core';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime } from '../../app/dates.ts';
import { useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import { useCatalogue, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { NumField } from '../../kit/NumField.tsx';
import { Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { HowMade } from './HowMade.tsx';
import { IngredientAllergens } from './IngredientAllergens.tsx';
import { PotsHead } from './PotsHead.tsx';
import { useHouseLimits, useUses } from './potQueries.ts';
import { slugOf } from './useDraft.ts';

/** Hands a file to the browser. */
function save(name: string, json: unknown, type: string): void {
  const url = URL.createObjectURL(new Blob([JSON.stringify(json, null, 2)], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1_000);
}

function StepFields({
  steps,
  onSteps,
}: {
  readonly steps: readonly UseStep[];
  readonly onSteps: (s: UseStep[]) => void;
}) {
  // what stays of a step while it is written and moved
  const [ids, setIds] = useState(() => steps.map(() => uuidv7()));
  const change = (i: number, step: UseStep): void => onSteps(steps.map((s, n) => (n === i ? step : s)));
  const moved = <T,>(list: readonly T[], i: number, by: number): T[] => {
    const next = [...list];
    next.splice(i + by, 0, ...next.splice(i, 1));
    return next;
  };
  const move = (i: number, by: number): void => {
    setIds(moved(ids, i, by));
    onSteps(moved(steps, i, by));
  };
  const leaveOut = (i: number): void => {
    setIds(ids.filter((_, n) => n !== i));
    onSteps(steps.filter((_, n) => n !== i));
  };
  const add = (): void => {
    setIds([...ids, uuidv7()]);
    onSteps([...steps, { kind: 'cook', text: '' }]);
  };
  return (
    <ol className="grid gap-2">
      {steps.map((step, i) => (
        <li
          key={ids[i]}
          className="grid grid-cols-[24px_110px_1fr_84px_auto] items-center gap-2 max-md:grid-cols-[24px_1fr]"
        >
          <span className="figure text-ink-soft">{i + 1}</span>
          <Select
            aria-label={`Kind of step ${i + 1}`}
            value={step.kind}
            onValue={(value) => change(i, { ...step, kind: value })}
            options={stepKinds.map((k) => ({ value: k, name: k }))}
          />
          <Field
            aria-label={`Step ${i + 1}`}
            maxLength={400}
            value={step.text}
            onChange={(e) => change(i, { ...step, text: e.target.value })}
          />
          <NumField
            label={`Minutes of step ${i + 1}`}
            unit="min"
            className="[&_label]:sr-only"
            value={step.minutes?.typical ?? null}
            min={0.1}
            max={4_320}
            onNone={() => {
              const { minutes: _, ...rest } = step;
              change(i, rest);
            }}
            onValue={(typical) =>
              change(i, {
                ...step,
                minutes: {
                  low: Math.min(typical, step.minutes?.low ?? typical),
                  typical,
                  high: Math.max(typical, step.minutes?.high ?? typical),
                },
              })
            }
          />
          <span className="flex">
            <button
              type="button"
              aria-label={`Step ${i + 1} up`}
              className="grid size-11 place-items-center disabled:opacity-30"
              disabled={i === 0}
              onClick={() => move(i, -1)}
            >
              <ArrowUp size={18} aria-hidden="true" />
            </button>
            <button
              type="button"
              aria-label={`Step ${i + 1} down`}
              className="grid size-11 place-items-center disabled:opacity-30"
              disabled={i === steps.length - 1}
              onClick={() => move(i, 1)}
            >
              <ArrowDown size={18} aria-hidden="true" />
            </button>
            <button
              type="button"
              aria-label={`Without step ${i + 1}`}
              className="grid size-11 place-items-center text-alarm disabled:opacity-30"
              disabled={steps.length === 1}
              onClick={() => leaveOut(i)}
            >
              <Trash2 size={18} aria-hidden="true" />
            </button>
          </span>
        </li>
      ))}
      <li>
        <Button disabled={steps.length >= 30} onClick={add}>
          One more step
        </Button>
      </li>
    </ol>
  );
}

function Editor({
  from,
  draft,
  listed,
}: {
  readonly from: number;
  readonly draft: Use;
  readonly listed: ListedUse | undefined;
}) {
  const { data: catalogue } = useCatalogue();
  const client = useQueryClient();
  const navigate = useNavigate();
  const typed = useDraft<{ readonly use: Use; readonly note: string }>(`recipe/${draft.id}/${from}`, {
    use: draft,
    note: '',
  });
  const { use, note } = typed.value;
  const [another, setAnother] = useState('');
  const limits = useHouseLimits();
  const [usual] = waysKept(use, limits.data?.profileId ?? '');
  const unsaid = use.ingredients.filter((i) => i.unsaid === true);
  const put = (change: Partial<Use>): void => typed.set((before) => ({ ...before, use: { ...before.use, ...change } }));
  const store = useCommand(api.pots.saveUse, {
    onDone: async (saved) => {
      typed.clear();
      await client.invalidateQueries({ queryKey: ['runs', 'uses'] });
      void navigate(saved.retired ? '/pots' : `/pots?use=${saved.use.id}`);
    },
  });
  const save = (retired: boolean): void => store.send({ body: { use, from, retired, note: note.trim() } });
  const number = (field: 'low' | 'mean' | 'high', label: string) => (
    <NumField
      label={label}
      value={use.output[field]}
      min={0.01}
      max={20}
      decimals={3}
      onValue={(value) => put({ output: { ...use.output, [field]: value } })}
    />
  );
  const ordered = use.output.low <= use.output.mean && use.output.mean <= use.output.high;
  const ready =
    use.title.trim() !== '' &&
    use.steps.every((s) => s.text.trim() !== '') &&
    ordered &&
    note.trim() !== '' &&
    unsaid.length === 0;
  return (
    <form
      className="grid gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) save(false);
      }}
    >
      <StillHere draft={typed} />
      <div className="grid gap-3 md:grid-cols-4">
        <Field
          label="Name"
          value={use.title}
          maxLength={80}
          onChange={(e) => put({ title: e.target.value })}
          className="md:col-span-2"
        />
        <Field
          label="What it is built on"
          value={use.baseName}
          maxLength={40}
          onChange={(e) => put({ baseName: e.target.value })}
        />
        <NumField
          label="Keeps, days"
          value={usual?.days ?? use.shelfLifeDays}
          max={365}
          decimals={0}
          onValue={(v) => {
            const days = Math.round(v);
            // the usual way it is kept and the days beside it are one figure
            put({
              shelfLifeDays: days,
              keeps: use.keeps.map((k) =>
                k === usual ? { ...k, days, source: 'The house’s own', provenance: 'estimate' } : k,
              ),
            });
          }}
        />
      </div>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-lg font-bold">Goes in</legend>
        <div className="flex max-h-44 flex-wrap gap-x-4 gap-y-1 overflow-y-auto">
          {catalogue?.categories
            .filter((c) => c.useWithinHours > 0)
            .map((c) => (
              <Check
                key={c.id}
                label={c.label}
                labelClass="min-h-9"
                checked={use.accepts.includes(c.id)}
                onChange={() =>
                  put({
                    accepts: use.accepts.includes(c.id)
                      ? use.accepts.filter((x) => x !== c.id)
                      : [...use.accepts, c.id],
                    refuses: use.refuses.filter((r) => r.category !== c.id),
                  })
                }
              />
            ))}
        </div>
      </fieldset>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-lg font-bold">To one of {use.baseName}</legend>
        <div className="grid gap-2">
          {use.ingredients.map((i) => (
            <div key={i.id} className="grid grid-cols-[1fr_repeat(3,96px)_auto] items-end gap-2">
              <span className="min-w-0 self-center">
                <span className="font-semibold">{i.name}</span>
                <IngredientAllergens
                  ingredient={i}
                  onSay={(said) =>
                    put({
                      ingredients: use.ingredients.map((x) => {
                        if (x.id !== i.id) return x;
                        const { unsaid: _, ...rest } = x;
                        return { ...rest, allergens: carryAllergens(said) };
                      }),
                    })
                  }
                />
              </span>
              {(['perBase', 'low', 'high'] as const).map((f) => (
                <NumField
                  key={f}
                  label={f === 'perBase' ? 'usual' : f === 'low' ? 'from' : 'to'}
                  value={i[f]}
                  max={50}
                  decimals={3}
                  onValue={(v) =>
                    put({ ingredients: use.ingredients.map((x) => (x.id === i.id ? { ...x, [f]: v } : x)) })
                  }
                />
              ))}
              <Button
                className="h-11"
                aria-label={`Without ${i.name}`}
                onClick={() => put({ ingredients: use.ingredients.filter((x) => x.id !== i.id) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
          ))}
          <div className="flex flex-wrap items-end gap-2">
            <Field
              label="Another ingredient"
              value={another}
              maxLength={60}
              onChange={(e) => setAnother(e.target.value)}
            />
            <Button
              className="h-11"
              disabled={slugOf(another) === '' || use.ingredients.some((i) => i.id === slugOf(another))}
              onClick={() => {
                put({
                  ingredients: [
                    ...use.ingredients,
                    {
                      id: slugOf(another),
                      name: another.trim(),
                      perBase: 0.1,
                      low: 0.05,
                      high: 0.2,
                      allergens: [],
                      unsaid: true,
                    },
                  ],
                });
                setAnother('');
              }}
            >
              Add it
            </Button>
          </div>
        </div>
      </fieldset>
      <div className="grid gap-3 md:grid-cols-4">
        {number('low', `Gives a kilo, from`)}
        {number('mean', 'usually')}
        {number('high', 'to')}
        {!ordered && <p className="self-end pb-2 text-alarm">From, usually, to: each no less than the one before.</p>}
      </div>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-lg font-bold">Steps</legend>
        <StepFields steps={use.steps} onSteps={(steps) => put({ steps })} />
        <div className="mt-2 grid gap-3 md:grid-cols-2">
          <Select
            label="Cooked through in"
            value={String(use.steps.findIndex((s) => s.kills === true))}
            onValue={(value) => {
              const at = Number(value);
              put({
                steps: use.steps.map((s, i) => {
                  const { kills: _, ...step } = s;
                  return i === at ? { ...step, kills: true as const } : step;
                }),
              });
            }}
            options={[
              { value: '-1', name: 'no step: it keeps no longer than what goes in' },
              ...use.steps.map((s, i) => ({ value: String(i), name: `${i + 1}: ${s.text.slice(0, 60)}` })),
            ]}
          />
          <Select
            label="Its core is judged as"
            value={use.cooksAs ?? ''}
            onValue={(value) => {
              const { cooksAs: _, ...rest } = use;
              const as = cookedAs.find((c) => c === value);
              typed.put({ use: as === undefined ? rest : { ...rest, cooksAs: as } });
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
      </fieldset>
      <div className="flex flex-wrap items-end gap-3">
        <Field
          label="What changed, and why"
          value={note}
          maxLength={500}
          className="min-w-72 flex-1"
          onChange={(e) => typed.put({ note: e.target.value })}
        />
        <Button type="submit" look="strong" size="bench" disabled={!ready || store.pending}>
          Save as version {from + 1}
        </Button>
        {listed !== undefined && (
          <Button look="alarm" size="bench" disabled={note.trim() === '' || store.pending} onClick={() => save(true)}>
            Not made here any more
          </Button>
        )}
      </div>
      {unsaid.length > 0 && (
        <p className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5" role="status">
          Say which allergens {unsaid.map((i) => i.name).join(', ')} {unsaid.length === 1 ? 'has' : 'have'}, or that it
          is none of them. It cannot be saved before.
        </p>
      )}
      {store.error !== null && (
        <p className="text-alarm" role="alert">
          {store.error.message}
        </p>
      )}
    </form>
  );
}

/** A use whole: read, changed as the house’s own, its versions, and out as files. */
export default function UsePage() {
  const { useId = '' } = useParams();
  const { state } = useLocation();
  const uses = useUses();
  useOpen(uses.data?.uses.find((u) => u.use.id === useId)?.use.title);
  const may = useMay('pots.saveUse');
  const versions = useQuery({
    queryKey: ['runs', 'uses', useId],
    queryFn: () => call(api.pots.useVersions, { params: { useId } }),
    retry: false,
  });
  if (uses.isPending) return <Loading />;
  if (uses.isLoadingError) return <Failed error={uses.error} again={() => void uses.refetch()} />;
  const listed = uses.data.uses.find((u) => u.use.id === useId);
  const handed = (state as { draft?: Use } | null)?.draft;
  const draft = handed ?? (listed?.use as Use | undefined);
  if (draft === undefined)
    return <Failed error={new Error('There is no such use.')} again={() => void uses.refetch()} />;
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <div className="grid gap-6 p-5">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="text-2xl font-bold">{draft.title}</h2>
          {listed !== undefined && (
            <>
              <Link className="font-semibold underline" to={`/pots?use=${useId}`}>
                Make it
              </Link>
              <span className="ml-auto flex gap-2">
                <Button onClick={() => save(`${useId}.json`, listed.use, 'application/json')}>As JSON</Button>
                <Button onClick={() => save(`${useId}.jsonld`, recipeOf(listed.use as Use), 'application/ld+json')}>
                  As schema.org Recipe
                </Button>
                <Button onClick={() => print()}>Print</Button>
              </span>
            </>
          )}
        </div>
        {may ? (
          <Editor key={`${draft.id}${draft.version}`} from={listed?.use.version ?? 0} draft={draft} listed={listed} />
        ) : (
          listed !== undefined && <HowMade listed={listed} ways={[]} />
        )}
        {versions.data !== undefined && (
          <section aria-label="Versions">
            <h3 className="mb-1 text-lg font-bold">Versions</h3>
            <ul className="divide-y divide-line">
              {versions.data.versions.map((v) => (
                <li key={`${v.use.version}${v.by}`} className="flex flex-wrap gap-x-4 py-1.5">
                  <strong>{v.use.version}</strong>
                  <span>{v.note}</span>
                  <span className="text-ink-soft">
                    {v.by ?? 'shipped with the app'}
                    {v.at !== null && `, ${dayAndTime(v.at)}`}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
