import { useQuery } from '@tanstack/react-query';
import { formatMass, formatShare } from '@zabrik/core';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { dayAndTime, dayName } from '../../app/dates.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { clothOf, trayName } from '../../parts/destinations.ts';
import { PrintHead } from '../../parts/PrintHead.tsx';
import { Ribbon } from '../../parts/Ribbon.tsx';
import { traceQuery } from './reads.ts';
import { outName, type TraceRow, viewOf } from './traceWords.ts';

const kindNames = { delivery: 'received', goods: 'received', piece: 'cut', batch: 'pot', tub: 'tub' } as const;

function Rows({
  rows,
  label,
  partOf,
  whole,
  caption,
}: {
  readonly rows: readonly TraceRow[];
  readonly label: string;
  /** What the share column is the share of. */
  readonly partOf: string;
  readonly whole: (row: TraceRow) => number;
  readonly caption: string;
}) {
  const { data: house } = useHouse();
  return (
    <section aria-label={label} className="mt-6">
      <h2 className="text-lg font-bold">{label}</h2>
      {rows.length === 0 ? (
        <p className="mt-1 text-ink-soft">{caption}</p>
      ) : (
        <div className="overflow-x-auto print:overflow-visible">
          <table className="w-full min-w-[900px] table-fixed border-collapse text-left text-[15px] print:min-w-0">
            <thead className="text-[13px] text-ink-soft">
              <tr className="border-b border-ink">
                <th className="py-1 font-semibold">Lot</th>
                <th className="w-[170px] py-1 font-semibold">When, who</th>
                <th className="w-[96px] py-1 pr-3 text-right font-semibold">Made</th>
                <th className="w-[130px] py-1 pr-3 text-right font-semibold">{partOf}</th>
                <th className="w-[190px] py-1 font-semibold">Left now</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => {
                const { lot, traced, indent, also } = row;
                return (
                  <tr key={lot.id} className="border-b border-line align-top">
                    <td className="py-1.5 pr-3" style={{ paddingLeft: `${indent * 22}px` }}>
                      <span className="flex items-start gap-2">
                        <span
                          className={`mt-1 size-4 shrink-0 rounded-[3px] border border-ink/30 ${clothOf[lot.destination ?? 'whole']}`}
                          aria-hidden="true"
                        />
                        <span className="min-w-0">
                          <Link
                            to={`/larder/${lot.id}/trace`}
                            className="block font-semibold underline-offset-2 hover:underline"
                          >
                            <span className="figure">{lot.code}</span> {lot.name}
                          </Link>
                          <span className="block text-[13px] text-ink-soft">
                            {kindNames[lot.kind]}
                            {lot.supplierName !== null && lot.kind === 'delivery' && ` from ${lot.supplierName}`}
                            {lot.origin !== null && `, ${lot.origin}`}
                            {lot.landedOn !== null && `, landed ${dayName(lot.landedOn)}`}
                            {also.length > 0 && ` · also through ${also.join(', ')}`}
                          </span>
                        </span>
                      </span>
                    </td>
                    <td className="py-1.5 text-[14px] text-ink-soft">
                      {dayAndTime(lot.madeAt)}
                      {lot.by !== null && <span className="block">{lot.by}</span>}
                    </td>
                    <td className="figure py-1.5 pr-3 text-right">{formatMass(traced.madeMg)}</td>
                    <td className="py-1.5 pr-3 text-right">
                      <span className="figure">{formatMass(traced.partMg)}</span>
                      <span className="block text-[13px] text-ink-soft">
                        {formatShare(whole(row) > 0 ? traced.partMg / whole(row) : 0)}
                      </span>
                    </td>
                    <td className="py-1.5">
                      {traced.onHandMg > 0 ? (
                        <>
                          <strong className="figure">{formatMass(traced.onHandMg)}</strong>
                          <span className="block text-[13px] text-ink-soft">
                            {lot.destination === null ? 'to be cut' : trayName(lot.destination).toLowerCase()},{' '}
                            {house?.places.find((p) => p.id === lot.placeId)?.name ?? lot.placeId}
                            {lot.state === 'frozen' && ', frozen'}
                            {lot.held !== null && ', on hold'}
                            {lot.useBy !== null && `, use by ${dayName(lot.useBy)}`}
                          </span>
                        </>
                      ) : (
                        <span className="text-ink-soft">nothing</span>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

/** Up to the boat or farm, down to every plate: what a lot was made from, what holds it now, and how the rest left the house. */
export default function Trace() {
  const { lotId = '' } = useParams();
  const { data: house } = useHouse();
  const mayExport = useMay('ledger.exportEpcis');
  const query = useQuery(traceQuery(lotId));
  const { data } = query;
  const view = useMemo(
    () => (data === undefined ? undefined : viewOf(lotId, data.lots, data.movements)),
    [data, lotId],
  );
  useOpen(view === undefined ? undefined : `From where to where, ${view.root.name} ${view.root.code}`);
  if (query.isPending) return <Loading />;
  if (data === undefined || view === undefined)
    return <Failed error={query.error ?? new Error('This lot cannot be traced.')} again={() => void query.refetch()} />;
  const { root, up, down, waysOut, now } = view;
  return (
    <article className="flex-1 bg-sheet px-5 py-3" aria-label={`Trace of ${root.name}`}>
      <PrintHead />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-2xl font-bold">
          <span className="figure">{root.code}</span> {root.name}
        </h1>
        <p className="min-w-0 flex-1 text-ink-soft">
          {kindNames[root.kind]} {dayAndTime(root.madeAt)}
          {root.by !== null && `, ${root.by}`}
          {root.supplierName !== null && ` · ${root.supplierName}`}
          {root.origin !== null && ` · ${root.origin}`}
        </p>
        <span className="no-print flex gap-2 self-center">
          <Button onClick={() => print()}>Print</Button>
          {mayExport && (
            <a
              href={`/api/v1/ledger/movements.jsonld?lot=${root.id}`}
              download
              className="flex min-h-10 items-center rounded-md border-[1.5px] border-line-strong bg-white px-4 font-head text-[15px] font-semibold"
            >
              EPCIS events
            </a>
          )}
          <Link
            to={`/larder/${root.id}`}
            className="flex min-h-10 items-center rounded-md border-[1.5px] border-ink bg-white px-4 font-head text-[15px] font-semibold"
          >
            The lot
          </Link>
        </span>
      </div>
      <p className="hidden text-[14px] print:block">
        {house?.name}, as the records stood {dayAndTime(data.at)}. Recall sheet: hold what is left, tell the supplier
        and your authority as your own plan says.
      </p>
      <div className="mt-2">
        <Ribbon
          totalMg={root.madeMg}
          parts={now.map((p) => ({ id: p.says, name: p.says, destination: p.destination, massMg: p.massMg }))}
          openName="not accounted for"
        />
        <p className="mt-1.5 text-[15px]" data-testid="where-now">
          Of {formatMass(root.madeMg)}:{' '}
          {now.map((p, i) => (
            <span key={p.says}>
              {i > 0 && ', '}
              <strong className="figure">{formatMass(p.massMg)}</strong> {p.says}
            </span>
          ))}
          .
        </p>
      </div>
      <Rows
        rows={up}
        label="Made from"
        partOf="Of this lot"
        whole={() => root.madeMg}
        caption={root.kind === 'delivery' ? 'It came in as it is.' : 'Nothing else went into it.'}
      />
      <Rows
        rows={down}
        label="Went into"
        partOf="Holds of it"
        whole={(row) => row.traced.madeMg}
        caption="Nothing was made from it yet."
      />
      {waysOut.length > 0 && (
        <section aria-label="Left the house" className="mt-6">
          <h2 className="text-lg font-bold">Left the house</h2>
          <table className="w-full max-w-[900px] border-collapse text-left text-[15px]">
            <tbody>
              {waysOut.map((w) => (
                <tr key={w.id} className="border-b border-line">
                  <td className="w-[170px] py-1 text-ink-soft">{dayAndTime(w.at)}</td>
                  <td className="py-1">{outName(w)}</td>
                  <td className="py-1 text-ink-soft">
                    from {data.lots.find((l) => l.id === w.lotId)?.code} {data.lots.find((l) => l.id === w.lotId)?.name}
                  </td>
                  <td className="figure py-1 pr-3 text-right">{formatMass(w.massMg)}</td>
                  <td className="py-1 text-right whitespace-nowrap text-ink-soft">{formatMass(w.partMg)} of this</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </article>
  );
}
