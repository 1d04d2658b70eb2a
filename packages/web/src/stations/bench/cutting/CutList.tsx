import { useQuery } from '@tanstack/react-query';
import type { Ask, Lot } from '@zabrik/contract';
import { type CuttingKind, formatMass } from '@zabrik/core';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call } from '../../../app/api.ts';
import { dayName, dueWords } from '../../../app/dates.ts';
import { api } from '../../../app/endpoints.ts';
import { useOutbox } from '../../../app/outbox.ts';
import { lotQuery, useMay } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Empty, Failed, Loading } from '../../../kit/Notice.tsx';
import { SearchBox } from '../../../kit/SearchBox.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { kinds } from './kinds.ts';
import { OnTheBoard } from './OnTheBoard.tsx';
import { PastDate } from './PastDate.tsx';
import { useBegin } from './useBegin.ts';

const beginWords: Readonly<Record<CuttingKind, string>> = {
  portions: 'Cut to portions',
  roll: 'Make rolls',
  slices: 'Slice it',
  mould: 'Fill moulds',
};

interface RowProps {
  readonly lot: Lot;
  readonly may: boolean;
  /** Undefined where one is taken by itself. */
  readonly picked: boolean | undefined;
  readonly onPress: () => void;
}

function LotToCut({ lot: l, may, picked, onPress }: RowProps) {
  const due = dueWords(l.useBy);
  return (
    <li>
      <button
        type="button"
        disabled={!may}
        aria-pressed={picked}
        onClick={onPress}
        className={`grid min-h-16 w-full grid-cols-[minmax(0,1fr)_auto_110px] items-center gap-4 rounded-plate border-[1.5px] px-4 py-2 text-left hover:border-ink ${picked === true ? 'border-ink bg-calm-soft' : 'border-line-strong bg-white'}`}
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-lg font-semibold">{l.name}</span>
          <span className="block truncate text-[14px] text-ink-soft">
            {l.code} · {l.freePieces === 1 ? 'one piece' : `${l.freePieces} pieces`}
            {l.supplierName !== null && ` · ${l.supplierName}`}
          </span>
        </span>
        <span
          className={`text-[14px] ${due.tone === 'late' || due.tone === 'now' ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
        >
          {l.useBy === null ? 'no date' : `${dayName(l.useBy)}, ${due.text}`}
        </span>
        <span className="figure text-right text-xl">{formatMass(l.freeMg)}</span>
      </button>
    </li>
  );
}

/** The lots of a beginning that waits. */
const startedFrom = (body: unknown): string[] =>
  (body as Ask<typeof api.cutting.start>['body']).from.map((f) => f.lotId);

/** What can be cut to weight, and which way: portions, a roll, slices, a mould. */
export default function CutList() {
  const [params, setParams] = useSearchParams();
  const may = useMay('cutting.start');
  const asks = useBegin();
  const { begin } = asks;
  const [search, setSearch] = useState(params.get('q') ?? '');
  const wanted = kinds.find((k) => k.id === params.get('as'))?.id ?? 'portions';
  const asked = params.get('lot');
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set(asked === null ? [] : [asked]));
  const toWeight = wanted === 'mould' ? ('mould' as const) : ('cut' as const);
  const lots = useQuery({
    queryKey: ['lots', 'list', 'to-weight', toWeight, search.trim()],
    queryFn: () =>
      call(api.larder.list, {
        query: { toWeight, search: search.trim() === '' ? undefined : search.trim(), limit: 200, group: 'date' },
      }),
    placeholderData: (before) => before,
  });
  const one = useQuery({
    ...lotQuery(asked ?? ''),
    enabled: asked !== null,
  });
  // begun on this tablet, and not yet with the server
  const begun = new Set(
    useOutbox().flatMap((w) =>
      w.endpoint === api.cutting.start.id && w.refused === undefined ? startedFrom(w.body) : [],
    ),
  );
  const shown = (lots.data?.lots ?? []).filter((l) => !begun.has(l.id));
  const chosen = [...picked].flatMap((id) => {
    const found = shown.find((l) => l.id === id) ?? (one.data?.id === id ? (one.data as Lot) : undefined);
    return found === undefined ? [] : [found];
  });
  const several = wanted === 'roll' || wanted === 'mould';
  const toggle = (l: Lot): void => {
    if (!several) {
      begin(wanted, [l]);
      return;
    }
    setPicked((before) => {
      const after = new Set(before);
      if (!after.delete(l.id)) after.add(l.id);
      return after;
    });
  };
  return (
    <div className="grid flex-1 content-start lg:grid-cols-[400px_1fr] lg:content-stretch">
      <aside className="border-r border-line bg-sheet-soft p-5" aria-label="Under the knife">
        <OnTheBoard begin={begin} />
        <p className="mt-6">
          <Link className="font-semibold underline" to="/bench">
            To the bench
          </Link>
        </p>
      </aside>
      <section className="min-w-0 p-5" aria-label="To be cut to weight">
        <h1 className="mb-3 text-2xl font-bold">Cut to weight</h1>
        <PastDate asks={asks} />
        <fieldset className="border-0 p-0 mb-4 grid grid-cols-4 gap-2.5 max-md:grid-cols-2" aria-label="What is made">
          {kinds.map((k) => (
            <Toggle
              key={k.id}
              on={wanted === k.id}
              className="min-h-16 py-2 text-left font-normal"
              onPress={() => {
                const next = new URLSearchParams(params);
                next.set('as', k.id);
                setParams(next, { replace: true });
              }}
            >
              <span className="block font-head text-lg font-semibold">{k.name}</span>
              <span
                className={`block font-text text-[13px] font-normal ${wanted === k.id ? 'text-white/85' : 'text-ink-soft'}`}
              >
                {k.says}
              </span>
            </Toggle>
          ))}
        </fieldset>
        {chosen.length > 0 && may && (
          <div className="mb-4 flex flex-wrap items-center gap-3 rounded-plate border-[1.5px] border-ink bg-white p-3">
            <p className="min-w-0 flex-1">
              {chosen.map((l) => `${l.name} ${l.code}`).join(', ')}:{' '}
              <strong className="figure">{formatMass(chosen.reduce((sum, l) => sum + l.freeMg, 0))}</strong>
            </p>
            <Button size="bench" variant="strong" onClick={() => begin(wanted, chosen)}>
              {beginWords[wanted]}
            </Button>
          </div>
        )}
        <SearchBox
          label="Search by name or code"
          placeholder="name or code"
          value={search}
          onValue={setSearch}
          className="mb-3 w-72 max-w-full"
        />
        {lots.isPending ? (
          <Loading />
        ) : lots.isLoadingError ? (
          <Failed error={lots.error} again={() => void lots.refetch()} />
        ) : shown.length === 0 ? (
          <Empty title="Nothing here to cut to weight">
            Fillets, loins and barrels stand here once they are off the animal.{' '}
            <Link className="underline" to="/bench">
              Cut one
            </Link>
            .
          </Empty>
        ) : (
          <ul className="grid gap-2.5">
            {shown.map((l) => (
              <LotToCut
                key={l.id}
                lot={l}
                may={may}
                picked={several ? picked.has(l.id) : undefined}
                onPress={() => toggle(l)}
              />
            ))}
          </ul>
        )}
        {lots.data?.next != null && (
          <p className="py-3 text-ink-soft">
            The {shown.length} with the earliest dates of {lots.data.total}. Search for another.
          </p>
        )}
      </section>
    </div>
  );
}
