import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Ask, Cutting, Lot } from '@zabrik/contract';
import { type CuttingKind, formatMass } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../../app/api.ts';
import { clockTime, dayAndTime, dayName, dueWords } from '../../../app/dates.ts';
import { api } from '../../../app/endpoints.ts';
import { keep, useOutbox } from '../../../app/outbox.ts';
import { lotQuery, useMay, useMe } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Empty, Failed, Loading } from '../../../kit/Notice.tsx';
import { SearchBox } from '../../../kit/SearchBox.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { MiniRibbon } from '../../../parts/Ribbon.tsx';
import { openCuttingsQuery } from '../reads.ts';
import { cuttingKey } from './useCutting.ts';

const kinds: readonly {
  readonly id: CuttingKind;
  readonly name: string;
  readonly says: string;
  readonly key: string;
}[] = [
  { id: 'portions', name: 'Portions', says: 'to weight, off the ruler', key: 'p' },
  { id: 'roll', name: 'Roll', says: 'laid head to tail, tied, rested', key: 'r' },
  { id: 'slices', name: 'Slices', says: 'of a squared block', key: 's' },
  { id: 'mould', name: 'Mould', says: 'filled, for so many covers', key: 'm' },
];
const kindNames = new Map(kinds.map((k) => [k.id, k.name.toLowerCase()]));

/** As much of a lot as it takes to lay it on the board. */
type ToCut = Pick<Lot, 'id' | 'code' | 'name' | 'species' | 'category' | 'pieceId' | 'pieces' | 'massMg' | 'useBy'>;

interface Begun {
  readonly kind: CuttingKind;
  readonly lots: readonly ToCut[];
}

/**
 * Puts lots on the board and opens it at once: what the server says to it comes when it can. A lot past its date is asked about first,
 * here, since the board opens without the server too.
 */
function useBegin() {
  const [late, setLate] = useState<Begun | undefined>();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: me } = useMe();
  const open = ({ kind, lots }: Begun, confirmed: boolean): void => {
    const id = uuidv7();
    const at = new Date().toISOString();
    const provisional: Cutting = {
      id,
      kind,
      state: 'open',
      name: [...new Set(lots.map((l) => l.name))].join(' and '),
      species: lots.every((l) => l.species === lots[0]?.species) ? (lots[0]?.species ?? null) : null,
      category: lots[0]?.category ?? null,
      pieceId: lots.every((l) => l.pieceId === lots[0]?.pieceId) ? (lots[0]?.pieceId ?? null) : null,
      pieces: lots.reduce((sum, l) => sum + l.pieces, 0),
      startMg: lots.reduce((sum, l) => sum + l.massMg, 0),
      weighedMg: 0,
      by: me?.person.name ?? '',
      startedAt: at,
      closedAt: null,
      inputs: lots.map((l) => ({ lotId: l.id, code: l.code, name: l.name, massMg: l.massMg, pieceMg: [] })),
      startMinor: 0,
      movementId: null,
      events: [],
      lots: [],
    };
    client.setQueryData(cuttingKey(id), provisional);
    void keep(
      api.cutting.start,
      { body: { id, kind, from: lots.map((l) => ({ lotId: l.id, massMg: null })), at, confirmed } },
      { about: id, says: `${provisional.name} to be cut` },
    );
    void navigate(`/bench/cut/${id}`);
  };
  return {
    begin: (kind: CuttingKind, lots: readonly ToCut[]): void => {
      if (lots.some((l) => dueWords(l.useBy).tone === 'late')) setLate({ kind, lots });
      else open({ kind, lots }, false);
    },
    late: late && { lots: late.lots.filter((l) => dueWords(l.useBy).tone === 'late') },
    goOn: (): void => {
      if (late !== undefined) open(late, true);
    },
    leave: (): void => setLate(undefined),
  };
}

/** Asks before something past its date comes under the knife. */
function PastDate({ asks }: { readonly asks: ReturnType<typeof useBegin> }) {
  if (asks.late === undefined) return null;
  const [first] = asks.late.lots;
  return (
    <section
      role="alert"
      aria-label="Past its date"
      className="sticky top-2 z-10 mb-4 rounded-plate border-2 border-ink bg-attention p-3"
    >
      {asks.late.lots.map((l) => (
        <p key={l.id} className="font-head text-[17px] leading-tight font-bold">
          {l.name} {l.code}: use by {l.useBy === null ? '' : dayName(l.useBy)}, {dueWords(l.useBy).text}.
        </p>
      ))}
      <p className="mt-1 text-[15px]">
        Cutting does not make it good. It is thrown away with the reason, unless a chef can show why the date was wrong.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button size="bench" look="strong" onClick={asks.leave}>
          Leave it
        </Button>
        <Link className="grid min-h-14 items-center px-2 font-semibold underline" to={`/larder/${first?.id ?? ''}`}>
          Open it in the larder
        </Link>
        <Button size="bench" look="plain" onClick={asks.goOn}>
          Cut it all the same
        </Button>
      </div>
    </section>
  );
}

function OnTheBoard({ begin }: Pick<ReturnType<typeof useBegin>, 'begin'>) {
  const list = useQuery(openCuttingsQuery);
  const may = useMay('cutting.start');
  if (list.isPending) return <Loading />;
  if (list.isLoadingError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const now = new Date().toISOString();
  return (
    <>
      <h2 className="mb-3 text-xl font-bold">Under the knife now</h2>
      {list.data.open.length === 0 && <p className="pb-3 text-ink-soft">Nothing. Pick what to cut from the list.</p>}
      <ul className="grid gap-3">
        {list.data.open.map((c) => (
          <li key={c.id}>
            <Link
              to={`/bench/cut/${c.id}`}
              className="block rounded-plate border-[1.5px] border-ink bg-white p-3 hover:bg-sheet-soft"
            >
              <span className="flex items-baseline justify-between gap-3">
                <span className="truncate font-head text-lg font-semibold">{c.name}</span>
                <span className="figure text-lg whitespace-nowrap">{formatMass(c.startMg)}</span>
              </span>
              <span className="mb-1.5 block text-[14px] text-ink-soft">
                to {kindNames.get(c.kind)} · {c.by}, since {clockTime(c.startedAt)}
              </span>
              <MiniRibbon
                totalMg={c.startMg}
                parts={[{ id: 'w', name: 'weighed', destination: 'portion', massMg: c.weighedMg }]}
              />
            </Link>
          </li>
        ))}
      </ul>
      <h2 className="mt-6 mb-3 text-xl font-bold">Rolls at rest</h2>
      {list.data.resting.length === 0 && (
        <p className="text-ink-soft">None. A roll stands here with the hour it can be cut.</p>
      )}
      <ul className="grid gap-3">
        {list.data.resting.map((r) => {
          const ready = r.readyAt <= now;
          const late = r.lateAt <= now;
          return (
            <li key={r.lotId} className="rounded-plate border-[1.5px] border-line-strong bg-white p-3">
              <span className="flex items-baseline justify-between gap-3">
                <span className="truncate font-head text-lg font-semibold">{r.name}</span>
                <span className="figure text-lg whitespace-nowrap">{formatMass(r.massMg)}</span>
              </span>
              <span className="mt-1 flex items-center justify-between gap-3">
                <span className={`text-[14px] leading-tight ${late ? 'font-semibold text-alarm' : ''}`}>
                  {r.code} ·{' '}
                  {late
                    ? `meant to be cut by ${dayAndTime(r.lateAt)}`
                    : ready
                      ? `firm since ${clockTime(r.readyAt)}, cut by ${dayAndTime(r.lateAt)}`
                      : `firm from ${dayAndTime(r.readyAt)}`}
                </span>
                <Button
                  size="bench"
                  look={ready ? 'plain' : 'quiet'}
                  disabled={!may}
                  onClick={() => begin('portions', [{ ...r, id: r.lotId }])}
                >
                  {ready ? 'Cut it' : 'Cut it now'}
                </Button>
              </span>
            </li>
          );
        })}
      </ul>
    </>
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
              <strong className="figure">{formatMass(chosen.reduce((sum, l) => sum + l.massMg, 0))}</strong>
            </p>
            <Button size="bench" look="strong" onClick={() => begin(wanted, chosen)}>
              {wanted === 'portions'
                ? 'Cut to portions'
                : wanted === 'roll'
                  ? 'Make rolls'
                  : wanted === 'slices'
                    ? 'Slice it'
                    : 'Fill moulds'}
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
            {shown.map((l) => {
              const due = dueWords(l.useBy);
              return (
                <li key={l.id}>
                  <button
                    type="button"
                    disabled={!may}
                    aria-pressed={several ? picked.has(l.id) : undefined}
                    onClick={() => toggle(l)}
                    className={`grid min-h-16 w-full grid-cols-[minmax(0,1fr)_auto_110px] items-center gap-4 rounded-plate border-[1.5px] px-4 py-2 text-left hover:border-ink ${picked.has(l.id) ? 'border-ink bg-calm-soft' : 'border-line-strong bg-white'}`}
                  >
                    <span className="min-w-0">
                      <span className="block truncate font-head text-lg font-semibold">{l.name}</span>
                      <span className="block truncate text-[14px] text-ink-soft">
                        {l.code} · {l.pieces === 1 ? 'one piece' : `${l.pieces} pieces`}
                        {l.supplierName !== null && ` · ${l.supplierName}`}
                      </span>
                    </span>
                    <span
                      className={`text-[14px] ${due.tone === 'late' || due.tone === 'now' ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
                    >
                      {l.useBy === null ? 'no date' : `${dayName(l.useBy)}, ${due.text}`}
                    </span>
                    <span className="figure text-right text-xl">{formatMass(l.massMg)}</span>
                  </button>
                </li>
              );
            })}
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
