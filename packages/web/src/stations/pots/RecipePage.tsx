import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ListedRecipe } from '@zabrik/contract';
import { carryAllergens, cookedAs, type Recipe, type RecipeStep, recipeOf, stepKinds, waysKept } from '@zabrik/core';
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
import { slugOf } from './blankRecipe.ts';
import { HowMade } from './HowMade.tsx';
import { IngredientAllergens } from './IngredientAllergens.tsx';
import { PotsHead } from './PotsHead.tsx';
import { useHouseLimits, useRecipes } from './potQueries.ts';

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
  readonly steps: readonly RecipeStep[];
  readonly onSteps: (s: RecipeStep[]) => void;
}) {
  // what stays of a step while it is written and moved
  const [ids, setIds] = useState(() => steps.map(() => uuidv7()));
  const change = (i: number, step: RecipeStep): void => onSteps(steps.map((s, n) => (n === i ? step : s)));
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
  readonly draft: Recipe;
  readonly listed: ListedRecipe | undefined;
}) {
  const { data: catalogue } = useCatalogue();
  const client = useQueryClient();
  const navigate = useNavigate();
  const typed = useDraft<{ readonly recipe: Recipe; readonly note: string }>(`recipe/${draft.id}/${from}`, {
    recipe: draft,
    note: '',
  });
  const { recipe, note } = typed.value;
  const [another, setAnother] = useState('');
  const limits = useHouseLimits();
  const [usual] = waysKept(recipe, limits.data?.profileId ?? '');
  const unsaid = recipe.ingredients.filter((i) => i.unsaid === true);
  const put = (change: Partial<Recipe>): void =>
    typed.set((before) => ({ ...before, recipe: { ...before.recipe, ...change } }));
  const store = useCommand(api.pots.saveRecipe, {
    onDone: async (saved) => {
      typed.clear();
      await client.invalidateQueries({ queryKey: ['batches', 'recipes'] });
      void navigate(saved.retired ? '/pots' : `/pots?recipe=${saved.recipe.id}`);
    },
  });
  const save = (retired: boolean): void => store.send({ body: { recipe, from, retired, note: note.trim() } });
  const number = (field: 'low' | 'mean' | 'high', label: string) => (
    <NumField
      label={label}
      value={recipe.output[field]}
      min={0.01}
      max={20}
      decimals={3}
      onValue={(value) => put({ output: { ...recipe.output, [field]: value } })}
    />
  );
  const ordered = recipe.output.low <= recipe.output.mean && recipe.output.mean <= recipe.output.high;
  const ready =
    recipe.title.trim() !== '' &&
    recipe.steps.every((s) => s.text.trim() !== '') &&
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
          value={recipe.title}
          maxLength={80}
          onChange={(e) => put({ title: e.target.value })}
          className="md:col-span-2"
        />
        <Field
          label="What it is built on"
          value={recipe.baseName}
          maxLength={40}
          onChange={(e) => put({ baseName: e.target.value })}
        />
        <NumField
          label="Keeps, days"
          value={usual?.days ?? recipe.shelfLifeDays}
          max={365}
          decimals={0}
          onValue={(v) => {
            const days = Math.round(v);
            // the usual way it is kept and the days beside it are one figure
            put({
              shelfLifeDays: days,
              keeps: recipe.keeps.map((k) =>
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
                checked={recipe.accepts.includes(c.id)}
                onChange={() =>
                  put({
                    accepts: recipe.accepts.includes(c.id)
                      ? recipe.accepts.filter((x) => x !== c.id)
                      : [...recipe.accepts, c.id],
                    refuses: recipe.refuses.filter((r) => r.category !== c.id),
                  })
                }
              />
            ))}
        </div>
      </fieldset>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-lg font-bold">To one of {recipe.baseName}</legend>
        <div className="grid gap-2">
          {recipe.ingredients.map((i) => (
            <div key={i.id} className="grid grid-cols-[1fr_repeat(3,96px)_auto] items-end gap-2">
              <span className="min-w-0 self-center">
                <span className="font-semibold">{i.name}</span>
                <IngredientAllergens
                  ingredient={i}
                  onSay={(said) =>
                    put({
                      ingredients: recipe.ingredients.map((x) => {
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
                    put({ ingredients: recipe.ingredients.map((x) => (x.id === i.id ? { ...x, [f]: v } : x)) })
                  }
                />
              ))}
              <Button
                className="h-11"
                aria-label={`Without ${i.name}`}
                onClick={() => put({ ingredients: recipe.ingredients.filter((x) => x.id !== i.id) })}
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
              disabled={slugOf(another) === '' || recipe.ingredients.some((i) => i.id === slugOf(another))}
              onClick={() => {
                put({
                  ingredients: [
                    ...recipe.ingredients,
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
        <StepFields steps={recipe.steps} onSteps={(steps) => put({ steps })} />
        <div className="mt-2 grid gap-3 md:grid-cols-2">
          <Select
            label="Cooked through in"
            value={String(recipe.steps.findIndex((s) => s.kills === true))}
            onValue={(value) => {
              const at = Number(value);
              put({
                steps: recipe.steps.map((s, i) => {
                  const { kills: _, ...step } = s;
                  return i === at ? { ...step, kills: true as const } : step;
                }),
              });
            }}
            options={[
              { value: '-1', name: 'no step: it keeps no longer than what goes in' },
              ...recipe.steps.map((s, i) => ({ value: String(i), name: `${i + 1}: ${s.text.slice(0, 60)}` })),
            ]}
          />
          <Select
            label="Its core is judged as"
            value={recipe.cooksAs ?? ''}
            onValue={(value) => {
              const { cooksAs: _, ...rest } = recipe;
              const as = cookedAs.find((c) => c === value);
              typed.put({ recipe: as === undefined ? rest : { ...rest, cooksAs: as } });
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

/** A recipe whole: read, changed as the house’s own, its versions, and out as files. */
export default function RecipePage() {
  const { recipeId = '' } = useParams();
  const { state } = useLocation();
  const recipes = useRecipes();
  useOpen(recipes.data?.recipes.find((u) => u.recipe.id === recipeId)?.recipe.title);
  const may = useMay('pots.saveRecipe');
  const versions = useQuery({
    queryKey: ['batches', 'recipes', recipeId],
    queryFn: () => call(api.pots.recipeVersions, { params: { recipeId } }),
    retry: false,
  });
  if (recipes.isPending) return <Loading />;
  if (recipes.isLoadingError) return <Failed error={recipes.error} again={() => void recipes.refetch()} />;
  const listed = recipes.data.recipes.find((u) => u.recipe.id === recipeId);
  const handed = (state as { draft?: Recipe } | null)?.draft;
  const draft = handed ?? (listed?.recipe as Recipe | undefined);
  if (draft === undefined)
    return <Failed error={new Error('There is no such recipe.')} again={() => void recipes.refetch()} />;
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <div className="grid gap-6 p-5">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="text-2xl font-bold">{draft.title}</h2>
          {listed !== undefined && (
            <>
              <Link className="font-semibold underline" to={`/pots?recipe=${recipeId}`}>
                Make it
              </Link>
              <span className="ml-auto flex gap-2">
                <Button onClick={() => save(`${recipeId}.json`, listed.recipe, 'application/json')}>As JSON</Button>
                <Button
                  onClick={() => save(`${recipeId}.jsonld`, recipeOf(listed.recipe as Recipe), 'application/ld+json')}
                >
                  As schema.org Recipe
                </Button>
                <Button onClick={() => print()}>Print</Button>
              </span>
            </>
          )}
        </div>
        {may ? (
          <Editor
            key={`${draft.id}${draft.version}`}
            from={listed?.recipe.version ?? 0}
            draft={draft}
            listed={listed}
          />
        ) : (
          listed !== undefined && <HowMade listed={listed} ways={[]} />
        )}
        {versions.data !== undefined && (
          <section aria-label="Versions">
            <h3 className="mb-1 text-lg font-bold">Versions</h3>
            <ul className="divide-y divide-line">
              {versions.data.versions.map((v) => (
                <li key={`${v.recipe.version}${v.by}`} className="flex flex-wrap gap-x-4 py-1.5">
                  <strong>{v.recipe.version}</strong>
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
