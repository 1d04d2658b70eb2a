import { useQuery } from '@tanstack/react-query';
import type { DeliveryLine } from '@zabrik/contract';
import { claimWords, refusalNames } from '@zabrik/contract/claim-words';
import { formatMass, formatTemperature } from '@zabrik/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { dayAndTime, dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { HowLink } from '../../parts/HowLink.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { MiniRibbon } from '../../parts/Ribbon.tsx';
import { TakePhoto } from '../../parts/TakePhoto.tsx';
import { deliveryQuery } from './reads.ts';
import { differenceWords } from './words.ts';

const detailNames: Readonly<Record<string, string>> = {
  supplierLot: 'supplier’s lot',
  gtin: 'GTIN',
  catchArea: 'area',
  gear: 'gear',
  method: 'method',
  killPlace: 'killed at',
  killedOn: 'killed on',
  shotBy: 'shot by',
  declaration: 'declaration',
  shotDamage: 'shot damage',
  healthMark: 'health mark',
  purified: 'purified',
};

function Photographs({ line }: { readonly line: DeliveryLine }) {
  const may = useMay('receive.photograph');
  const add = useCommand(api.receive.photograph);
  return (
    <div className="no-print mt-2 flex flex-wrap items-center gap-2">
      {line.photographs.map((id, i) => (
        <a key={id} href={`/api/v1/photographs/${id}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/v1/photographs/${id}`}
            alt={`${i + 1} of ${line.speciesName}`}
            className="h-20 w-24 rounded-md border border-line-strong object-cover"
            loading="lazy"
          />
        </a>
      ))}
      {may && (
        <TakePhoto
          label={`Photograph of ${line.speciesName}`}
          pending={add.pending}
          onPhoto={(photo) => add.send(photo.then((base64) => ({ params: { lineId: line.id }, body: { base64 } })))}
        />
      )}
      {add.error !== null && <Notice tone="alarm">{add.error.message}</Notice>}
    </div>
  );
}

function Line({
  line,
  money,
  heaviest,
}: {
  readonly line: DeliveryLine;
  readonly money: (minor: number) => string;
  readonly heaviest: number;
}) {
  const { data: catalogue } = useCatalogue();
  const points = catalogue?.inspection.flatMap((c) => c.points) ?? [];
  const bad = line.inspection
    .filter((a) => !a.good)
    .flatMap((a) => points.find((p) => p.id === a.pointId)?.ask.toLowerCase() ?? []);
  const kept = line.netMg - line.refusedMg;
  return (
    <li className={`border-b border-line py-3 ${line.reversed ? 'line-through opacity-60' : ''}`}>
      <div className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-x-5">
        <h3 className="truncate text-lg font-bold">
          {line.speciesName}
          <span className="font-normal text-ink-soft">
            {line.formName !== '' && `, ${line.formName}`}
            {line.came !== 'fresh' && `, ${line.came}`}
          </span>
        </h3>
        <span className="figure text-lg">{line.grossMg === null ? 'not weighed' : formatMass(line.netMg)}</span>
        <span className="figure w-24 text-right text-lg">{money(line.paidMinor)}</span>
      </div>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)_220px] gap-5">
        <div className="min-w-0 text-[15px] leading-snug break-words">
          <p>
            {line.lotId === null ? (
              <strong className="text-alarm">Refused: {refusalNames[line.refusedReason ?? '']}</strong>
            ) : (
              <>
                Lot{' '}
                <Link to={`/larder/${line.lotId}`} className="figure underline">
                  {line.code}
                </Link>
                {line.useBy !== null && `, use by ${dayName(line.useBy)}`}
              </>
            )}
            {line.verdict === 'part' && (
              <strong className="text-alarm">
                {' '}
                · {formatMass(line.refusedMg)} back: {refusalNames[line.refusedReason ?? '']}
              </strong>
            )}
          </p>
          <p className="text-ink-soft">
            invoice {line.invoiceMg === null ? 'without a weight' : formatMass(line.invoiceMg)}
            {line.grossMg !== null &&
              `, ${differenceWords(line.differenceMg, line.differenceMinor, money).toLowerCase()}`}
            {line.boxes.length > 1 &&
              ` · ${line.boxes.length} boxes: ${line.boxes.map((b) => formatMass(b.grossMg - b.tareMg)).join(', ')}`}
          </p>
          {line.temperatureCentiC !== null && (
            <p className={line.judged?.verdict === 'outside' ? 'font-semibold text-alarm' : 'text-ink-soft'}>
              {formatTemperature(line.temperatureCentiC)}
              {line.judged !== null && `, ${line.judged.says} (${line.judged.document})`}
            </p>
          )}
          {line.inspection.length > 0 && (
            <p className={bad.length > 0 ? 'font-semibold text-alarm' : 'text-ink-soft'}>
              {bad.length > 0
                ? `not right: ${bad.join(', ')}`
                : `looked at, ${line.inspection.length} points, all right`}
            </p>
          )}
          {(Object.keys(line.details).length > 0 || line.origin !== null || line.landedOn !== null) && (
            <p className="text-ink-soft">
              {[
                ...(line.origin === null ? [] : [line.origin]),
                ...(line.landedOn === null ? [] : [`landed or killed ${dayName(line.landedOn)}`]),
                ...Object.entries(line.details).map(
                  ([k, v]) => `${detailNames[k] ?? k} ${k === 'method' ? String(v).replaceAll('-', ' ') : String(v)}`,
                ),
              ].join(' · ')}
            </p>
          )}
          {line.note !== null && <p className="text-ink-soft">{line.note}</p>}
        </div>
        <div className="pt-1">
          <MiniRibbon
            totalMg={Math.max(line.invoiceMg ?? 0, line.netMg)}
            scaleMg={heaviest}
            parts={[
              { id: 'kept', name: 'kept', destination: 'portion', massMg: line.lotId === null ? 0 : kept },
              {
                id: 'back',
                name: 'goes back',
                destination: 'waste',
                massMg: line.lotId === null ? line.netMg : line.refusedMg,
              },
            ]}
          />
          <p className="text-[13px] text-ink-soft">kept, sent back, and what was invoiced and did not come</p>
        </div>
      </div>
      <Photographs line={line} />
    </li>
  );
}

/** One delivery: its lines, what is missing of its order, and what to claim for it. */
export default function DeliveryPage() {
  const { deliveryId = '' } = useParams();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const may = useMay('receive.close');
  const [copied, setCopied] = useState(false);
  const delivery = useQuery(deliveryQuery(deliveryId));
  useOpen(delivery.data?.supplierName);
  const close = useCommand(api.receive.close);
  if (delivery.isPending || house === undefined) return <Loading />;
  if (delivery.isLoadingError) return <Failed error={delivery.error} again={() => void delivery.refetch()} />;
  const { data } = delivery;
  const words = claimWords(house, data);
  const heaviest = data.lines.reduce((most, l) => Math.max(most, l.invoiceMg ?? 0, l.netMg), 1);
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(words);
      setCopied(true);
    } catch {
      // a page over plain HTTP may not write to the clipboard: the text stands there to be marked
      setCopied(false);
    }
  };
  return (
    <div className="flex flex-1 flex-col">
      <ReceiveHead />
      <div className="grid flex-1 content-start lg:grid-cols-[minmax(0,1fr)_420px] lg:content-stretch">
        <section className="bg-sheet px-5 py-4 print:hidden" aria-label="Delivery">
          <header className="flex flex-wrap items-start justify-between gap-3">
            <div>
              <h2 className="text-2xl font-bold">{data.supplierName}</h2>
              <p className="text-ink-soft">
                {dayAndTime(data.at)}, received by {data.by}
                {data.invoice !== null && ` · invoice ${data.invoice}`}
                {data.closedAt === null ? ' · still open' : ` · closed ${dayAndTime(data.closedAt)}`}
              </p>
            </div>
            <PaperLink to={`/paper/deliveries/${deliveryId}/delivery.pdf`} />
            {may && data.closedAt === null && (
              <Button
                variant="strong"
                size="bench"
                disabled={close.pending}
                onClick={() => close.send({ params: { deliveryId } })}
              >
                Nothing more comes: close it
              </Button>
            )}
          </header>
          {close.error !== null && <Notice tone="alarm">{close.error.message}</Notice>}
          {data.missing.length > 0 && (
            <div className="mt-3">
              <Notice tone="attention">
                Still missing of the order: {data.missing.map((m) => `${m.name} ${formatMass(m.massMg)}`).join('; ')}.
                The order stays open for it.
              </Notice>
            </div>
          )}
          <ol className="mt-3 border-t border-line">
            {data.lines.map((line) => (
              <Line key={line.id} line={line} money={money} heaviest={heaviest} />
            ))}
          </ol>
        </section>
        <aside className="border-line bg-sheet-soft p-5 lg:border-l print:bg-white" aria-label="Claim">
          {words === '' ? (
            <>
              <h2 className="mb-1 text-lg font-bold">Nothing to claim</h2>
              <p className="text-ink-soft">
                What differs is within what you let the scales differ: {formatMass(house.tolerance.massMg)} or{' '}
                {house.tolerance.share * 100} %.
              </p>
            </>
          ) : (
            <>
              <h2 className="no-print mb-2 flex items-baseline justify-between gap-3 text-lg font-bold">
                Claim <span className="figure text-2xl">{money(data.claim.claimMinor)}</span>
              </h2>
              <HowLink to="claim" of="the claim" />
              <p
                className="rounded-plate border border-line bg-white p-4 text-[15px] leading-relaxed whitespace-pre-wrap print:border-0"
                data-testid="claim"
              >
                {words}
              </p>
              <div className="no-print mt-3 flex flex-wrap gap-2">
                <Button variant="strong" onClick={() => void copy()}>
                  {copied ? 'Copied' : 'Copy the text'}
                </Button>
                <Button onClick={() => print()}>Print</Button>
                <PaperLink to={`/deliveries/${deliveryId}/claim.pdf`}>As PDF</PaperLink>
              </div>
            </>
          )}
        </aside>
      </div>
    </div>
  );
}
