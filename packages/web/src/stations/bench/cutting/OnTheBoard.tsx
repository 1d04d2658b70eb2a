import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { Link } from 'react-router';
import { clockTime, dayAndTime } from '../../../app/dates.ts';
import type { api } from '../../../app/endpoints.ts';
import { useMay } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Failed, Loading } from '../../../kit/Notice.tsx';
import { MiniRibbon } from '../../../parts/Ribbon.tsx';
import { openCuttingsQuery } from '../reads.ts';
import { kindNames } from './kinds.ts';
import type { Begin } from './useBegin.ts';

type Listed = Answer<typeof api.cutting.list>;

function UnderTheKnife({ cutting: c }: { readonly cutting: Listed['open'][number] }) {
  return (
    <li>
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
  );
}

/** A roll at rest, with the hour from which and until which it is cut. */
function RollAtRest({ roll: r, begin }: { readonly roll: Listed['resting'][number] } & Pick<Begin, 'begin'>) {
  const may = useMay('cutting.start');
  const now = new Date().toISOString();
  const ready = r.readyAt <= now;
  const late = r.lateAt <= now;
  return (
    <li className="rounded-plate border-[1.5px] border-line-strong bg-white p-3">
      <span className="flex items-baseline justify-between gap-3">
        <span className="truncate font-head text-lg font-semibold">{r.name}</span>
        <span className="figure text-lg whitespace-nowrap">{formatMass(r.freeMg)}</span>
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
          variant={ready ? 'plain' : 'quiet'}
          disabled={!may}
          onClick={() => begin('portions', [{ ...r, id: r.lotId }])}
        >
          {ready ? 'Cut it' : 'Cut it now'}
        </Button>
      </span>
    </li>
  );
}

/** What is under the knife, and the rolls that rest. */
export function OnTheBoard({ begin }: Pick<Begin, 'begin'>) {
  const list = useQuery(openCuttingsQuery);
  if (list.isPending) return <Loading />;
  if (list.isLoadingError) return <Failed error={list.error} again={() => void list.refetch()} />;
  return (
    <>
      <h2 className="mb-3 text-xl font-bold">Under the knife now</h2>
      {list.data.open.length === 0 && <p className="pb-3 text-ink-soft">Nothing. Pick what to cut from the list.</p>}
      <ul className="grid gap-3">
        {list.data.open.map((c) => (
          <UnderTheKnife key={c.id} cutting={c} />
        ))}
      </ul>
      <h2 className="mt-6 mb-3 text-xl font-bold">Rolls at rest</h2>
      {list.data.resting.length === 0 && (
        <p className="text-ink-soft">None. A roll stands here with the hour it can be cut.</p>
      )}
      <ul className="grid gap-3">
        {list.data.resting.map((r) => (
          <RollAtRest key={r.lotId} roll={r} begin={begin} />
        ))}
      </ul>
    </>
  );
}
