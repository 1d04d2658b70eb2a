import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { type Destination, formatMass } from '@zabrik/core';
import { Search } from 'lucide-react';
import { ToggleGroup } from 'radix-ui';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../../app/api.ts';
import { ageWords, dayName, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { clothOf, trayName, trays } from '../../parts/destinations.ts';
import { inputLook } from '../../parts/Field.tsx';
import { Empty, Failed, Loading } from '../../parts/Notice.tsx';
import { MiniRibbon } from '../../parts/Ribbon.tsx';
import { LotPanel } from './LotPanel.tsx';

const filters: readonly { readonly id: Destination | 'whole'; readonly name: string }[] = [
  { id: 'whole', name: 'To be cut' },
  ...trays.filter((tray) => tray.id !== 'waste'),
];

const tones = {
  late: 'text-alarm font-bold',
  now: 'text-alarm font-semibold',
  soon: 'font-semibold',
  fine: '',
  none: 'text-ink-soft',
} as const;

function Row({
  lot,
  heaviest,
  chosen,
  money,
}: {
  readonly lot: Lot;
  readonly heaviest: number;
  readonly chosen: boolean;
  readonly money: (minor: number) => string;
}) {
  const navigate = useNavigate();
  const due = dueWords(lot.useBy);
  const where = lot.destination ?? 'whole';
  return (
    <tr
      className={`cursor-pointer border-b border-line ${chosen ? 'bg-calm-soft' : 'hover:bg-sheet-soft'}`}
      onClick={() => void navigate(`/larder/${lot.id}`)}
    >
      <td className={`py-2 pr-3 pl-4 leading-tight whitespace-nowrap ${tones[due.tone]}`}>
        {due.text}
        <span className="block text-[13px] font-normal text-ink-soft">
          {lot.useBy === null ? '' : dayName(lot.useBy)}
        </span>
      </td>
      <td className="max-w-0 py-2 pr-3 leading-tight">
        <Link
          to={`/larder/${lot.id}`}
          className="block truncate font-head text-[16px] font-semibold"
          onClick={(event) => event.stopPropagation()}
        >
          {lot.name}
        </Link>
        <span className="block truncate text-[13px] text-ink-soft">
          <span className="figure font-semibold">{lot.code}</span>
          {lot.parentCodes.length > 0 &&
            ` from ${lot.parentCodes.slice(0, 3).join(', ')}${lot.parentCodes.length > 3 ? ` and ${lot.parentCodes.length - 3} more` : ''}`}
          {lot.supplierName !== null && ` · ${lot.supplierName}`}
        </span>
      </td>
      <td className="py-2 pr-3 max-md:hidden">
        <span className="flex items-center gap-2 text-[15px]">
          <span className={`size-4 shrink-0 rounded-[3px] border border-ink/30 ${clothOf[where]}`} aria-hidden="true" />
          {lot.destination === null ? 'to be cut' : trayName(lot.destination).toLowerCase()}
        </span>
      </td>
      <td className="py-2 pr-3 max-md:hidden">
        <MiniRibbon
          totalMg={lot.massMg}
          scaleMg={heaviest}
          parts={[{ id: lot.id, name: lot.name, destination: where, massMg: lot.massMg }]}
        />
      </td>
      <td className="figure py-2 pr-4 text-right">{formatMass(lot.massMg)}</td>
      <td className="py-2 pr-4 text-right max-md:hidden">{money(lot.costMinor)}</td>
      <td className="py-2 pr-4 text-right whitespace-nowrap text-ink-soft max-md:hidden">{ageWords(lot.madeAt)}</td>
    </tr>
  );
}

export default function Larder() {
  const { lotId } = useParams();
  const [search, setSearch] = useState('');
  const [destination, setDestination] = useState<Destination | 'whole' | undefined>(undefined);
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const filter = {
    search: search.trim() === '' ? undefined : search.trim(),
    destination: destination === 'whole' ? undefined : destination,
    kind: destination === 'whole' ? ('delivery' as const) : undefined,
  };
  const lots = useInfiniteQuery({
    queryKey: ['lots', 'list', filter],
    queryFn: ({ pageParam }) => call(api.larder.list, { query: { ...filter, cursor: pageParam, limit: 100 } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  });
  const chosen = useQuery({
    queryKey: ['lots', 'one', lotId],
    queryFn: () => call(api.larder.read, { params: { lotId: lotId ?? '' } }),
    enabled: lotId !== undefined,
  });
  const rows = lots.data?.pages.flatMap((page) => page.lots) ?? [];
  const heaviest = Math.max(1, ...rows.map((lot) => lot.massMg));
  const total = lots.data?.pages[0]?.total ?? 0;
  const filtered = filter.search !== undefined || destination !== undefined;
  return (
    <div className={`grid flex-1 ${lotId === undefined ? 'grid-cols-1' : 'lg:grid-cols-[1fr_400px]'}`}>
      <section className="min-w-0 bg-sheet" aria-label="On hand">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 py-3">
          <h1 className="text-2xl font-bold">Larder</h1>
          <p className="text-ink-soft" role="status">
            {lots.isSuccess && `${total} ${total === 1 ? 'lot' : 'lots'} on hand, earliest date first`}
          </p>
          <div className="relative ml-auto w-64">
            <Search size={18} className="absolute top-3 left-3 text-ink-soft" aria-hidden="true" />
            <input
              type="search"
              aria-label="Search by name, code or supplier"
              placeholder="name, code, supplier"
              className={`${inputLook} h-11 pl-9`}
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
          </div>
          <ToggleGroup.Root
            type="single"
            aria-label="Only one tray"
            className="flex w-full flex-wrap gap-2"
            value={destination ?? 'all'}
            onValueChange={(value) => setDestination(filters.find((f) => f.id === value)?.id)}
          >
            {[{ id: 'all', name: 'All' } as const, ...filters].map((t) => (
              <ToggleGroup.Item
                key={t.id}
                value={t.id}
                className="flex min-h-10 items-center gap-2 rounded-full border-[1.5px] border-line-strong bg-white px-3.5 text-[15px] data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-white"
              >
                {t.id !== 'all' && (
                  <span
                    className={`size-3.5 rounded-[3px] border border-white/60 ${clothOf[t.id]}`}
                    aria-hidden="true"
                  />
                )}
                {t.name}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
        </div>
        {lots.isPending ? (
          <Loading />
        ) : lots.isError ? (
          <Failed error={lots.error} again={() => void lots.refetch()} />
        ) : rows.length === 0 ? (
          filtered ? (
            <Empty title="Nothing like that on hand">
              <button
                type="button"
                className="underline"
                onClick={() => {
                  setSearch('');
                  setDestination(undefined);
                }}
              >
                Show everything
              </button>
            </Empty>
          ) : (
            <Empty title="The larder is empty">
              What you receive and cut stands here with its age and its date.{' '}
              <Link className="underline" to="/receive">
                Receive something
              </Link>
              .
            </Empty>
          )
        ) : (
          <>
            <table className="w-full table-fixed border-collapse text-left">
              <thead className="text-[14px] text-ink-soft">
                <tr className="border-b border-line">
                  <th className="w-[128px] py-2 pl-4 font-semibold lg:w-[142px]">Use by</th>
                  <th className="py-2 font-semibold">What</th>
                  <th className="w-[124px] py-2 font-semibold max-md:hidden">For</th>
                  <th
                    className={`py-2 font-semibold max-md:hidden ${lotId === undefined ? 'w-[110px] lg:w-[200px]' : 'w-[90px]'}`}
                  >
                    <span className="sr-only">Mass as length</span>
                  </th>
                  <th className="w-[96px] py-2 pr-4 text-right font-semibold">Mass</th>
                  <th className="w-[84px] py-2 pr-4 text-right font-semibold max-md:hidden">Cost</th>
                  <th className="w-[76px] py-2 pr-4 text-right font-semibold max-md:hidden">Age</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((lot) => (
                  <Row key={lot.id} lot={lot} heaviest={heaviest} chosen={lot.id === lotId} money={money} />
                ))}
              </tbody>
            </table>
            {lots.hasNextPage && (
              <div className="p-4 text-center">
                <Button onClick={() => void lots.fetchNextPage()} disabled={lots.isFetchingNextPage}>
                  {lots.isFetchingNextPage ? 'Reading…' : `Show more of ${total}`}
                </Button>
              </div>
            )}
          </>
        )}
      </section>
      {lotId !== undefined && (
        <aside className="border-line bg-sheet-soft max-lg:order-first max-lg:border-b lg:border-l" aria-label="Lot">
          {chosen.isPending ? (
            <Loading />
          ) : chosen.isError ? (
            <Failed error={chosen.error} again={() => void chosen.refetch()} />
          ) : (
            <LotPanel key={chosen.data.id} lot={chosen.data} money={money} />
          )}
        </aside>
      )}
    </div>
  );
}
