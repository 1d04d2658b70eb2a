import type { ListedRecipe } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { TabList, TabPanel, Tabs } from '../../kit/Tabs.tsx';
import { clothOf } from '../../parts/destinations.ts';
import { HowMade } from './HowMade.tsx';
import { byKind, kindWords, readyFor } from './offers.ts';
import { PlanBatch } from './PlanBatch.tsx';
import { PotsHead } from './PotsHead.tsx';
import { useLotsForPots, useRecipes } from './potQueries.ts';
import { RecipeFiles } from './recipe/RecipeFiles.tsx';

const clothOfKind = {
  stock: clothOf.stock,
  'pan-sauce': clothOf.stock,
  reduction: clothOf.larder,
  sauce: clothOf.portion,
  liquor: clothOf.larder,
  filling: clothOf.filling,
  assembly: clothOf.portion,
  rendering: clothOf.fat,
  preserve: clothOf.larder,
  garnish: clothOf.garnish,
  'staff-dish': clothOf.staff,
} as const;

interface ListProps {
  readonly recipes: readonly ListedRecipe[];
  readonly ready: ReadonlyMap<string, number>;
  readonly on: string | undefined;
  readonly onPick: (id: string) => void;
}

/** Every use by its kind; first what something lies ready for. */
function RecipeList({ recipes, ready, on, onPick }: ListProps) {
  const [search, setSearch] = useState('');
  const words = search.trim().toLowerCase();
  const found = recipes.filter((u) => u.recipe.title.toLowerCase().includes(words));
  const lying = found
    .filter((u) => (ready.get(u.recipe.id) ?? 0) > 0)
    .sort((a, b) => (ready.get(b.recipe.id) ?? 0) - (ready.get(a.recipe.id) ?? 0));
  const item = (u: ListedRecipe) => (
    <li key={u.recipe.id}>
      <RadioGroup.Item
        value={u.recipe.id}
        className="flex min-h-12 w-full overflow-hidden rounded-md border-[1.5px] border-line-strong bg-white text-left hover:border-ink data-[state=checked]:border-ink data-[state=checked]:outline-2 data-[state=checked]:outline-ink"
      >
        <span className={`w-2 shrink-0 ${clothOfKind[u.recipe.kind]}`} aria-hidden="true" />
        <span className="min-w-0 px-2.5 py-1.5 leading-tight">
          <span className="block truncate font-head text-[16px] font-semibold">
            {u.recipe.title}
            {u.own && <span className="ml-1.5 text-[12px] font-normal text-ink-soft">own</span>}
          </span>
          {(ready.get(u.recipe.id) ?? 0) > 0 && (
            <span className="block text-[13px] text-ink-soft">
              {formatMass(ready.get(u.recipe.id) ?? 0)} lies ready
            </span>
          )}
        </span>
      </RadioGroup.Item>
    </li>
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-4">
      <SearchBox label="Search what can be made" placeholder="what can be made" value={search} onValue={setSearch} />
      <RadioGroup.Root
        className="grid grid-cols-[minmax(0,1fr)] gap-4"
        aria-label="What can be made"
        value={on ?? null}
        onValueChange={onPick}
      >
        {lying.length > 0 && (
          <section aria-label="From what lies ready">
            <h2 className="mb-1.5 text-[14px] font-bold text-ink-soft">From what lies ready</h2>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-1.5">{lying.map(item)}</ul>
          </section>
        )}
        {byKind(found.filter((u) => !lying.includes(u))).map(([kind, mine]) => (
          <section key={kind} aria-label={kindWords(kind)}>
            <h2 className="mb-1.5 text-[14px] font-bold text-ink-soft">{kindWords(kind)}</h2>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-1.5">{mine.map(item)}</ul>
          </section>
        ))}
      </RadioGroup.Root>
      {found.length === 0 && <p className="text-ink-soft">Nothing by that name.</p>}
    </div>
  );
}

/** What can be made from what there is: every recipe, scaled to the lots that lie ready or to what is wanted. */
export default function Pots() {
  const recipes = useRecipes();
  const lots = useLotsForPots();
  const { data: house } = useHouse();
  const { data: catalogue } = useCatalogue();
  const mayEdit = useMay('pots.saveRecipe');
  const [params, setParams] = useSearchParams();
  if (recipes.isPending || lots.isPending) return <Loading />;
  if (recipes.isLoadingError) return <Failed error={recipes.error} again={() => void recipes.refetch()} />;
  if (lots.isLoadingError) return <Failed error={lots.error} again={() => void lots.refetch()} />;
  const kept = recipes.data.recipes.filter((u) => !u.retired);
  const ready = new Map(kept.map((u) => [u.recipe.id, readyFor(u.recipe, lots.data.lots, catalogue?.species ?? [])]));
  const asked = params.get('recipe');
  const most = [...kept].sort((a, b) => (ready.get(b.recipe.id) ?? 0) - (ready.get(a.recipe.id) ?? 0))[0];
  const listed = kept.find((u) => u.recipe.id === asked) ?? most;
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead>{mayEdit && <RecipeFiles />}</PotsHead>
      <div className="grid flex-1 content-start lg:grid-cols-[264px_1fr] lg:content-stretch">
        <aside
          className="max-h-[calc(100dvh-104px)] overflow-y-auto border-r border-line bg-sheet-soft p-3.5 max-lg:max-h-72"
          aria-label="What can be made"
        >
          <RecipeList
            recipes={kept}
            ready={ready}
            on={listed?.recipe.id}
            onPick={(id) => setParams({ recipe: id }, { replace: true })}
          />
        </aside>
        {listed === undefined ? (
          <Empty title="Nothing can be made">Recipes turn bones and trim into batches.</Empty>
        ) : (
          <Tabs key={listed.recipe.id} defaultValue="scale" className="min-w-0 p-4">
            <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line">
              <h2 className="text-2xl font-bold">{listed.recipe.title}</h2>
              <TabList
                label={listed.recipe.title}
                tabs={[
                  { value: 'scale', name: 'Scale' },
                  { value: 'how', name: 'How it is made' },
                ]}
              />
              {mayEdit && (
                <Link className="ml-auto text-[15px] font-semibold underline" to={`/pots/recipes/${listed.recipe.id}`}>
                  {listed.own ? 'Change our version' : 'Make it our own'}
                </Link>
              )}
            </div>
            <TabPanel value="scale">
              <PlanBatch listed={listed} lots={lots.data.lots} all={lots.data.all} house={house} />
            </TabPanel>
            <TabPanel value="how">
              <HowMade listed={listed} ways={[]} />
            </TabPanel>
          </Tabs>
        )}
      </div>
    </div>
  );
}
