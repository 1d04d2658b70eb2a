import { useVirtualizer } from '@tanstack/react-virtual';
import type { Lot } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { Snowflake } from 'lucide-react';
import { memo, useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { ageWords, dayName, dueWords } from '../../app/dates.ts';
import { Check } from '../../kit/Check.tsx';
import { clothOf, trayName } from '../../parts/destinations.ts';
import { MiniRibbon } from '../../parts/Ribbon.tsx';
import { type Grouping, groupName, type Known, keptWords } from './larderWords.ts';

const ROW = 58;
const HEAD = 38;

export type Item = { readonly kind: 'head'; readonly key: string } | { readonly kind: 'lot'; readonly lot: Lot };

interface Sum {
  readonly lots: number;
  readonly massMg: number;
  readonly costMinor: number;
}

const tones = {
  late: 'text-alarm font-bold',
  now: 'text-alarm font-semibold',
  soon: 'font-semibold',
  fine: '',
  none: 'text-ink-soft',
} as const;

export const wide =
  'grid grid-cols-[44px_124px_minmax(0,1fr)_104px] items-center md:grid-cols-[44px_128px_minmax(0,1fr)_120px_150px_96px_80px_72px]';
/** Beside an open lot there is room for what tells lots apart, and for no more. */
export const narrow =
  'grid grid-cols-[44px_124px_minmax(0,1fr)_104px] items-center md:grid-cols-[44px_128px_minmax(0,1fr)_110px_96px]';

interface RowProps {
  readonly lot: Lot;
  readonly heaviest: number;
  readonly open: boolean;
  readonly picked: boolean;
  readonly beside: boolean;
  readonly cost: string;
  readonly onPick: (lot: Lot) => void;
}

const Row = memo(function Row({ lot, heaviest, open, picked, beside, cost, onPick }: RowProps) {
  const due = dueWords(lot.useBy);
  const where = lot.destination ?? 'whole';
  const kept = keptWords(lot);
  return (
    // the link lies over all of the row: a touch anywhere opens the lot
    <div
      className={`${beside ? narrow : wide} relative h-full border-b border-line ${open ? 'bg-calm-soft' : picked ? 'bg-[#fff7e0]' : 'bg-sheet hover:bg-sheet-soft'}`}
    >
      <span className="relative z-1 grid h-full place-items-center">
        <Check aria-label={`Choose ${lot.code} ${lot.name}`} checked={picked} onChange={() => onPick(lot)} />
      </span>
      <span className={`pr-2 leading-tight whitespace-nowrap ${tones[due.tone]}`}>
        {due.text}
        <span className="block text-[13px] font-normal text-ink-soft">
          {lot.useBy === null ? '' : dayName(lot.useBy)}
        </span>
      </span>
      <span className="min-w-0 pr-3 leading-tight">
        <Link
          to={`/larder/${lot.id}${location.search}`}
          className="block truncate font-head text-[16px] font-semibold after:absolute after:inset-0"
        >
          {lot.state === 'frozen' && (
            <Snowflake size={15} className="mr-1 inline-block align-[-2px]" aria-label="frozen" />
          )}
          {lot.name}
        </Link>
        <span className="block truncate text-[13px] text-ink-soft">
          <span className="figure font-semibold">{lot.code}</span>
          {kept.length > 0 && (
            <span className={lot.held === null ? '' : 'font-semibold text-alarm'}> · {kept.join(' · ')}</span>
          )}
          {lot.parentCodes.length > 0 &&
            ` · from ${lot.parentCodes.slice(0, 3).join(', ')}${lot.parentCodes.length > 3 ? ` and ${lot.parentCodes.length - 3} more` : ''}`}
          {lot.supplierName !== null && ` · ${lot.supplierName}`}
        </span>
      </span>
      <span className="flex min-w-0 items-center gap-2 pr-2 text-[15px] max-md:hidden">
        <span className={`size-4 shrink-0 rounded-[3px] border border-ink/30 ${clothOf[where]}`} aria-hidden="true" />
        <span className="truncate">
          {lot.kind === 'tub'
            ? 'tub'
            : lot.destination === null
              ? 'to be cut'
              : trayName(lot.destination).toLowerCase()}
        </span>
      </span>
      <span className={beside ? 'hidden' : 'pr-3 max-md:hidden'}>
        <MiniRibbon
          totalMg={lot.massMg}
          scaleMg={heaviest}
          parts={[{ id: lot.id, name: lot.name, destination: where, massMg: lot.massMg }]}
        />
      </span>
      <span className="figure pr-4 text-right">{formatMass(lot.massMg)}</span>
      <span className={beside ? 'hidden' : 'pr-4 text-right tabular-nums max-md:hidden'}>{cost}</span>
      <span className={beside ? 'hidden' : 'pr-4 text-right whitespace-nowrap text-ink-soft max-md:hidden'}>
        {ageWords(lot.madeAt)}
      </span>
    </div>
  );
});

interface HeadProps {
  readonly name: string;
  readonly sum: Sum | undefined;
  readonly money: (minor: number) => string;
}

const Head = memo(function Head({ name, sum, money }: HeadProps) {
  return (
    <div className="flex h-full items-end border-b border-line-strong bg-ground/60 px-4 pb-1">
      <span className="font-head text-[15px] font-bold">
        {name}
        {sum !== undefined && (
          <span className="ml-3 font-normal text-ink-soft">
            {sum.lots} {sum.lots === 1 ? 'lot' : 'lots'}, {formatMass(sum.massMg)}, {money(sum.costMinor)}
          </span>
        )}
      </span>
    </div>
  );
});

interface Props {
  readonly items: readonly Item[];
  readonly by: Grouping;
  readonly known: Known;
  /** By group; undefined while only a part of each group is shown. */
  readonly sums: ReadonlyMap<string, Sum> | undefined;
  readonly heaviest: number;
  readonly openId: string | undefined;
  readonly picked: ReadonlyMap<string, Lot>;
  readonly money: (minor: number) => string;
  readonly onPick: (lot: Lot) => void;
  /** Asks for the next page; undefined when there is none, or it is on its way. */
  readonly more: (() => void) | undefined;
}

/** The list itself: only the rows in sight are drawn, so that twenty thousand lots scroll like twenty. */
export function LotList({ items, by, known, sums, heaviest, openId, picked, money, onPick, more }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (items[i]?.kind === 'head' ? HEAD : ROW),
    overscan: 10,
    useFlushSync: false,
    getItemKey: (i) => {
      const item = items[i];
      return item === undefined ? i : item.kind === 'head' ? `head ${item.key}` : item.lot.id;
    },
  });
  const drawn = list.getVirtualItems();
  const lastDrawn = drawn.at(-1)?.index ?? 0;
  useEffect(() => {
    // the next page is asked for well before its first row comes into sight
    if (more !== undefined && lastDrawn > items.length - 80) more();
  }, [lastDrawn, items.length, more]);
  return (
    <div ref={scroller} tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto [contain:strict]" data-testid="lots">
      <ul aria-label="Lots" className="relative w-full" style={{ height: list.getTotalSize() }}>
        {drawn.map((v) => {
          const item = items[v.index];
          if (item === undefined) return null;
          return (
            <li key={v.key} className="absolute inset-x-0 [contain:strict]" style={{ height: v.size, top: v.start }}>
              {item.kind === 'lot' ? (
                <Row
                  lot={item.lot}
                  heaviest={heaviest}
                  open={item.lot.id === openId}
                  picked={picked.has(item.lot.id)}
                  beside={openId !== undefined}
                  cost={money(item.lot.costMinor)}
                  onPick={onPick}
                />
              ) : (
                <Head name={groupName(by, item.key, known)} sum={sums?.get(item.key)} money={money} />
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
