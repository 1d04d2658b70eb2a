import { useQuery } from '@tanstack/react-query';
import {
  costingSchools,
  effectiveWeighings,
  formatCount,
  formatMass,
  formatShare,
  shortName,
  taxWords,
} from '@zabrik/core';
import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import { HowLink } from '../../parts/HowLink.tsx';
import { PrintHead } from '../../parts/PrintHead.tsx';
import { Ribbon } from '../../parts/Ribbon.tsx';
import { eventWords } from './benchEventWords.ts';
import { sheetQuery } from './reads.ts';
import { PerAnimal, Through } from './Through.tsx';
import { schoolNames, YieldRows } from './YieldRows.tsx';

const YieldRun = lazy(() => import('./YieldRun.tsx'));

function TakeBack({ movementId, breakdownId }: { readonly movementId: string; readonly breakdownId: string }) {
  const [asking, setAsking] = useState(false);
  const navigate = useNavigate();
  const reverse = useCommand(api.ledger.reverse, { onDone: () => void navigate(`/bench/${breakdownId}`) });
  if (!asking) return <Button onClick={() => setAsking(true)}>Reopen the stage</Button>;
  return (
    <OneField
      formClass="flex flex-wrap items-center gap-2"
      aria-label="Why it is reopened"
      autoFocus
      placeholder="why"
      className="h-10 w-56!"
      read={someWords}
      onSend={(reason) => reverse.send({ params: { movementId }, body: { reason } })}
      pending={reverse.pending}
      send="Reopen"
      sending={{ variant: 'alarm' }}
      beside={
        <>
          <Button onClick={() => setAsking(false)}>Leave it</Button>
          {reverse.error !== null && <span className="text-alarm">{reverse.error.message}</span>}
        </>
      }
    />
  );
}

export default function YieldSheet() {
  const { breakdownId = '' } = useParams();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const mayReverse = useMay('ledger.reverse');
  const query = useQuery(sheetQuery(breakdownId));
  useOpen(query.data === undefined ? undefined : `${query.data.breakdown.speciesName} ${query.data.breakdown.lotCode}`);
  if (query.isPending) return <Loading />;
  if (query.isLoadingError) return <Failed error={query.error} again={() => void query.refetch()} />;
  const sheet = query.data;
  const b = sheet.breakdown;
  const counted = effectiveWeighings(sheet.weighings);
  const pieceName = (id: string): string =>
    shortName(
      [...sheet.rows, ...sheet.cameWithout].find((row) => row.pieceId === id)?.name ?? 'a piece that was not weighed',
    );
  const main = sheet.rows.find((row) => row.main && row.lotCode !== null);
  const figures: readonly (readonly [string, number, string])[] = [
    ['Main cut', sheet.mainShare, 'what it is bought for'],
    ['Edible', sheet.edibleShare, 'kept and fit to eat'],
    ['Recovered', sheet.recoveredShare, 'has a use, bones too'],
    ['Waste', sheet.wasteShare, 'thrown away'],
  ];
  return (
    <article className="flex-1 bg-sheet px-5 pt-3 pb-8">
      <PrintHead />
      <header className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-[24px] leading-8 font-bold">
          {b.speciesName}
          {b.stageIndex === 0 ? `, ${b.formName}` : `: ${b.stageName.toLowerCase()}`}
        </h1>
        <p className="text-ink-soft">
          lot {b.lotCode}
          {b.supplierName !== null && ` · ${b.supplierName}`} · {b.by}, {b.closedAt !== null && dayAndTime(b.closedAt)}
          {sheet.reopenedFrom > 0 && ` · reopened ${sheet.reopenedFrom === 1 ? 'once' : `${sheet.reopenedFrom} times`}`}
        </p>
        <div className="no-print ml-auto flex flex-wrap items-center gap-2">
          {main?.lotCode != null && (
            <Link
              to={`/bench/cut?q=${main.lotCode}`}
              className="inline-flex min-h-10 items-center rounded-plate border-[1.5px] border-ink bg-white px-4 font-head text-[15px] font-semibold"
            >
              Cut to weight
            </Link>
          )}
          {mayReverse && sheet.movementId !== null && <TakeBack movementId={sheet.movementId} breakdownId={b.id} />}
          <Button onClick={() => print()}>Print</Button>
          <Link
            to="/ledger"
            className="inline-flex min-h-10 items-center rounded-plate border-[1.5px] border-line-strong bg-white px-4 font-head text-[15px] font-semibold"
          >
            All breakdowns
          </Link>
        </div>
      </header>
      <Ribbon
        totalMg={b.startMg}
        parts={sheet.rows.map((row) => ({
          id: `${row.pieceId}/${row.destination}`,
          name: shortName(row.name),
          destination: row.destination,
          massMg: row.massMg,
        }))}
        openName="drip, scale"
      />
      <div className="my-3 grid grid-cols-2 md:grid-cols-4 divide-x divide-line border-y border-line">
        {figures.map(([name, share, says]) => (
          <div key={name} className="px-4 py-1.5 first:pl-0">
            <span className="figure whitespace-nowrap text-[28px] leading-tight">{formatShare(share)}</span>
            <span className="ml-2 font-semibold">{name}</span>
            <span className="block text-[13px] text-ink-soft">{says}</span>
          </div>
        ))}
      </div>
      <Through sheet={sheet} money={money} />
      {sheet.cameWithout.length > 0 && (
        <p className="mb-3 border-l-4 border-attention pl-3">
          Came without{' '}
          {sheet.cameWithout.map((c) => `${c.of > 1 ? `${c.units} of ${c.of} ` : ''}${shortName(c.name)}`).join(', ')}.
          Its shares are of what was there, and it is measured against others that lacked the same.
        </p>
      )}
      {sheet.note !== null && (
        <div className="mb-3">
          <Notice tone="attention">Closed out of balance: {sheet.note}</Notice>
        </div>
      )}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: wider than a phone, and what scrolls must be reached by keys */}
      <section aria-label="Pieces" className="overflow-x-auto print:overflow-visible" tabIndex={0}>
        <YieldRows sheet={sheet} money={money} />
      </section>
      <p className="mt-2 text-[14px] text-ink-soft">
        Cost factor of the main cut:{' '}
        {costingSchools
          .map((school) => {
            const factor = sheet.costFactor[school];
            return `${schoolNames[school].toLowerCase()} ${factor === null ? 'none' : formatCount(factor, 3)}`;
          })
          .join(', ')}
        . Multiply tomorrow’s price per kilo by it. Waste carries no cost under either school.
        {taxWords(house?.tax) !== '' && ` Prices and costs ${taxWords(house?.tax)}.`}{' '}
        <HowLink to="factor" of="the cost factor" />
      </p>
      <PerAnimal sheet={sheet} />
      <div className="mt-6 grid gap-8 lg:grid-cols-[1fr_380px] print:grid-cols-[1fr_380px]">
        <section aria-label="Earlier ones">
          <h2 className="mb-2 text-lg font-bold">Main cut, against earlier ones of the same kind</h2>
          {sheet.history.length < 2 ? (
            <p className="text-ink-soft">The first of its kind here. The next one is measured against it.</p>
          ) : (
            <Suspense fallback={<Loading />}>
              <YieldRun history={sheet.history} current={b.id} />
            </Suspense>
          )}
        </section>
        <section aria-label="Weighings">
          <h2 className="mb-2 text-lg font-bold">Weighings</h2>
          <ol className="text-[14px]">
            {sheet.weighings
              .filter((w) => w.massMg !== null)
              .map((w) => (
                <li
                  key={w.id}
                  className={`flex justify-between gap-3 border-b border-line py-0.5 ${counted.some((c) => c.id === w.id) ? '' : 'text-ink-soft line-through'}`}
                >
                  <span>
                    {clockTime(w.at)} {sheet.rows.find((row) => row.pieceId === w.pieceId)?.name ?? w.pieceId}
                    {w.count > 1 && `, ${w.count}`}
                    {w.animal !== null && `, no. ${w.animal}`}
                    {w.source === 'typed' && ', typed'}
                  </span>
                  <span className="figure">{formatMass(w.massMg ?? 0)}</span>
                </li>
              ))}
          </ol>
          {sheet.events.length > 0 && (
            <>
              <h3 className="mt-4 mb-1 font-bold">What else happened</h3>
              <ol className="text-[14px]">
                {sheet.events.map((e) => (
                  <li key={e.id} className="border-b border-line py-0.5">
                    {clockTime(e.body.at)} {eventWords(e.body, pieceName)}, {e.by}
                  </li>
                ))}
              </ol>
            </>
          )}
        </section>
      </div>
    </article>
  );
}
