/** What bones and trim are worth to this house, and what the pantry costs: both a kilogram. */

import { useQuery } from '@tanstack/react-query';
import type { House } from '@zabrik/contract';
import { aMass, perHouseMass, worthKey } from '@zabrik/core';
import { type ReactNode, useState } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { call } from '../../app/api.ts';
import { dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { moneyOf, useCatalogue, useHouse, useMay, usePantry } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Dialog } from '../../kit/Dialog.tsx';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { type Found, SearchSelect } from '../../kit/SearchSelect.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { SaveFoot } from './SaveFoot.tsx';
import { type SaveHouse, useSaveHouse } from './useSaveHouse.ts';
import { creditRows, type Row, savedOf, typedOf, worthForm } from './worthForm.ts';

interface PricesProps {
  readonly title: string;
  readonly says: string;
  readonly rows: readonly Row[];
  readonly currency: string;
  readonly search: string;
  readonly field: (id: string) => UseFormRegisterReturn;
  readonly error: (id: string) => string | undefined;
  /** The day a price was last said. */
  readonly saidOn?: Readonly<Record<string, string>>;
  /** Over the list. */
  readonly more?: ReactNode;
  /** What is read from a supplier's list instead, and the way there; undefined where no list is asked. */
  readonly list?: (row: Row) => ReactNode;
}

function Prices({ title, says, rows, currency, search, field, error, saidOn, more, list }: PricesProps) {
  const wanted = search.trim().toLowerCase();
  const hides = (row: Row): boolean => !`${row.name} ${row.group}`.toLowerCase().includes(wanted);
  return (
    <section aria-label={title} className="grid content-start gap-3">
      <div>
        <h2 className="text-lg font-bold">{title}</h2>
        <p className="text-[15px] text-ink-soft">{says}</p>
      </div>
      {more !== undefined && <div>{more}</div>}
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
              <span className="block text-[13px] text-ink-soft">
                {error(row.id) ??
                  [row.group, saidOn?.[row.id] && `said ${dayName(saidOn[row.id] ?? '')}`].filter(Boolean).join(' · ')}
              </span>
            </label>
            {list?.(row)}
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
  readonly categories: readonly Row[];
  readonly species: readonly Found[];
  readonly pantry: readonly Row[];
}

function WorthForm({ house, saving, categories, species, pantry }: FormProps) {
  const may = useMay('house.saveSettings');
  const [search, setSearch] = useState('');
  const { currency } = house;
  const [apart, setApart] = useState(false);
  const rowsFor = (keys: readonly string[]): Row[] =>
    creditRows(categories, keys, (id) => species.find((s) => s.id === id)?.name ?? id);
  const form = useKeptForm('worth', worthForm(currency), {
    credit: typedOf(rowsFor(Object.keys(house.creditMinorPerKg)), house.creditMinorPerKg, currency),
    pantry: typedOf(pantry, house.pantryMinorPerKg, currency),
    from: house.pantryFrom,
  });
  const { register, handleSubmit, setValue, formState, kept, typed } = form;
  const { errors } = formState;
  const { from } = typed;
  const credits = rowsFor(Object.keys(typed.credit));
  const prices = usePantry();
  const [asking, setAsking] = useState<Row | undefined>();
  const money = moneyOf(house);
  const unpriced = pantry.filter((row) => from[row.id] === undefined && typed.pantry[row.id]?.trim() === '');
  const fromList = (id: string, line: { supplierId: string; item: string } | undefined): void => {
    const { [id]: _, ...others } = from;
    setValue('from', line === undefined ? others : { ...others, [id]: line }, { shouldDirty: true });
    setAsking(undefined);
  };
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
              pantryFrom: read.from,
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
          says="What a kilogram saves you elsewhere. Empty: it takes nothing of the price, the portions carry all of it. It holds from the day it is said: a sheet keeps what held when its stage was closed."
          rows={credits}
          currency={currency}
          search={search}
          field={(id) => register(`credit.${id}`)}
          error={(id) => errors.credit?.[id]?.message}
          saidOn={house.creditSaid}
          more={<Button onClick={() => setApart(true)}>Another sum for one species</Button>}
        />
        <Prices
          title="Pantry"
          says={`What recipes take beside your own lots. ${
            unpriced.length === 0
              ? 'Each has a price.'
              : `${unpriced.length} of ${pantry.length} have no price: what is made with them costs more than it shows, and says so.`
          }`}
          rows={pantry}
          currency={currency}
          search={search}
          field={(id) => register(`pantry.${id}`)}
          error={(id) => errors.pantry?.[id]?.message}
          list={(row) => {
            const line = from[row.id];
            const now = prices.data?.prices.find((p) => p.id === row.id);
            const priced = now?.list != null && now.list.item.toLowerCase() === line?.item.toLowerCase();
            return (
              <span className="flex min-w-0 max-w-[46%] items-center gap-2 text-[13px]">
                {line !== undefined && (
                  <span className="min-w-0 leading-tight">
                    <span className="block truncate">{line.item}</span>
                    <span className={`block ${priced ? 'text-ink-soft' : 'text-alarm'}`}>
                      {priced
                        ? `${money(perHouseMass(now.minorPerKg))} ${aMass()}, list of ${dayName(now.list?.validFrom ?? '')}`
                        : house.pantryFrom[row.id]?.item === line.item
                          ? 'on no list that counts: the price typed here'
                          : 'from its next saving on'}
                    </span>
                  </span>
                )}
                <button
                  type="button"
                  className="min-h-11 shrink-0 px-1 underline"
                  aria-label={line === undefined ? `${row.name}: from a price list` : `${row.name}: not from the list`}
                  onClick={() => (line === undefined ? setAsking(row) : fromList(row.id, undefined))}
                >
                  {line === undefined ? 'from a list' : 'off the list'}
                </button>
              </span>
            );
          }}
        />
      </fieldset>
      <SaveFoot saving={saving} />
      {apart && (
        <OneSpecies
          categories={categories}
          species={species}
          onKey={(key) => {
            if (typed.credit[key] === undefined) setValue(`credit.${key}`, '', { shouldDirty: true });
            setApart(false);
          }}
          close={() => setApart(false)}
        />
      )}
      {asking !== undefined && (
        <FromList
          row={asking}
          money={money}
          onLine={(line) => fromList(asking.id, line)}
          close={() => setAsking(undefined)}
        />
      )}
    </form>
  );
}

/** One species of which a kind of by-product is worth another sum than of the others. */
function OneSpecies({
  categories,
  species,
  onKey,
  close,
}: {
  readonly categories: readonly Row[];
  readonly species: readonly Found[];
  readonly onKey: (key: string) => void;
  readonly close: () => void;
}) {
  const [category, setCategory] = useState(categories[0]?.id ?? '');
  return (
    <Dialog
      title="Another sum for one species"
      says="Turbot bones are worth more than plaice bones: what is said of one species goes before what is said of all."
      onClose={close}
    >
      <div className="grid gap-3">
        <Select label="What" value={category} onValue={setCategory} options={named(categories)} />
        <SearchSelect
          label="Species"
          placeholder="turbot"
          none="No species is called so."
          options={species}
          chosen=""
          onChoose={(id) => onKey(worthKey(category, id))}
        />
      </div>
    </Dialog>
  );
}

/** A line of a supplier's lists, from which the price of an ingredient is read from now on. */
function FromList({
  row,
  money,
  onLine,
  close,
}: {
  readonly row: Row;
  readonly money: (minor: number) => string;
  readonly onLine: (line: { supplierId: string; item: string }) => void;
  readonly close: () => void;
}) {
  // the longest word of it finds most: "butter, unsalted" stands on lists as "Unsalted butter 250 g"
  const [search, setSearch] = useState(
    () =>
      row.name
        .split(/[^\p{L}]+/u)
        .sort((a, b) => b.length - a.length)[0]
        ?.toLowerCase() ?? '',
  );
  const found = useQuery({
    queryKey: ['prices', 'matching', search.trim()],
    queryFn: () => call(api.receive.prices, { query: { search: search.trim(), limit: 50 } }),
    placeholderData: (before) => before,
  });
  return (
    <Dialog
      title={`${row.name}, from a price list`}
      says="Chosen once, its price follows each new list of that supplier. What is sold by the litre counts a litre as a kilogram."
      onClose={close}
    >
      <SearchBox label="Search the lists" placeholder="butter" value={search} onValue={setSearch} />
      {found.isLoadingError && <Failed error={found.error} again={() => void found.refetch()} />}
      <ul className="mt-2 h-[40vh] overflow-y-auto" aria-label="Lines of price lists">
        {found.data?.prices.length === 0 && <li className="py-2 text-ink-soft">No list has such a line.</li>}
        {found.data?.prices.map((p) => (
          <li key={`${p.supplierId} ${p.item}`}>
            <button
              type="button"
              className="flex min-h-14 w-full items-center justify-between gap-3 border-b border-line px-2 text-left hover:bg-white"
              onClick={() => onLine({ supplierId: p.supplierId, item: p.item })}
            >
              <span className="min-w-0 leading-tight">
                <span className="block truncate font-semibold">{p.item}</span>
                <span className="block text-[13px] text-ink-soft">
                  {p.supplierName}, sold by {p.unit}
                </span>
              </span>
              <span className="figure whitespace-nowrap">
                {money(perHouseMass(p.minorPerKg))} {aMass()}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

function WorthPage() {
  const house = useHouse();
  const saving = useSaveHouse();
  const catalogue = useCatalogue();
  const recipes = useQuery({ queryKey: ['batches', 'recipes'], queryFn: () => call(api.pots.recipes, {}) });
  const failed = [house, catalogue, recipes].find((q) => q.isLoadingError);
  const species = (catalogue.data?.species ?? []).map((s): Found => ({ id: s.id, name: s.name, group: s.group }));
  const categories = (catalogue.data?.categories ?? [])
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
          <WorthForm
            key={house.data.version}
            house={house.data}
            saving={saving}
            categories={categories}
            species={species}
            pantry={pantry}
          />
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
