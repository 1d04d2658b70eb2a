import { useInfiniteQuery } from '@tanstack/react-query';
import type { ClosedBreakdown } from '@zabrik/contract';
import { formatMass, formatShare } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { clockTime, dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { inputLook } from '../../parts/Field.tsx';
import { Empty, Failed, Loading } from '../../parts/Notice.tsx';
import { MiniRibbon } from '../../parts/Ribbon.tsx';

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
          {b.lotCode} · {b.supplierName} · {b.by}
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

export default function Ledger() {
  const mayCsv = useMay('ledger.exportCsv');
  const mayHouse = useMay('ledger.exportHouse');
  const [species, setSpecies] = useState('');
  const catalogue = useCatalogue();
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
  const cuttable =
    catalogue.data?.species.filter((s) =>
      catalogue.data.plans.some((p) => p.starts.some((start) => start.species === s.id)),
    ) ?? [];
  return (
    <section className="min-w-0 flex-1 overflow-x-auto bg-sheet" aria-label="Earlier breakdowns">
      <div className="flex items-center gap-4 border-b border-line px-4 py-3">
        <h1 className="text-2xl font-bold">Ledger</h1>
        <p className="text-ink-soft">Every breakdown closed, newest first</p>
        <label className="ml-auto flex items-center gap-2">
          Animal
          <select
            className={`${inputLook} h-11 w-52!`}
            value={species}
            onChange={(event) => setSpecies(event.target.value)}
          >
            <option value="">all</option>
            {cuttable.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
        {(mayCsv || mayHouse) && (
          <p className="flex flex-wrap items-baseline gap-x-4 text-[15px]">
            <span className="text-ink-soft">The books to take along:</span>
            {mayCsv && (
              <>
                <a className="underline" href="/api/v1/ledger/movements.csv" download>
                  CSV
                </a>
                <a className="underline" href="/api/v1/ledger/movements.jsonld" download>
                  EPCIS events
                </a>
              </>
            )}
            {mayHouse && (
              <a className="underline" href="/api/v1/ledger/house.json" download>
                the whole house, JSON
              </a>
            )}
          </p>
        )}
      </div>
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
          {list.hasNextPage && (
            <div className="p-4 text-center">
              <Button onClick={() => void list.fetchNextPage()} disabled={list.isFetchingNextPage}>
                {list.isFetchingNextPage ? 'Reading…' : 'Earlier ones'}
              </Button>
            </div>
          )}
        </>
      )}
    </section>
  );
}
