/** A recipe as it is written: everything it is, what is wrong with it in words, and a version of it for every change. */
import { useQueryClient } from '@tanstack/react-query';
import type { ListedRecipe } from '@zabrik/contract';
import { type Recipe, recipeFaults, recipeKinds } from '@zabrik/core';
import { useNavigate } from 'react-router';
import { useCommand } from '../../../app/command.ts';
import { api } from '../../../app/endpoints.ts';
import { useKeptDocument } from '../../../app/keptForm.ts';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Select } from '../../../kit/Select.tsx';
import { PhotoField } from '../../../parts/PhotoField.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import { kindWords } from '../offers.ts';
import { useRecipes } from '../potQueries.ts';
import { BuiltOn } from './BuiltOn.tsx';
import { type Edit, freeId } from './edit.ts';
import { Gives, Keeps } from './Gives.tsx';
import { Ingredients } from './Ingredients.tsx';
import { StepFields } from './StepFields.tsx';
import { WaysFields } from './WaysFields.tsx';

interface Props {
  /** The version that it was read as; 0 where there is none yet. */
  readonly from: number;
  readonly draft: Recipe;
  readonly listed: ListedRecipe | undefined;
}

interface Written {
  readonly recipe: Recipe;
  readonly note: string;
}

/** So many faults are said at a time: the others come when these are put right. */
const MOST_SAID = 4;

export function RecipeEditor({ from, draft, listed }: Props) {
  const { data: catalogue } = useCatalogue();
  const recipes = useRecipes().data?.recipes ?? [];
  const client = useQueryClient();
  const navigate = useNavigate();
  const categories = catalogue?.categories ?? [];
  // judged by what there is, once that is known
  const faultsOf = ({ recipe: written, note: why }: Written): readonly string[] => [
    ...(catalogue === undefined
      ? []
      : new Set(
          recipeFaults(written, {
            categories: new Set(categories.map((c) => c.id)),
            never: new Set(categories.filter((c) => c.useWithinHours === 0).map((c) => c.id)),
            recipes: new Set(recipes.map((r) => r.recipe.id)),
            goods: new Set(catalogue.goods.map((g) => g.id)),
          }).map((f) => f.message),
        )),
    ...(why.trim() === '' ? ['Say what changed, and why: the next cook reads it.'] : []),
  ];
  const form = useKeptDocument<Written>(`recipe/${draft.id}/${from}`, { recipe: draft, note: '' }, faultsOf);
  const { doc, wrong } = form;
  const { recipe, note } = doc;
  const edit: Edit = {
    recipe,
    put: (change) => form.set((before) => ({ ...before, recipe: { ...before.recipe, ...change } })),
    drop: (field) =>
      form.set((before) => {
        const { [field]: _, ...rest } = before.recipe;
        return { ...before, recipe: rest as Recipe };
      }),
  };
  const store = useCommand(api.pots.saveRecipe, {
    onDone: async (saved) => {
      form.clear();
      await client.invalidateQueries({ queryKey: ['batches', 'recipes'] });
      void navigate(saved.retired ? '/pots' : `/pots?recipe=${saved.recipe.id}`);
    },
  });
  const save = (written: Written, retired: boolean): void => {
    const ids = recipes.map((r) => r.recipe.id);
    // one that is new is called after its name, as it is now
    const named = from === 0 ? { ...written.recipe, id: freeId(written.recipe.title, ids) } : written.recipe;
    store.send({ body: { recipe: named, from, retired, note: written.note.trim() } });
  };
  return (
    <form
      className="grid gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        form.send((written) => save(written, false));
      }}
    >
      <StillHere draft={form.kept} />
      <div className="grid gap-3 md:grid-cols-[2fr_1fr]">
        <Field
          label="Name"
          value={recipe.title}
          maxLength={80}
          onChange={(event) => edit.put({ title: event.target.value })}
        />
        <Select
          label="Kind"
          value={recipe.kind}
          onValue={(kind) => edit.put({ kind })}
          options={recipeKinds.map((kind) => ({ value: kind, name: kindWords(kind) }))}
        />
      </div>
      <PhotoField
        photo={recipe.photo}
        of={recipe.title}
        onPhoto={(photo) => (photo === undefined ? edit.drop('photo') : edit.put({ photo }))}
      />
      <BuiltOn {...edit} />
      <Ingredients {...edit} />
      <WaysFields {...edit} />
      <StepFields {...edit} />
      <Gives {...edit} />
      <Keeps {...edit} />
      <div className="sticky bottom-0 grid gap-2 border-t-2 border-ink bg-ground py-3">
        {wrong.length > 0 && (
          <ul role="alert" className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5">
            {wrong.slice(0, MOST_SAID).map((words) => (
              <li key={words}>{words}</li>
            ))}
            {wrong.length > MOST_SAID && <li>And {wrong.length - MOST_SAID} more.</li>}
          </ul>
        )}
        {store.error !== null && (
          <p className="text-alarm" role="alert">
            {store.error.message}
          </p>
        )}
        <div className="flex flex-wrap items-end gap-3">
          <Field
            label="What changed, and why"
            value={note}
            maxLength={500}
            className="min-w-72 flex-1"
            onChange={(event) => form.put({ note: event.target.value })}
          />
          <Button type="submit" variant="strong" size="bench" disabled={store.pending}>
            Save as version {from + 1}
          </Button>
          {listed !== undefined && (
            <Button
              variant="alarm"
              size="bench"
              disabled={store.pending}
              onClick={() => (note.trim() === '' ? form.send(() => undefined) : save(doc, true))}
            >
              Not made here any more
            </Button>
          )}
        </div>
      </div>
    </form>
  );
}
