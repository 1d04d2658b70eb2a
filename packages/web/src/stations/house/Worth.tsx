/** What bones and trim are worth to this house, and what the pantry costs: both a kilogram. */

import { useQuery } from '@tanstack/react-query';
import type { House } from '@zabrik/contract';
import { aMass } from '@zabrik/core';
import { useState } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { SaveFoot } from './SaveFoot.tsx';
import { type SaveHouse, useSaveHouse } from './useSaveHouse.ts';
import { type Row, savedOf, typedOf, worthForm } from './worthForm.ts';

interface PricesProps {
  readonly title: string;
  readonly says: string;
  readonly rows: readonly Row[];
  readonly currency: string;
  readonly search: string;
  readonly field: (id: string) => UseFormRegisterReturn;
  readonly error: (id: string) => string | undefined;
}

function Prices({ title, says, rows, currency, search, field, error }: PricesProps) {
  const wanted = search.trim().toLowerCase();
  const hides = (row: Row): boolean => !`${row.name} ${row.group}`.toLowerCase().includes(wanted);
  return (
    <section aria-label={title} className="grid content-start gap-3">
      <div>
        <h2 className="text-lg font-bold">{title}</h2>
        <p className="text-[15px] text-ink-soft">{says}</p>
      </div>
      <ul className="rounded-plate border border-line bg-white">
        {rows.map((row) => (
          // out of sight, not out of the form: what is typed there stays
          <li
            key={row.id}
            hidden={hides(row)}
            className="flex items-center gap-3 border-b border-line px-3 py-1.5 last:border-b-0 [&[hidden]]:hidden"
          >
            <label htmlFor={`worth-${row.id}`} className="min-w-0 flex-1 leading-tight">
              {row.name}
              <span className="block text-[13px] text-ink-soft">{error(row.id) ?? row.group}</span>
            </label>
            <MoneyField
              id={`worth-${row.id}`}
              dense
              className="w-28!"
              currency={currency}
              aria-invalid={error(row.id) !== undefined}
              {...field(row.id)}
            />
            <span className="w-16 whitespace-nowrap text-[13px] text-ink-soft">
              {currency} {aMass()}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface FormProps {
  readonly house: House;
  readonly saving: SaveHouse;
  readonly credits: readonly Row[];
  readonly pantry: readonly Row[];
}

function WorthForm({ house, saving, credits, pantry }: FormProps) {
  const may = useMay('house.saveSettings');
  const [search, setSearch] = useState('');
  const { currency } = house;
  const form = useKeptForm('worth', worthForm(currency), {
    credit: typedOf(credits, house.creditMinorPerKg, currency),
    pantry: typedOf(pantry, house.pantryMinorPerKg, currency),
  });
  const { register, handleSubmit, formState, kept } = form;
  const { errors } = formState;
  return (
    <form
      aria-label="Worth"
      className="grid gap-5"
      onSubmit={(event) =>
        void handleSubmit((read) =>
          saving.save(
            {
              creditMinorPerKg: savedOf(credits, house.creditMinorPerKg, read.credit),
              pantryMinorPerKg: savedOf(pantry, house.pantryMinorPerKg, read.pantry),
            },
            form.clear,
          ),
        )(event)
      }
    >
      <StillHere draft={kept} />
      <SearchBox
        label="Search a piece or an ingredient"
        placeholder="frame, cream"
        value={search}
        onValue={setSearch}
        className="w-72"
      />
      <fieldset disabled={!may} className="grid gap-8 border-0 p-0 lg:grid-cols-2">
        <Prices
          title="Bones and trim"
          says="What a kilogram saves you elsewhere. Empty: it takes nothing of the price, the portions carry all of it."
          rows={credits}
          currency={currency}
          search={search}
          field={(id) => register(`credit.${id}`)}
          error={(id) => errors.credit?.[id]?.message}
        />
        <Prices
          title="Pantry"
          says="What recipes take beside your own lots. Empty: it is counted as nothing."
          rows={pantry}
          currency={currency}
          search={search}
          field={(id) => register(`pantry.${id}`)}
          error={(id) => errors.pantry?.[id]?.message}
        />
      </fieldset>
      <SaveFoot saving={saving} />
    </form>
  );
}

function WorthPage() {
  const house = useHouse();
  const saving = useSaveHouse();
  const catalogue = useCatalogue();
  const recipes = useQuery({ queryKey: ['batches', 'recipes'], queryFn: () => call(api.pots.recipes, {}) });
  const failed = [house, catalogue, recipes].find((q) => q.isLoadingError);
  const credits = (catalogue.data?.categories ?? [])
    .filter((c) => c.usual !== 'portion' && c.usual !== 'waste')
    .map((c): Row => ({ id: c.id, name: c.label, group: c.group }));
  const pantry = [
    ...new Map(
      (recipes.data?.recipes ?? []).flatMap(({ recipe }) =>
        recipe.ingredients.map((i): [string, Row] => [i.id, { id: i.id, name: i.name, group: `in ${recipe.title}` }]),
      ),
    ).values(),
  ].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="p-5">
        {failed?.error != null ? (
          <Failed error={failed.error} again={() => void failed.refetch()} />
        ) : house.data === undefined || catalogue.data === undefined || recipes.data === undefined ? (
          <Loading />
        ) : (
          <WorthForm key={house.data.version} house={house.data} saving={saving} credits={credits} pantry={pantry} />
        )}
      </div>
    </div>
  );
}

export default function Worth() {
  return (
    <ForChefs>
      <WorthPage />
    </ForChefs>
  );
}
