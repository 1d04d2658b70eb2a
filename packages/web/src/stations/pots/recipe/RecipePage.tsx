import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { type Recipe, recipeOf } from '@zabrik/core';
import { useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { dayAndTime } from '../../../app/dates.ts';
import type { api } from '../../../app/endpoints.ts';
import { useMay } from '../../../app/queries.ts';
import { useOpen } from '../../../app/title.ts';
import { Button } from '../../../kit/Button.tsx';
import { Failed, Loading } from '../../../kit/Notice.tsx';
import { PrintHead } from '../../../parts/PrintHead.tsx';
import { HowMade } from '../HowMade.tsx';
import { PotsHead } from '../PotsHead.tsx';
import { useRecipes } from '../potQueries.ts';
import { recipeVersionsQuery } from '../reads.ts';
import { differences } from './differences.ts';
import { freeId } from './edit.ts';
import { RecipeEditor } from './RecipeEditor.tsx';

/** Hands a file to the browser. */
function save(name: string, json: unknown, type: string): void {
  const url = URL.createObjectURL(new Blob([JSON.stringify(json, null, 2)], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1_000);
}

type Version = Answer<typeof api.pots.recipeVersions>['versions'][number];

/** What a version says otherwise than another one. */
function Differences({ from, to }: { readonly from: Version; readonly to: Version }) {
  const lines = differences(from.recipe as Recipe, to.recipe as Recipe);
  if (lines.length === 0) return <p className="text-ink-soft">Both say the same.</p>;
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-[15px]">
        <thead>
          <tr className="border-b border-line text-left text-ink-soft">
            <th scope="col" className="w-40 py-1 pr-3 font-normal">
              differs
            </th>
            <th scope="col" className="py-1 pr-3 font-normal">
              version {from.recipe.version}
              {from.by === null && ', the handbook’s'}
            </th>
            <th scope="col" className="py-1 font-normal">
              version {to.recipe.version}
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.what} className="border-b border-line align-top">
              <th scope="row" className="py-1 pr-3 text-left">
                {line.what}
              </th>
              <td className="py-1 pr-3 text-ink-soft">{line.was || 'not there'}</td>
              <td className="py-1">{line.is || 'not there'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Every version there was, the newest first; each against the one before it, or against the handbook's. */
function Versions({ versions }: { readonly versions: readonly Version[] }) {
  const [open, setOpen] = useState<string>();
  const handbook = versions.find((v) => v.by === null);
  return (
    <section aria-label="Versions">
      <h3 className="mb-1 text-lg font-bold">Versions</h3>
      <ul className="divide-y divide-line">
        {versions.map((v, i) => {
          const before = versions[i + 1];
          const choices = [
            ...(before === undefined ? [] : [{ id: `${i}/before`, name: 'what changed', from: before }]),
            ...(handbook === undefined || v === handbook || before === handbook
              ? []
              : [{ id: `${i}/handbook`, name: 'against the handbook’s', from: handbook }]),
          ];
          const chosen = choices.find((c) => c.id === open);
          return (
            <li key={`${v.recipe.version}${v.by}`} className="py-1.5">
              <div className="flex flex-wrap items-center gap-x-4">
                <strong>{v.recipe.version}</strong>
                <span>{v.note}</span>
                <span className="text-ink-soft">
                  {v.by ?? 'shipped with the app'}
                  {v.at !== null && `, ${dayAndTime(v.at)}`}
                </span>
                <span className="ml-auto flex gap-2">
                  {choices.map((c) => (
                    <Button
                      key={c.id}
                      aria-expanded={open === c.id}
                      onClick={() => setOpen(open === c.id ? undefined : c.id)}
                    >
                      {c.name}
                    </Button>
                  ))}
                </span>
              </div>
              {chosen !== undefined && <Differences from={chosen.from} to={v} />}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** A recipe whole: read, changed as the house’s own, its versions, and out as files. */
export default function RecipePage() {
  const { recipeId = '' } = useParams();
  const { state } = useLocation();
  const navigate = useNavigate();
  const recipes = useRecipes();
  useOpen(recipes.data?.recipes.find((u) => u.recipe.id === recipeId)?.recipe.title);
  const may = useMay('pots.saveRecipe');
  const versions = useQuery({ ...recipeVersionsQuery(recipeId), retry: false });
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
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-5">
        <PrintHead />
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="text-2xl font-bold">{draft.title}</h2>
          {listed !== undefined && (
            <>
              <Link className="font-semibold underline" to={`/pots?recipe=${recipeId}`}>
                Make it
              </Link>
              <span className="ml-auto flex flex-wrap gap-2">
                {may && (
                  <Button
                    onClick={() => {
                      const title = `${listed.recipe.title}, ours`.slice(0, 80);
                      const id = freeId(
                        title,
                        recipes.data.recipes.map((r) => r.recipe.id),
                      );
                      const copy = { ...(listed.recipe as Recipe), id, title, version: 1, source: 'The house’s own' };
                      void navigate(`/pots/recipes/${id}`, { state: { draft: copy } });
                    }}
                  >
                    Another one like it
                  </Button>
                )}
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
          <RecipeEditor
            key={`${draft.id}${draft.version}`}
            from={listed?.recipe.version ?? 0}
            draft={draft}
            listed={listed}
          />
        ) : (
          listed !== undefined && <HowMade listed={listed} ways={[]} />
        )}
        {versions.data !== undefined && <Versions versions={versions.data.versions} />}
      </div>
    </div>
  );
}
