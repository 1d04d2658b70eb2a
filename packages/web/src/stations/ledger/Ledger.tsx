import { useInfiniteQuery } from '@tanstack/react-query';
import type { ClosedBreakdown } from '@zabrik/contract';
import { formatMass, formatShare } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call } from '../../app/api.ts';
import { clockTime, dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { amountIn } from '../../parts/amountIn.ts';
import { MiniRibbon } from '../../parts/Ribbon.tsx';
import { Files } from './Files.tsx';

function Row({ b, money }: { readonly b: ClosedBreakdown; readonly money: (minor: number) => string }) {
  const navigate = useNavigate();
  return (
    <tr
      className="cursor-pointer border-b border-line hover:bg-sheet-soft"
      onClick={() => void navigate(`/ledger/${b.id}`)}
    >
      <td className="py-2 pr-3 pl-4 leading-tight whitespace-nowrap">
        {b.closedAt !== null && dayName(b.closedAt)}
        <span className="block text-[13px] text-ink-soft">{b.closedAt !== null && clockTime(b.closedAt)}</span>
      </td>
      <td className="max-w-0 py-2 pr-3 leading-tight">
        <Link
          to={`/ledger/${b.id}`}
          className="block truncate font-head text-[16px] font-semibold"
          onClick={(event) => event.stopPropagation()}
        >
          {b.speciesName}, {b.formName}
        </Link>
        <span className="block truncate text-[13px] text-ink-soft">
          {b.lotCode}
          {b.supplierName !== null && ` · ${b.supplierName}`} · {b.by}
        </span>
      </td>
      <td className="py-2 pr-4">
        <MiniRibbon
          totalMg={b.startMg}
          parts={b.ribbon.map((part) => ({ ...part, id: `${part.pieceId}/${part.destination}`, name: part.pieceId }))}
        />
      </td>
      <td className="figure py-2 pr-4 text-right">{formatMass(b.startMg)}</td>
      <td className="figure py-2 pr-4 text-right text-lg">{formatShare(b.mainShare)}</td>
      <td className="py-2 pr-4 text-right">{formatShare(b.recoveredShare)}</td>
      <td className="py-2 pr-4 text-right">{formatShare(b.wasteShare)}</td>
      <td
        className={`py-2 pr-4 text-right ${b.unaccountedShare < 0 || b.unaccountedShare > 0.04 ? 'font-semibold text-alarm' : ''}`}
      >
        {formatShare(b.unaccountedShare)}
      </td>
      <td className="py-2 pr-4 text-right">{money(b.startMinor)}</td>
    </tr>
  );
}

/** Breakdowns closed, with their yields. */
function Breakdowns({ species }: { readonly species: string }) {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const list = useInfiniteQuery({
    queryKey: ['breakdowns', 'closed', species],
    queryFn: ({ pageParam }) =>
      call(api.ledger.list, { query: { species: species === '' ? undefined : species, cursor: pageParam, limit: 50 } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  });
  const rows = list.data?.pages.flatMap((page) => page.breakdowns) ?? [];
  return (
    <>
      {list.isPending ? (
        <Loading />
      ) : list.isLoadingError ? (
        <Failed error={list.error} again={() => void list.refetch()} />
      ) : rows.length === 0 ? (
        <Empty title={species === '' ? 'No yield yet' : 'None of these cut yet'}>
          Close a stage on the{' '}
          <Link to="/bench" className="underline">
            bench
          </Link>{' '}
          and its yield sheet stands here.
        </Empty>
      ) : (
        <>
          <table className="w-full min-w-[1120px] table-fixed border-collapse text-left">
            <thead className="text-[14px] text-ink-soft">
              <tr className="border-b border-line">
                <th className="w-[128px] py-2 pl-4 font-semibold">Closed</th>
                <th className="py-2 font-semibold">Animal</th>
                <th className="w-[280px] py-2 font-semibold">Where it went</th>
                <th className="w-[96px] py-2 pr-4 text-right font-semibold">Start</th>
                <th className="w-[92px] py-2 pr-4 text-right font-semibold">Main cut</th>
                <th className="w-[100px] py-2 pr-4 text-right font-semibold">Recovered</th>
                <th className="w-[84px] py-2 pr-4 text-right font-semibold">Waste</th>
                <th className="w-[112px] py-2 pr-4 text-right font-semibold">Unaccounted</th>
                <th className="w-[92px] py-2 pr-4 text-right font-semibold">Paid</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((b) => (
                <Row key={b.id} b={b} money={money} />
              ))}
            </tbody>
          </table>
          <Earlier list={list} />
        </>
      )}
    </>
  );
}

const headLook = 'py-2 pr-4 font-semibold';

/** What was cut to weight: portions, what was given away, ends. */
function Cuttings() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const navigate = useNavigate();
  const list = useInfiniteQuery({
    queryKey: ['cuttings', 'closed'],
    queryFn: ({ pageParam }) => call(api.ledger.cuttings, { query: { cursor: pageParam, limit: 50 } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  if (list.isPending) return <Loading />;
  if (list.isLoadingError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const rows = list.data.pages.flatMap((page) => page.cuttings);
  if (rows.length === 0)
    return (
      <Empty title="Nothing cut to weight yet">
        What is cut on the{' '}
        <Link to="/bench/cut" className="underline">
          ruler
        </Link>{' '}
        stands here with what it gave away.
      </Empty>
    );
  return (
    <>
      <table className="w-full min-w-[960px] table-fixed border-collapse text-left">
        <thead className="text-[14px] text-ink-soft">
          <tr className="border-b border-line">
            <th className="w-[128px] py-2 pl-4 font-semibold">Cut</th>
            <th className={headLook}>What</th>
            <th className={`w-[96px] text-right ${headLook}`}>Start</th>
            <th className={`w-[110px] text-right ${headLook}`}>Made</th>
            <th className={`w-[96px] text-right ${headLook}`}>Portions</th>
            <th className={`w-[110px] text-right ${headLook}`}>Given away</th>
            <th className={`w-[96px] text-right ${headLook}`}>Ends</th>
            <th className={`w-[92px] text-right ${headLook}`}>Cost</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((c) => (
            <tr
              key={c.id}
              className="cursor-pointer border-b border-line hover:bg-sheet-soft"
              onClick={() => void navigate(`/bench/cut/${c.id}`)}
            >
              <td className="py-2 pr-3 pl-4 leading-tight whitespace-nowrap">
                {dayName(c.closedAt)}
                <span className="block text-[13px] text-ink-soft">{clockTime(c.closedAt)}</span>
              </td>
              <td className="max-w-0 py-2 pr-3 leading-tight">
                <Link to={`/bench/cut/${c.id}`} className="block truncate font-head text-[16px] font-semibold">
                  {c.name}
                </Link>
                <span className="block truncate text-[13px] text-ink-soft">
                  {c.lotCodes.join(', ')} · {c.by}
                </span>
              </td>
              <td className="figure py-2 pr-4 text-right">{formatMass(c.usedMg)}</td>
              <td className="py-2 pr-4 text-right">{formatShare(c.madeMg / c.usedMg)}</td>
              <td className="figure py-2 pr-4 text-right">{c.portions}</td>
              <td className="py-2 pr-4 text-right">{formatMass(c.giveAwayMg)}</td>
              <td className="py-2 pr-4 text-right">{formatMass(c.endMg + c.wasteMg)}</td>
              <td className="py-2 pr-4 text-right">{money(c.costMinor)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Earlier list={list} />
    </>
  );
}

/** Batches that are done, against what was expected of them. */
function Batches() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const navigate = useNavigate();
  const list = useInfiniteQuery({
    queryKey: ['batches', 'closed'],
    queryFn: ({ pageParam }) => call(api.ledger.batches, { query: { cursor: pageParam, limit: 50 } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  if (list.isPending) return <Loading />;
  if (list.isLoadingError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const rows = list.data.pages.flatMap((page) => page.batches);
  if (rows.length === 0)
    return (
      <Empty title="No batch done yet">
        Stocks, fillings and dishes stand here once they are weighed out of the{' '}
        <Link to="/pots" className="underline">
          pot
        </Link>
        .
      </Empty>
    );
  return (
    <>
      <table className="w-full min-w-[900px] table-fixed border-collapse text-left">
        <thead className="text-[14px] text-ink-soft">
          <tr className="border-b border-line">
            <th className="w-[128px] py-2 pl-4 font-semibold">Done</th>
            <th className={headLook}>Batch</th>
            <th className={`w-[110px] text-right ${headLook}`}>Base</th>
            <th className={`w-[110px] text-right ${headLook}`}>Came out</th>
            <th className={`w-[220px] text-right ${headLook}`}>Expected</th>
            <th className={`w-[92px] text-right ${headLook}`}>Cost</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((b) => {
            const off = b.outputMg < b.expectedMg.low || b.outputMg > b.expectedMg.high;
            return (
              <tr
                key={b.batchId}
                className="cursor-pointer border-b border-line hover:bg-sheet-soft"
                onClick={() => void navigate(`/pots/stove/${b.batchId}`)}
              >
                <td className="py-2 pr-3 pl-4 leading-tight whitespace-nowrap">
                  {dayName(b.doneAt)}
                  <span className="block text-[13px] text-ink-soft">{clockTime(b.doneAt)}</span>
                </td>
                <td className="max-w-0 py-2 pr-3 leading-tight">
                  <Link to={`/pots/stove/${b.batchId}`} className="block truncate font-head text-[16px] font-semibold">
                    {b.title}
                  </Link>
                  <span className="block truncate text-[13px] text-ink-soft">
                    {b.lotCode !== null && `${b.lotCode} · `}
                    {b.by}
                  </span>
                </td>
                <td className="figure py-2 pr-4 text-right">{formatMass(b.baseMg)}</td>
                <td className={`figure py-2 pr-4 text-right ${off ? 'text-alarm' : ''}`}>
                  {amountIn(b.measure, b.outputMg)}
                </td>
                <td className="py-2 pr-4 text-right text-ink-soft">
                  {amountIn(b.measure, b.expectedMg.low)} to {amountIn(b.measure, b.expectedMg.high)}
                </td>
                <td className="py-2 pr-4 text-right">{b.costMinor === null ? '–' : money(b.costMinor)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Earlier list={list} />
    </>
  );
}

interface Paged {
  readonly hasNextPage: boolean;
  readonly isFetchingNextPage: boolean;
  readonly fetchNextPage: () => unknown;
}

function Earlier({ list }: { readonly list: Paged }) {
  if (!list.hasNextPage) return null;
  return (
    <div className="p-4 text-center">
      <Button onClick={() => void list.fetchNextPage()} disabled={list.isFetchingNextPage}>
        {list.isFetchingNextPage ? 'Reading…' : 'Earlier ones'}
      </Button>
    </div>
  );
}

const kinds = [
  { id: 'breakdowns', name: 'Breakdowns' },
  { id: 'cuttings', name: 'Cut to weight' },
  { id: 'batches', name: 'Batches' },
  { id: 'files', name: 'Files' },
] as const;

/** Every yield, cutting and batch of the house, newest first. */
export default function Ledger() {
  const mayFiles = useMay('jobs.list');
  const [params, setParams] = useSearchParams();
  const mine = kinds.filter((k) => k.id !== 'files' || mayFiles);
  const shown = mine.find((k) => k.id === params.get('show'))?.id ?? 'breakdowns';
  const [species, setSpecies] = useState('');
  const catalogue = useCatalogue();
  const cuttable =
    catalogue.data?.species.filter((s) =>
      catalogue.data.plans.some((p) => p.starts.some((start) => start.species === s.id)),
    ) ?? [];
  return (
    <section className="min-w-0 flex-1 overflow-x-auto bg-sheet" aria-label="Ledger">
      <div className="flex flex-wrap items-center gap-4 border-b border-line px-4 py-3">
        <h1 className="text-2xl font-bold">Ledger</h1>
        <fieldset className="flex flex-wrap gap-1.5 border-0 p-0" aria-label="What is listed">
          {mine.map((k) => (
            <Toggle
              key={k.id}
              on={shown === k.id}
              onPress={() => setParams(k.id === 'breakdowns' ? {} : { show: k.id }, { replace: true })}
            >
              {k.name}
            </Toggle>
          ))}
        </fieldset>
        {shown === 'breakdowns' && (
          <Select
            label="Animal"
            beside
            className="ml-auto"
            value={species}
            onValue={setSpecies}
            none="all"
            options={named(cuttable)}
          />
        )}
      </div>
      {shown === 'breakdowns' && <Breakdowns species={species} />}
      {shown === 'cuttings' && <Cuttings />}
      {shown === 'batches' && <Batches />}
      {shown === 'files' && <Files />}
    </section>
  );
}
