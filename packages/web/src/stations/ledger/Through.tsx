import type { YieldSheet as Sheet } from '@zabrik/contract';
import { formatCount, formatMass, formatShare } from '@zabrik/core';
import { Link } from 'react-router';
import { GoOn } from '../../parts/GoOn.tsx';

const share = (n: number): string => formatShare(n);

/** The stages of the purchase, whose yields multiply, and the time this one took. */
export function Through({ sheet, money }: { readonly sheet: Sheet; readonly money: (minor: number) => string }) {
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
        <span className="figure">{formatCount(time.minutes)} min</span>
        {b.animals > 1 && `, ${formatCount(time.perAnimal, 1)} an animal`}
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
export function PerAnimal({ sheet }: { readonly sheet: Sheet }) {
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
