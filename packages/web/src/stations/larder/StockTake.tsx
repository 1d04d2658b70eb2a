import { useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { formatMass, massFigure, massTyped } from '@zabrik/core';
import { Scale } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { type KeptDocument, useKeptDocument } from '../../app/keptForm.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { SimulatedPan } from '../../parts/SimulatedPan.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { WaitsHereOf } from '../../parts/WaitsHere.tsx';
import { LarderHead } from './LarderHead.tsx';
import { stockTakesQuery } from './reads.ts';
import { type Counted, countedOf, linesOf, reasons, roundOf } from './stockTake.ts';

// its form and its lists come when somebody asks for them
const TakeOn = lazy(() => import('./TakeOn.tsx'));

interface LineProps {
  readonly lot: Lot;
  readonly counted: Counted | undefined;
  readonly onCount: (counted: Counted) => void;
}

function Line({ lot, counted, onCount }: LineProps) {
  const scale = useScale();
  const text = counted?.text ?? '';
  const seen = counted?.seen ?? lot;
  const mg = text.trim() === '' ? undefined : countedOf(text, seen)?.massMg;
  const differs = mg !== undefined && mg !== seen.massMg;
  const set = (next: Partial<Omit<Counted, 'seen'>>): void =>
    onCount({
      text,
      reason: counted?.reason ?? '',
      ...next,
      seen:
        next.text === undefined
          ? { massMg: seen.massMg, pieces: seen.pieces }
          : { massMg: lot.massMg, pieces: lot.pieces },
    });
  return (
    <li
      className={`grid grid-cols-[84px_minmax(0,1fr)_88px_auto] items-center gap-3 border-b border-line px-4 py-2 ${
        mg === undefined ? 'bg-sheet' : differs ? 'bg-[#fff7e0]' : 'bg-calm-soft'
      }`}
    >
      <span className="figure text-xl">{lot.code}</span>
      <span className="min-w-0">
        <span className="block truncate font-head font-semibold">{lot.name}</span>
        <span className="text-[14px] text-ink-soft">
          {dueWords(lot.useBy).text}
          {lot.state === 'frozen' && ' · frozen'}
          {mg !== undefined &&
            lot.massMg !== seen.massMg &&
            ` · ${formatMass(Math.abs(lot.massMg - seen.massMg))} ${lot.massMg < seen.massMg ? 'left it' : 'came'} since you counted`}
        </span>
      </span>
      <span className="figure text-right">
        {formatMass(lot.massMg)}
        {lot.pieces > 1 && <span className="block text-[13px] font-normal text-ink-soft">{lot.pieces} pieces</span>}
      </span>
      <span className="flex flex-wrap items-center justify-end gap-2">
        <Button
          className="h-12"
          aria-label={`${lot.code}: take the scale’s weight`}
          disabled={scale.state !== 'steady' || scale.netMg <= 0}
          onClick={() => set({ text: massTyped(scale.netMg) })}
        >
          <Scale size={18} aria-hidden="true" />
          <span className="figure w-14 text-right" aria-hidden="true">
            {scale.state === 'away' ? '–' : massFigure(scale.netMg)}
          </span>
        </Button>
        <Field
          aria-label={`${lot.code}: counted, grams`}
          className="figure h-12 w-28! text-right"
          inputMode="text"
          placeholder={lot.pieces > 1 ? 'g or pc' : 'grams'}
          aria-invalid={text.trim() !== '' && mg === undefined}
          value={text}
          onChange={(event) => set({ text: event.target.value })}
        />
        <Button
          className="h-12"
          aria-label={`${lot.code}: it agrees`}
          onClick={() => set({ text: massTyped(lot.massMg), reason: '' })}
        >
          Agrees
        </Button>
        <Button className="h-12" aria-label={`${lot.code}: gone`} onClick={() => set({ text: '0' })}>
          Gone
        </Button>
      </span>
      {differs && (
        <span className="col-span-4 flex flex-wrap items-center gap-2">
          <span className="figure text-alarm">
            {mg > seen.massMg ? '+' : '−'}
            {formatMass(Math.abs(mg - seen.massMg))}
          </span>
          {reasons.map((r) => (
            <Toggle key={r} on={counted?.reason === r} shape="pill" onPress={() => set({ reason: r })}>
              {r}
            </Toggle>
          ))}
          <Field
            aria-label={`${lot.code}: why it differs`}
            placeholder="or in your words"
            maxLength={120}
            className="h-10 min-w-40! flex-1"
            value={counted?.reason ?? ''}
            onChange={(event) => set({ reason: event.target.value })}
          />
        </span>
      )}
    </li>
  );
}

function Rounds() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const takes = useQuery(stockTakesQuery);
  if (takes.isPending) return <Loading />;
  if (takes.isLoadingError) return <Failed error={takes.error} again={() => void takes.refetch()} />;
  if (takes.data.stockTakes.length === 0) return <p className="text-ink-soft">No round was written down yet.</p>;
  return (
    <ol className="grid gap-2">
      {takes.data.stockTakes.map((t) => (
        <li key={t.id} className="rounded-md border border-line bg-white px-3 py-2 text-[14px]">
          <span className="flex justify-between gap-3 font-semibold">
            <span>{house?.places.find((p) => p.id === t.placeId)?.name ?? 'Everywhere'}</span>
            <span className={t.differing > 0 ? 'text-alarm' : ''}>
              {t.differing === 0 ? 'all agreed' : `${formatMass(t.differenceMg)}, ${money(t.differenceMinor)}`}
            </span>
          </span>
          <span className="text-ink-soft">
            {dayAndTime(t.at)}, {t.by}: {t.lots} counted, {t.differing} differed{t.note !== null && `. ${t.note}`}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** So many lots a round holds. */
const MOST_IN_A_ROUND = 1_000;

interface Typed {
  readonly placeId: string;
  readonly counts: Readonly<Record<string, Counted>>;
  readonly note: string;
}
const nothingCounted: Typed = { placeId: '', counts: {}, note: '' };

function faultsOf(here: readonly Lot[], counts: ReadonlyMap<string, Counted>): readonly string[] {
  const { counted, unexplained, unreadable } = roundOf(here, counts);
  return [
    ...(counted === 0 ? ['Nothing is counted yet: type what is there, or take it from the scale.'] : []),
    ...(unreadable.length > 0 ? [`${unreadable.length} cannot be read: a weight, such as 160 or 1.2 kg.`] : []),
    ...(unexplained.length > 0 ? [`${unexplained.length} differ and want a reason.`] : []),
  ];
}

/** A walk through one place with the scale: lot by lot what is there, and why it differs. Nothing is written before the end. */
export default function StockTake() {
  const may = useMay('larder.count');
  const { data: house } = useHouse();
  const form: KeptDocument<Typed> = useKeptDocument<Typed>('stock-take', nothingCounted, (typed): readonly string[] =>
    faultsOf(here, new Map(Object.entries(typed.counts))),
  );
  const { placeId, note } = form.doc;
  const counts = useMemo(() => new Map(Object.entries(form.doc.counts)), [form.doc.counts]);
  /** Where this part of the list begins, and how many lots stand before it: undefined is the earliest date. */
  const [from, setFrom] = useState<{ readonly cursor: string; readonly before: number } | undefined>();
  const place = house?.places.find((p) => p.id === placeId) ?? house?.places[0];
  const lots = useQuery({
    queryKey: ['lots', 'count', place?.id, from?.cursor],
    queryFn: async () => {
      const all: Lot[] = [];
      let cursor = from?.cursor;
      let total = 0;
      // a round holds a thousand at most: more than anyone weighs between two services
      do {
        const page = await call(api.larder.list, { query: { place: place?.id, group: 'date', limit: 200, cursor } });
        all.push(...page.lots);
        total = page.total;
        cursor = page.next ?? undefined;
      } while (cursor !== undefined && all.length < MOST_IN_A_ROUND);
      return { lots: all, total, next: cursor };
    },
    enabled: place !== undefined,
  });
  const here = lots.data?.lots ?? [];
  const left = lots.data?.next === undefined ? 0 : lots.data.total - (from?.before ?? 0) - here.length;
  const round = roundOf(here, counts);
  const clear = (): void => {
    form.clear();
    form.put({ placeId });
  };
  const [more, setMore] = useState(false);
  const write = useCommand(api.larder.count, {
    spoken: ({ body }) => ({ says: `A stock-take of ${body.counts.length} in ${place?.name ?? 'all places'}` }),
    onDone: clear,
    onKept: clear,
  });
  return (
    <div className="grid flex-1 content-start lg:grid-cols-[minmax(0,1fr)_320px]">
      <section aria-label="Stock-take" className="flex min-w-0 flex-col bg-sheet lg:h-[calc(100dvh-52px)]">
        <LarderHead>
          <Select
            aria-label="Which place is counted"
            fit
            value={place?.id ?? ''}
            onValue={(value) => {
              form.set({ ...nothingCounted, placeId: value });
              setFrom(undefined);
              write.reset();
            }}
            options={named(house?.places)}
          />
          {may && place !== undefined && (
            <Button className="h-11" onClick={() => setMore(true)}>
              Something on no list
            </Button>
          )}
          {place !== undefined && (
            <PaperLink to={`/paper/stock-take.pdf?place=${place.id}`}>Sheet to count by</PaperLink>
          )}
          <span className="ml-auto">
            <SimulatedPan />
          </span>
        </LarderHead>
        <WaitsHereOf ids={[api.larder.count.id, api.larder.takeOn.id]} />
        {more && place !== undefined && (
          <Suspense fallback={null}>
            <TakeOn key={place.id} place={place} onClose={() => setMore(false)} />
          </Suspense>
        )}
        <StillHere draft={form.kept} className="border-b border-line bg-sheet-soft px-4 py-2" />
        {!may ? (
          <Empty title="Counting is for the kitchen">The rounds that were written down stand beside this.</Empty>
        ) : lots.isPending ? (
          <Loading />
        ) : lots.isLoadingError ? (
          <Failed error={lots.error} again={() => void lots.refetch()} />
        ) : here.length === 0 ? (
          <Empty title="Nothing should be here">
            If something is, nobody has written it down yet: on the first day that is everything. Weigh it, say its
            date.
            <span className="mt-4 block">
              <Button variant="strong" size="bench" onClick={() => setMore(true)}>
                Take on what lies here
              </Button>
            </span>
          </Empty>
        ) : (
          <ul className="min-h-0 flex-1 lg:overflow-y-auto" aria-label="What should be here, earliest date first">
            {here.map((lot) => (
              <Line
                key={lot.id}
                lot={lot}
                counted={counts.get(lot.id)}
                onCount={(counted) =>
                  form.set((before) => ({ ...before, counts: { ...before.counts, [lot.id]: counted } }))
                }
              />
            ))}
            {left > 0 && (
              <li className="bg-attention px-4 py-3 font-semibold" role="note">
                {left.toLocaleString('en')} more lots stand here, with later dates.{' '}
                <Button
                  variant="plain"
                  disabled={round.counted > 0}
                  onClick={() => {
                    const cursor = lots.data?.next;
                    if (cursor !== undefined) setFrom({ cursor, before: (from?.before ?? 0) + here.length });
                  }}
                >
                  {round.counted > 0 ? 'Write this round down first' : 'Go on to them'}
                </Button>
              </li>
            )}
          </ul>
        )}
        {may && (
          <div className="flex flex-wrap items-center gap-3 border-t-2 border-ink bg-sheet-soft px-4 py-3">
            <p role="status" data-testid="round">
              <strong>
                {round.counted} of {here.length} counted
                {left > 0 && `, ${left.toLocaleString('en')} more not in this round`}
              </strong>
              {round.differing > 0 &&
                `, ${round.differing} differ by ${formatMass(round.differenceMg)}${round.unexplained.length > 0 ? `; ${round.unexplained.length} want a reason` : ''}`}
              {round.unreadable.length > 0 && `; ${round.unreadable.length} cannot be read`}
            </p>
            <Field
              aria-label="Note on this round"
              placeholder="note"
              maxLength={500}
              className="h-12 w-52!"
              value={note}
              onChange={(event) => form.put({ note: event.target.value })}
            />
            <Button
              variant="strong"
              size="bench"
              className="ml-auto"
              disabled={write.pending || lots.data === undefined}
              onClick={() =>
                form.send((typed) =>
                  write.send({
                    body: {
                      placeId: place?.id ?? null,
                      note: typed.note.trim() === '' ? null : typed.note.trim(),
                      counts: linesOf(here, new Map(Object.entries(typed.counts))),
                    },
                  }),
                )
              }
            >
              Write the round down
            </Button>
            {form.wrong.length > 0 && (
              <div className="w-full">
                <Notice tone="alarm">{form.wrong.join(' ')}</Notice>
              </div>
            )}
            {write.error !== null && (
              <div className="w-full">
                <Notice tone="alarm">{write.error.message} What you counted is still here.</Notice>
              </div>
            )}
            {write.answer !== undefined && round.counted === 0 && (
              <div className="w-full">
                <Notice tone="calm">
                  {write.answer.lots} counted, {write.answer.differing} differed
                  {write.answer.differing > 0 && ` by ${formatMass(write.answer.differenceMg)}`}. A chef can take it
                  back in the ledger of any of its lots.
                </Notice>
              </div>
            )}
          </div>
        )}
      </section>
      <aside className="border-line bg-sheet-soft p-4 lg:border-l" aria-label="Rounds before">
        <h2 className="mb-2 text-lg font-bold">Rounds before</h2>
        <Rounds />
      </aside>
    </div>
  );
}
