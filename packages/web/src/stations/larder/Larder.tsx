import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import { ToggleGroup } from 'radix-ui';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { lotQuery, moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { clothOf, trays } from '../../parts/destinations.ts';
import { WaitsHereOf } from '../../parts/WaitsHere.tsx';
import { Chosen } from './Chosen.tsx';
import { LarderHead } from './LarderHead.tsx';
import { type Item, LotList, narrow, wide } from './LotList.tsx';
import { LotPanel } from './LotPanel.tsx';
import { type Grouping, groupings, groupKey, isGrouping, isShow, shows } from './larderWords.ts';

const filters: readonly { readonly id: Destination | 'whole' | 'goods'; readonly name: string }[] = [
  { id: 'whole', name: 'To be cut' },
  ...trays.filter((tray) => tray.id !== 'waste'),
  { id: 'goods', name: 'Vegetables, dry' },
];

/** Lots with a heading where another group begins. */
const withHeads = (lots: readonly Lot[], by: Grouping): Item[] =>
  lots.flatMap((lot, i): Item[] => {
    const before = lots[i - 1];
    const key = groupKey(by, lot);
    const item: Item = { kind: 'lot', lot };
    return before !== undefined && groupKey(by, before) === key ? [item] : [{ kind: 'head', key }, item];
  });

/** What the screen shows, asked for on paper. */
const paperQuery = (filter: Readonly<Record<string, string | undefined>>): string =>
  new URLSearchParams(
    Object.entries(filter).flatMap(([name, value]): [string, string][] => (value === undefined ? [] : [[name, value]])),
  ).toString();

export default function Larder() {
  const { lotId } = useParams();
  const [params, setParams] = useSearchParams();
  const order = params.get('by') ?? '';
  const by: Grouping = isGrouping(order) ? order : 'date';
  const asked = params.get('show') ?? '';
  const shown = isShow(asked) ? asked : 'all';
  const tray = filters.find((f) => f.id === params.get('tray'))?.id;
  const place = params.get('place') ?? '';
  const [search, setSearch] = useState('');
  const [picked, setPicked] = useState<ReadonlyMap<string, Lot>>(new Map());
  const may = useMay('larder.keep');
  const { data: house } = useHouse();
  const { data: catalogue } = useCatalogue();
  const money = useMemo(() => moneyOf(house), [house]);
  const set = (name: string, value: string | undefined): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === undefined || value === '') next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const filter = {
    search: search.trim() === '' ? undefined : search.trim(),
    destination: tray === 'whole' || tray === 'goods' ? undefined : tray,
    kind: tray === 'whole' ? ('delivery' as const) : tray === 'goods' ? ('goods' as const) : undefined,
    place: place === '' ? undefined : place,
    state: shown === 'frozen' || shown === 'thawed' ? shown : undefined,
    due: shown === 'past' || shown === 'today' || shown === 'soon' ? shown : undefined,
    held: shown === 'held' ? ('yes' as const) : undefined,
    group: by,
  };
  const lots = useInfiniteQuery({
    queryKey: ['lots', 'list', filter],
    queryFn: ({ pageParam }) => call(api.larder.list, { query: { ...filter, cursor: pageParam, limit: 200 } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  });
  const groups = useQuery({
    queryKey: ['lots', 'groups', by],
    queryFn: () => call(api.larder.groups, { query: { by } }),
  });
  const chosen = useQuery({
    ...lotQuery(lotId ?? ''),
    enabled: lotId !== undefined,
  });
  const { data, hasNextPage, isFetchingNextPage, isFetchNextPageError, fetchNextPage } = lots;
  const rows = useMemo(() => data?.pages.flatMap((page) => page.lots) ?? [], [data]);
  const items = useMemo(() => withHeads(rows, by), [rows, by]);
  const sums = useMemo(() => new Map(groups.data?.groups.map((g) => [g.key, g])), [groups.data]);
  const heaviest = useMemo(() => rows.reduce((most, lot) => Math.max(most, lot.massMg), 1), [rows]);
  const total = data?.pages[0]?.total ?? 0;
  const filtered = filter.search !== undefined || tray !== undefined || place !== '' || shown !== 'all';

  const pick = useRef((lot: Lot): void =>
    setPicked((before) => {
      const next = new Map(before);
      if (!next.delete(lot.id)) next.set(lot.id, lot);
      return next;
    }),
  );
  const askMore = useCallback(() => void fetchNextPage(), [fetchNextPage]);
  const known = useMemo(
    () => ({ house, species: catalogue?.species ?? [], goods: catalogue?.goods ?? [] }),
    [house, catalogue],
  );
  return (
    <div
      className={`grid min-h-0 flex-1 ${lotId === undefined ? 'grid-cols-1' : 'lg:grid-cols-[minmax(0,1fr)_420px]'}`}
    >
      <section className="flex min-w-0 flex-col bg-sheet lg:h-[calc(100dvh-52px)]" aria-label="On hand">
        <LarderHead>
          <p className="text-ink-soft" role="status">
            {lots.isSuccess && `${total} ${total === 1 ? 'lot' : 'lots'}${filtered ? '' : ' on hand'}`}
          </p>
          <SearchBox
            label="Search by name, code or supplier"
            placeholder="name, code, supplier, dish"
            value={search}
            onValue={setSearch}
            className="ml-auto w-64"
          />
          <PaperLink to={`/paper/larder.pdf?${paperQuery(filter)}`} />
        </LarderHead>
        <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
          <Select
            aria-label="In which order"
            fit
            value={by}
            onValue={(value) => set('by', value)}
            options={named(groupings)}
          />
          <Select
            aria-label="Which place"
            fit
            value={place}
            onValue={(value) => set('place', value)}
            none="every place"
            options={named(house?.places)}
          />
          <Select
            aria-label="Which lots"
            fit
            value={shown}
            onValue={(value) => set('show', value === 'all' ? undefined : value)}
            options={named(shows)}
          />
          <ToggleGroup.Root
            type="single"
            aria-label="Only one tray"
            className="flex flex-wrap gap-1.5"
            value={tray ?? 'all'}
            onValueChange={(value) => set('tray', value === 'all' ? undefined : value)}
          >
            {[{ id: 'all', name: 'All' } as const, ...filters].map((t) => (
              <ToggleGroup.Item
                key={t.id}
                value={t.id}
                className="flex min-h-10 items-center gap-1.5 rounded-full border-[1.5px] border-line-strong bg-white px-3 text-[14px] data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-white"
              >
                {t.id !== 'all' && (
                  <span
                    className={`size-3.5 rounded-[3px] border border-white/60 ${clothOf[t.id === 'goods' ? 'larder' : t.id]}`}
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
        ) : lots.isLoadingError ? (
          <Failed error={lots.error} again={() => void lots.refetch()} />
        ) : rows.length === 0 ? (
          filtered ? (
            <Empty title="Nothing like that on hand">
              <button
                type="button"
                className="underline"
                onClick={() => {
                  setSearch('');
                  setParams({}, { replace: true });
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
          <div className="flex min-h-0 flex-1 flex-col max-lg:h-[70dvh] max-lg:flex-none">
            <div aria-hidden="true">
              <div
                className={`${lotId === undefined ? wide : narrow} border-b border-line py-1.5 text-[14px] font-semibold text-ink-soft`}
              >
                <span></span>
                <span>Use by</span>
                <span>What</span>
                <span className="max-md:hidden">For</span>
                <span className={lotId === undefined ? 'max-md:hidden' : 'hidden'}></span>
                <span className="pr-4 text-right">Mass</span>
                <span className={lotId === undefined ? 'pr-4 text-right max-md:hidden' : 'hidden'}>Cost</span>
                <span className={lotId === undefined ? 'pr-4 text-right max-md:hidden' : 'hidden'}>Age</span>
              </div>
            </div>
            <LotList
              items={items}
              by={by}
              known={known}
              sums={filtered ? undefined : sums}
              heaviest={heaviest}
              openId={lotId}
              picked={picked}
              money={money}
              onPick={pick.current}
              more={hasNextPage && !isFetchingNextPage && !isFetchNextPageError ? askMore : undefined}
            />
            {isFetchNextPageError && (
              <Notice tone="attention">
                {`${rows.length} of ${total} lots are read; the rest did not come.`}{' '}
                <button type="button" className="min-h-10 font-semibold underline" onClick={askMore}>
                  Try again
                </button>
              </Notice>
            )}
          </div>
        )}
        <WaitsHereOf ids={[api.larder.merge.id, api.larder.startTub.id]} />
        {may && picked.size > 0 && <Chosen lots={[...picked.values()]} clear={() => setPicked(new Map())} />}
      </section>
      {lotId !== undefined && (
        <aside
          className="border-line bg-sheet-soft max-lg:order-first max-lg:border-b lg:h-[calc(100dvh-52px)] lg:overflow-y-auto lg:border-l"
          aria-label="Lot"
        >
          {chosen.isPending ? (
            <Loading />
          ) : chosen.isLoadingError ? (
            <Failed error={chosen.error} again={() => void chosen.refetch()} />
          ) : (
            <LotPanel key={chosen.data.id} lot={chosen.data} money={money} />
          )}
        </aside>
      )}
    </div>
  );
}
