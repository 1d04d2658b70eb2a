import { useQuery } from '@tanstack/react-query';
import type { YieldSheet as Sheet } from '@zabrik/contract';
import {
  type CostingSchool,
  costingSchools,
  costPerKg,
  effectiveWeighings,
  formatMass,
  formatShare,
  shortName,
} from '@zabrik/core';
import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import { clothOf, trayName } from '../../parts/destinations.ts';
import { GoOn } from '../../parts/GoOn.tsx';
import { Ribbon } from '../../parts/Ribbon.tsx';

const YieldRun = lazy(() => import('./YieldRun.tsx'));

const schoolNames: Readonly<Record<CostingSchool, string>> = {
  weight: 'By weight',
  'by-product-credit': 'By-product credit',
};

/** A share on a small ruler: the usual range as a bar, this one as a mark. */
function Against({ share, low, high }: { readonly share: number; readonly low: number; readonly high: number }) {
  const reach = Math.max(high - low, 0.01);
  const from = low - reach;
  const at = (value: number): string => `${Math.min(100, Math.max(0, ((value - from) / (3 * reach)) * 100))}%`;
  return (
    <span className="relative block h-4 w-full rounded-sm bg-ground" aria-hidden="true">
      <span
        className="absolute inset-y-1 rounded-sm bg-portion/45"
        style={{ left: at(low), right: `calc(100% - ${at(high)})` }}
      />
      <span className="absolute inset-y-0 w-1 -translate-x-1/2 bg-ink" style={{ left: at(share) }} />
    </span>
  );
}

const verdict = (share: number, low: number, high: number): string =>
  share < low ? 'below' : share > high ? 'above' : 'inside';

function Rows({ sheet, money }: { readonly sheet: Sheet; readonly money: (minor: number) => string }) {
  const total = (school: CostingSchool): number =>
    sheet.rows.reduce((sum, row) => sum + (row.costMinor[school] ?? 0), 0);
  const { startShare, stageIndex } = sheet.breakdown;
  const answered = (school: CostingSchool): boolean => sheet.rows.every((row) => row.costMinor[school] !== null);
  return (
    <table className="w-full min-w-[1120px] table-fixed border-collapse text-left text-[15px] print:min-w-0">
      <caption className="sr-only">Pieces with their shares and costs</caption>
      <thead className="align-bottom text-[13px] text-ink-soft">
        <tr className="border-b border-ink">
          <th className="py-1.5 pr-2 font-semibold">Piece</th>
          <th className="w-[82px] py-1.5 pr-3 text-right font-semibold">Mass</th>
          <th className="w-[70px] py-1.5 pr-3 text-right font-semibold">of stage</th>
          <th className="w-[96px] py-1.5 pr-3 text-right font-semibold">of purchase</th>
          <th className="w-[196px] py-1.5 print:w-[158px] pr-3 font-semibold">Handbook, usual range</th>
          <th className="w-[210px] py-1.5 print:w-[190px] pr-3 font-semibold">This house, 8 of 10</th>
          {costingSchools.map((school) => (
            <th key={school} className="w-[122px] py-1.5 print:w-[104px] text-right font-semibold">
              {schoolNames[school]}
              {school === sheet.bookedSchool && <span className="block font-normal">booked</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {sheet.rows.map((row, i) => (
          <tr key={`${row.pieceId}/${row.destination}`} className="border-b border-line">
            <td className="py-1.5 pr-2 leading-tight">
              <span className="flex items-center gap-2">
                <span className={`size-4 shrink-0 rounded-[3px] ${clothOf[row.destination]}`} aria-hidden="true" />
                <span className="min-w-0">
                  <span className={`block truncate print:whitespace-normal ${row.main ? 'font-bold' : ''}`}>
                    {row.name}
                  </span>
                  <span className="block truncate print:whitespace-normal text-[13px] text-ink-soft">
                    {trayName(row.destination).toLowerCase()}
                    {row.count > 1 && `, ${row.count}`}
                    {row.broughtMg > 0 && ` · ${formatMass(row.broughtMg)} joined to it, not in these weights`}
                    {row.lotCode !== null && ` · ${row.lotCode}`}
                  </span>
                </span>
              </span>
            </td>
            <td className="figure py-1.5 pr-3 text-right">{formatMass(row.massMg)}</td>
            <td className="py-1.5 pr-3 text-right">{formatShare(row.shareOfStage)}</td>
            <td className="py-1.5 pr-3 text-right">{formatShare(row.shareOfPurchase)}</td>
            {sheet.rows.findIndex((r) => r.pieceId === row.pieceId) < i ? (
              <td colSpan={2} className="py-1.5 pr-3 text-[13px] text-ink-soft">
                judged with the rest of it, above
              </td>
            ) : (
              <>
                <td className="py-1.5 pr-3">
                  <Against share={row.shareOfPiece} low={row.handbook.low} high={row.handbook.high} />
                  <span className="text-[13px] text-ink-soft">
                    {row.trays > 1 && `${formatShare(row.shareOfPiece)} in all: `}
                    {formatShare(row.handbook.low, 1)} to {formatShare(row.handbook.high, 1)},{' '}
                    {verdict(row.shareOfPiece, row.handbook.low, row.handbook.high)}
                  </span>
                </td>
                <td className="py-1.5 pr-3">
                  {row.house === null ? (
                    <span className="text-[13px] text-ink-soft">no earlier ones</span>
                  ) : (
                    <>
                      <Against share={row.shareOfPiece} low={row.house.low} high={row.house.high} />
                      <span className="text-[13px] text-ink-soft">
                        {formatShare(row.house.low, 1)} to {formatShare(row.house.high, 1)},{' '}
                        {verdict(row.shareOfPiece, row.house.low, row.house.high)}, of {row.house.records}
                      </span>
                    </>
                  )}
                </td>
              </>
            )}
            {costingSchools.map((school) => {
              const cost = row.costMinor[school];
              const perKg = cost === null ? undefined : costPerKg(cost, row.massMg);
              return (
                <td key={school} className="py-1.5 text-right leading-tight">
                  <span className="figure font-semibold">{cost === null ? '–' : money(cost)}</span>
                  <span className="block text-[13px] whitespace-nowrap text-ink-soft">
                    {cost !== null && cost > 0 && perKg !== undefined && `${money(perKg)} a kg`}
                  </span>
                  {cost !== null && cost > 0 && row.count > 1 && row.trays === 1 && (
                    <span className="block text-[13px] whitespace-nowrap text-ink-soft">
                      {money(cost / row.count)} each
                    </span>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="border-b border-line">
          <td className="py-1.5 text-ink-soft">unaccounted: drip and scale</td>
          <td className="figure py-1.5 pr-3 text-right">{formatMass(sheet.unaccountedMg)}</td>
          <td className="py-1.5 pr-3 text-right">{formatShare(sheet.unaccountedShare)}</td>
          <td className="py-1.5 pr-3 text-right">{formatShare(sheet.unaccountedShare * startShare)}</td>
          <td colSpan={4} />
        </tr>
        <tr className="border-t-2 border-ink font-bold">
          <td className="py-2">start, and what it cost</td>
          <td className="figure py-2 pr-3 text-right">{formatMass(sheet.purchase.massMg)}</td>
          <td className="py-2 pr-3 text-right whitespace-nowrap">100 %</td>
          <td className="py-2 pr-3 text-right whitespace-nowrap">{formatShare(startShare)}</td>
          <td colSpan={2} className="py-2 pr-3 text-right font-normal text-ink-soft">
            {stageIndex === 0 ? 'invoice' : 'carried on'} {money(sheet.purchase.paidMinor)},{' '}
            {money(sheet.purchase.minorPerKg)} a kg
          </td>
          {costingSchools.map((school) => (
            <td key={school} className="figure py-2 text-right" data-testid={`total-${school}`}>
              {answered(school) ? money(total(school)) : 'no answer'}
            </td>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}

const eventWords = (body: Sheet['events'][number]['body'], pieceName: (id: string) => string): string => {
  switch (body.kind) {
    case 'step':
      return `step ${body.step + 1} ${body.mark === 'late' ? 'done late' : body.mark}${body.note === null ? '' : `: ${body.note}`}`;
    case 'pass':
      return `a pass counted at step ${body.step + 1}`;
    case 'pause':
      return 'paused';
    case 'resume':
      return 'went on';
    case 'tray-note':
      return `note to ${trayName(body.destination).toLowerCase()}: ${body.text}`;
    case 'hand-over':
      return 'handed over';
    case 'bring-in':
      return `brought in: ${formatMass(body.massMg)} of ${body.name} to ${pieceName(body.pieceId)}`;
    case 'bring-back':
      return 'what was brought in was taken back';
    case 'timer':
      return `timer set: ${body.label}, until ${clockTime(body.dueAt)}`;
    case 'timer-off':
      return 'timer stopped';
    case 'came-without':
      return body.units === 0
        ? `${pieceName(body.pieceId)}: it was there after all`
        : `came without ${body.units > 1 ? `${body.units} × ` : ''}${pieceName(body.pieceId)}`;
    case 'other-piece':
      return `another piece: ${body.piece.name}`;
  }
};

const share = (n: number): string => formatShare(n);

/** The stages of the purchase, whose yields multiply, and the time this one took. */
function Through({ sheet, money }: { readonly sheet: Sheet; readonly money: (minor: number) => string }) {
  const { chain, cuttings, through, time, breakdown: b } = sheet;
  const several = chain.length + cuttings.length > 1;
  return (
    <section aria-label="Stages and time" className="mb-2 grid items-start gap-x-8 gap-y-3 md:grid-cols-[1fr_auto]">
      {several || through.open ? (
        <div>
          <ol className="flex flex-wrap items-stretch gap-2">
            {chain.map((c) => (
              <li key={c.breakdownId}>
                <Link
                  to={c.state === 'closed' ? `/ledger/${c.breakdownId}` : `/bench/${c.breakdownId}`}
                  aria-current={c.breakdownId === b.id ? 'page' : undefined}
                  className={`block rounded-md border-[1.5px] px-3 py-1 leading-tight ${c.breakdownId === b.id ? 'border-ink bg-white' : 'border-line-strong bg-sheet-soft'}`}
                >
                  <span className="block font-head text-[15px] font-semibold">{c.stageName}</span>
                  <span className="block text-[13px] text-ink-soft">
                    {c.state === 'closed'
                      ? `${share(c.keptShare)} of ${formatMass(c.startMg)}`
                      : `on the bench, ${formatMass(c.startMg)}`}
                  </span>
                </Link>
              </li>
            ))}
            {cuttings.map((c) => (
              <li key={c.id}>
                <Link
                  to={`/bench/cut/${c.id}`}
                  className="block rounded-md border-[1.5px] border-line-strong bg-sheet-soft px-3 py-1 leading-tight"
                >
                  <span className="block font-head text-[15px] font-semibold">Cut to weight</span>
                  <span className="block text-[13px] text-ink-soft">
                    {share(c.madeMg / c.usedMg)} of {formatMass(c.usedMg)}
                    {c.portions > 0 && `, ${c.portions} ${c.portions === 1 ? 'portion' : 'portions'}`}
                    {c.giveAwayMg > 0 && `, ${formatMass(c.giveAwayMg)} given away`}
                  </span>
                </Link>
              </li>
            ))}
          </ol>
          <p className="mt-1.5 text-[15px]" data-testid="through">
            Of the purchase, through {several ? 'all stages' : 'this stage'}
            {through.open && ' so far'}: <strong>{share(through.portionShare)}</strong> portions,{' '}
            <strong>{share(through.edibleShare)}</strong> edible, {share(through.recoveredShare)} recovered,{' '}
            {share(through.wasteShare)} waste, {share(through.lossShare)} drip.
            {through.open && ' Pieces still wait to go on.'}
            {b.startShare < 0.9995 && ` This stage began with ${share(b.startShare)} of the purchase.`}
          </p>
          {through.open && <GoOn breakdownIds={chain.map((c) => c.breakdownId)} />}
        </div>
      ) : (
        <div />
      )}
      <p className="text-right text-[15px] leading-tight" data-testid="time">
        <span className="figure">{time.minutes.toFixed(0)} min</span>
        {b.animals > 1 && `, ${time.perAnimal.toFixed(1)} an animal`}
        {time.labourMinor !== null && ` · work ${money(time.labourMinor)}`}
        <span className="text-ink-soft">
          {' '}
          · handbook {time.handbook.low} to {time.handbook.high} min an animal
        </span>
      </p>
    </section>
  );
}

/** What each animal of a batch came to, where they were weighed apart. */
function PerAnimal({ sheet }: { readonly sheet: Sheet }) {
  const rows = sheet.perAnimal.filter((p) => p.animals > 1);
  if (rows.length === 0) return null;
  return (
    <section aria-label="Animal by animal" className="mt-5">
      <h2 className="mb-1 text-lg font-bold">Animal by animal</h2>
      <table className="w-full max-w-3xl text-left text-[15px]">
        <thead className="text-[13px] text-ink-soft">
          <tr className="border-b border-ink">
            <th className="py-1 font-semibold">Piece</th>
            <th className="py-1 text-right font-semibold">animals</th>
            <th className="py-1 text-right font-semibold">mean</th>
            <th className="py-1 text-right font-semibold">spread (sd)</th>
            <th className="py-1 text-right font-semibold">least to most</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((p) => (
            <tr key={p.pieceId} className="border-b border-line">
              <td className="py-1">{sheet.rows.find((r) => r.pieceId === p.pieceId)?.name ?? p.pieceId}</td>
              <td className="py-1 text-right">{p.animals}</td>
              <td className="figure py-1 text-right">{formatMass(Math.round(p.meanMg))}</td>
              <td className="py-1 text-right">{p.sdMg === null ? '–' : formatMass(Math.round(p.sdMg))}</td>
              <td className="py-1 text-right">
                {formatMass(p.lowMg)} to {formatMass(p.highMg)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

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
      sending={{ look: 'alarm' }}
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
  const query = useQuery({
    queryKey: ['breakdowns', 'sheet', breakdownId],
    queryFn: () => call(api.ledger.sheet, { params: { breakdownId } }),
  });
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
      <header className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-[24px] leading-8 font-bold">
          {b.speciesName}
          {b.stageIndex === 0 ? `, ${b.formName}` : `: ${b.stageName.toLowerCase()}`}
        </h1>
        <p className="text-ink-soft">
          lot {b.lotCode} · {b.supplierName} · {b.by}, {b.closedAt !== null && dayAndTime(b.closedAt)}
          {sheet.reopenedFrom > 0 && ` · reopened ${sheet.reopenedFrom === 1 ? 'once' : `${sheet.reopenedFrom} times`}`}
        </p>
        <div className="no-print ml-auto flex items-center gap-2">
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
      <div className="overflow-x-auto print:overflow-visible">
        <Rows sheet={sheet} money={money} />
      </div>
      <p className="mt-2 text-[14px] text-ink-soft">
        Cost factor of the main cut:{' '}
        {costingSchools
          .map((school) => `${schoolNames[school].toLowerCase()} ${sheet.costFactor[school]?.toFixed(3) ?? 'none'}`)
          .join(', ')}
        . Multiply tomorrow’s price per kilo by it. Waste carries no cost under either school.
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
