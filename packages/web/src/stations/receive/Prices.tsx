import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { aMass, inMajor, perHouseMass, unitName } from '@zabrik/core';
import { lazy, Suspense, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime, dayName, todayIn } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { DataTable } from '../../kit/DataTable.tsx';
import { DateField } from '../../kit/DateField.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { ProgressBar } from '../../kit/ProgressBar.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { NewSupplier } from './NewSupplier.tsx';
import { faultWords, type PriceFile, readPriceFile, readWith } from './readPriceFile.ts';
import { priceListsQuery } from './reads.ts';
import { useSuppliers } from './useSuppliers.ts';

// the chart brings its library: only who opens an item's history waits for it
const PriceChart = lazy(() => import('./PriceChart.tsx'));

const PART = 1_000;
type Price = Answer<typeof api.receive.prices>['prices'][number];

function ReadIn({ file, done }: { readonly file: PriceFile; readonly done: () => void }) {
  const client = useQueryClient();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const suppliers = useSuppliers();
  const [item, setItem] = useState(file.guess.item ?? -1);
  const [price, setPrice] = useState(file.guess.price ?? -1);
  const [unit, setUnit] = useState(file.guess.unit ?? -1);
  const [supplierId, setSupplierId] = useState('');
  const [validFrom, setValidFrom] = useState(() => todayIn());
  const [sent, setSent] = useState(0);
  const [listId] = useState(() => uuidv7());
  const read =
    item >= 0 && price >= 0 && house !== undefined
      ? readWith(file, { item, price, unit: unit < 0 ? null : unit }, house.currency)
      : undefined;
  const send = useMutation({
    mutationFn: async () => {
      const rows = read?.rows ?? [];
      // tried again, it goes on where the last answer came
      for (let from = sent; from < rows.length; from += PART) {
        const part = rows.slice(from, from + PART);
        await call(api.receive.sendPrices, {
          body: {
            listId,
            supplierId,
            file: file.name.slice(0, 120),
            validFrom,
            last: from + PART >= rows.length,
            rows: part,
          },
        });
        setSent(from + part.length);
      }
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['prices'] });
      done();
    },
  });
  const column = (label: string, value: number, set: (n: number) => void, optional: boolean) => (
    <Select
      label={label}
      value={String(value)}
      onValue={(at) => set(Number(at))}
      options={[
        { value: '-1', name: optional ? 'none: all by the kilogram' : 'which column?' },
        ...file.columns.map((c) => ({ value: String(c.at), name: c.name })),
      ]}
    />
  );
  return (
    <section aria-label="Price list to read in" className="rounded-plate border-[1.5px] border-ink bg-white p-4">
      <h2 className="mb-2 text-lg font-bold">{file.name}</h2>
      <div className="grid gap-3 md:grid-cols-5">
        {column('Item', item, setItem, false)}
        {column('Price', price, setPrice, false)}
        {column('Unit', unit, setUnit, true)}
        <Select
          label="Supplier"
          value={supplierId}
          onValue={setSupplierId}
          none="whose list?"
          options={named(suppliers.data?.suppliers.filter((x) => !x.retired))}
        />
        <DateField
          label="Counts from"
          day={validFrom}
          value={validFrom}
          onChange={(event) => setValidFrom(event.target.value)}
        />
      </div>
      {read !== undefined && (
        <div className="mt-3 grid gap-4 md:grid-cols-2">
          <div>
            <p className="font-semibold" role="status">
              {read.rows.length} of {file.cells.length} rows can be read
            </p>
            <table className="w-full text-left text-[15px]">
              <thead className="sr-only">
                <tr>
                  <th>Item</th>
                  <th>A kilogram</th>
                </tr>
              </thead>
              <tbody>
                {read.rows.slice(0, 8).map((r) => (
                  <tr key={r.line} className="border-b border-line">
                    <td className="max-w-0 truncate py-1 pr-3">{r.item}</td>
                    <td className="figure w-28 text-right whitespace-nowrap">
                      {money(perHouseMass(r.minorPerKg))} {aMass()}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {read.faults.length > 0 && (
            <div>
              <p className="font-semibold text-alarm">{read.faults.length} are left out</p>
              <ul className="max-h-56 overflow-y-auto text-[14px]">
                {read.faults.slice(0, 200).map((f) => (
                  <li key={f.line}>
                    line {f.line} {faultWords[f.fault]}: <span className="text-ink-soft">“{f.cell}”</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
        </div>
      )}
      {send.isError && <Notice tone="alarm">{send.error.message} Nothing of the list counts.</Notice>}
      <div className="mt-3 flex items-center gap-3">
        <Button
          variant="strong"
          disabled={read === undefined || read.rows.length === 0 || supplierId === '' || send.isPending}
          onClick={() => send.mutate()}
        >
          {send.isPending ? `${sent} of ${read?.rows.length ?? 0} sent…` : `Read in ${read?.rows.length ?? 0} prices`}
        </Button>
        {send.isPending && <ProgressBar label="Rows sent" doneRatio={sent / (read?.rows.length ?? 1)} />}
        <Button onClick={done}>Not this file</Button>
      </div>
    </section>
  );
}

function History({ price, close }: { readonly price: Price; readonly close: () => void }) {
  const { data: house } = useHouse();
  const history = useQuery({
    queryKey: ['prices', 'history', price.item, price.supplierId],
    queryFn: () => call(api.receive.priceHistory, { query: { item: price.item, supplierId: price.supplierId } }),
  });
  return (
    <section aria-label="Price history" className="rounded-plate border border-line bg-white p-3">
      <div className="flex items-start justify-between gap-3">
        <h2 className="text-lg leading-tight font-bold">
          {price.item} <span className="block text-[14px] font-normal text-ink-soft">{price.supplierName}</span>
        </h2>
        <Button onClick={close}>Close</Button>
      </div>
      {history.isSuccess && (
        <Suspense fallback={<Loading />}>
          <PriceChart points={history.data.points} currency={house?.currency ?? 'GBP'} />
        </Suspense>
      )}
    </section>
  );
}

/** How much dearer or cheaper it is than before; null where there was no price before. */
const changeShare = (p: Price): number | null =>
  p.beforeMinor === null || p.beforeMinor === 0 ? null : (p.minorPerKg - p.beforeMinor) / p.beforeMinor;

/** How many count, and how many of them stand there. */
export const moreWords = (shown: number, total: number): string =>
  shown < total
    ? `${shown} of ${total.toLocaleString('en')} prices`
    : `${total} ${total === 1 ? 'price counts' : 'prices count'} today`;

/** What things cost: price lists read in from CSV, the price that counts for each item, and how it went. */
export default function Prices() {
  const may = useMay('receive.sendPrices');
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const [search, setSearch] = useState('');
  const [file, setFile] = useState<PriceFile | string | undefined>(undefined);
  const [opened, setOpened] = useState<Price | undefined>(undefined);
  const prices = useQuery({
    queryKey: ['prices', 'list', search.trim()],
    queryFn: () =>
      call(api.receive.prices, { query: { search: search.trim() === '' ? undefined : search.trim(), limit: 200 } }),
    placeholderData: (before) => before,
  });
  const lists = useQuery(priceListsQuery);
  const undo = useCommand(api.receive.undoPrices);
  const change = (p: Price): string => {
    const share = changeShare(p) ?? 0;
    return share === 0 ? '' : `${share > 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(1)} %`;
  };
  return (
    <div className="flex flex-1 flex-col">
      <ReceiveHead />
      <div className="grid flex-1 content-start gap-0 lg:grid-cols-[minmax(0,1fr)_360px] lg:content-stretch">
        <section className="bg-sheet px-5 py-4" aria-label="Prices">
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <SearchBox
              label="Search an item"
              placeholder="hake, cream"
              value={search}
              onValue={setSearch}
              className="w-72"
            />
            <PaperLink to="/paper/prices.pdf" />
            <p className="text-ink-soft" role="status">
              {prices.data !== undefined && moreWords(prices.data.prices.length, prices.data.total)}
            </p>
            {may && (
              <label className="ml-auto inline-flex min-h-11 cursor-pointer items-center rounded-plate bg-ink px-4 font-head font-semibold text-white has-focus-visible:outline-3 has-focus-visible:outline-attention">
                Read in a CSV list
                <input
                  type="file"
                  accept=".csv,text/csv,text/plain"
                  className="sr-only"
                  onChange={(event) => {
                    const [chosen] = event.target.files ?? [];
                    event.target.value = '';
                    if (chosen === undefined) return;
                    chosen.arrayBuffer().then(
                      (bytes) => setFile(readPriceFile(chosen.name, bytes)),
                      () => setFile('The file cannot be read.'),
                    );
                  }}
                />
              </label>
            )}
          </div>
          {typeof file === 'string' && <Notice tone="alarm">{file} Nothing was read in.</Notice>}
          {typeof file === 'object' && <ReadIn key={file.name} file={file} done={() => setFile(undefined)} />}
          {prices.isPending ? (
            <Loading />
          ) : prices.isLoadingError ? (
            <Failed error={prices.error} again={() => void prices.refetch()} />
          ) : prices.data.prices.length === 0 ? (
            <Empty title={search.trim() === '' ? 'No price list yet' : 'No such item'}>
              A supplier’s list as CSV: a column with names, one with prices, perhaps one with units. Each row is shown
              before anything counts.
            </Empty>
          ) : (
            <DataTable
              rows={prices.data.prices}
              rowId={(p) => `${p.supplierId} ${p.item}`}
              whole={prices.data.prices.length === prices.data.total}
              file="prices.csv"
              caption={
                prices.data.prices.length < prices.data.total
                  ? `${(prices.data.total - prices.data.prices.length).toLocaleString('en')} more are not shown. Search for an item.`
                  : undefined
              }
              columns={[
                {
                  id: 'item',
                  head: 'Item',
                  className: 'max-w-0 w-[38%]',
                  value: (p) => p.item,
                  cell: (p) => (
                    <button
                      type="button"
                      className="block min-h-9 max-w-full truncate text-left font-semibold underline"
                      onClick={() => setOpened(p)}
                    >
                      {p.item}
                    </button>
                  ),
                },
                { id: 'supplier', head: 'Supplier', value: (p) => p.supplierName },
                {
                  id: 'price',
                  head: unitName('kg') === 'kg' ? 'A kilogram' : 'A pound',
                  figure: true,
                  value: (p) => inMajor(p.minorPerKg, house?.currency ?? 'GBP'),
                  cell: (p) => <span className="figure">{money(perHouseMass(p.minorPerKg))}</span>,
                },
                {
                  id: 'before',
                  head: 'Before',
                  figure: true,
                  className: 'text-ink-soft',
                  value: (p) => (p.beforeMinor === null ? null : inMajor(p.beforeMinor, house?.currency ?? 'GBP')),
                  cell: (p) => (p.beforeMinor === null ? '' : money(perHouseMass(p.beforeMinor))),
                },
                {
                  id: 'change',
                  head: 'Change',
                  figure: true,
                  value: changeShare,
                  cell: (p) => (
                    <span className={(changeShare(p) ?? 0) > 0 ? 'font-semibold text-alarm' : ''}>{change(p)}</span>
                  ),
                },
                {
                  id: 'since',
                  head: 'Since',
                  className: 'pl-4 whitespace-nowrap text-ink-soft',
                  value: (p) => p.validFrom,
                  cell: (p) => dayName(p.validFrom),
                },
              ]}
            />
          )}
        </section>
        <aside
          className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-4 border-line bg-sheet-soft p-4 lg:border-l"
          aria-label="Lists"
        >
          {opened !== undefined && (
            <History key={`${opened.supplierId} ${opened.item}`} price={opened} close={() => setOpened(undefined)} />
          )}
          {may && <NewSupplier />}
          <section>
            <h2 className="mb-2 text-lg font-bold">Lists read in</h2>
            {undo.error !== null && <Notice tone="alarm">{undo.error.message}</Notice>}
            <ol className="grid grid-cols-[minmax(0,1fr)] gap-2">
              {lists.data?.lists.map((l) => (
                <li
                  key={l.id}
                  className={`rounded-md border border-line bg-white px-3 py-2 text-[14px] ${l.state === 'taken-back' ? 'opacity-60' : ''}`}
                >
                  <span className="flex justify-between gap-3 font-semibold">
                    <span className={`truncate ${l.state === 'taken-back' ? 'line-through' : ''}`}>
                      {l.supplierName}
                    </span>
                    <span>{l.rows} rows</span>
                  </span>
                  <span className="block truncate text-ink-soft">
                    {l.file}, from {dayName(l.validFrom)}; {l.by}, {dayAndTime(l.at)}
                  </span>
                  {l.state === 'coming' && <span className="text-alarm">not whole: it does not count</span>}
                  {may && l.state === 'stands' && (
                    <button
                      type="button"
                      className="min-h-9 underline"
                      disabled={undo.pending}
                      onClick={() => undo.send({ params: { listId: l.id } })}
                    >
                      Take it back
                    </button>
                  )}
                </li>
              ))}
            </ol>
          </section>
        </aside>
      </div>
    </div>
  );
}
