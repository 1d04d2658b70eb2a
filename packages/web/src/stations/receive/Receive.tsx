import { useQuery } from '@tanstack/react-query';
import type { Delivery, DeliveryLine, Order } from '@zabrik/contract';
import { refusalNames } from '@zabrik/contract/claim-words';
import { formatMass, formatTemperature } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayName, dueWords } from '../../app/dates.ts';
import { hasDraft, useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse, useMay, useMe } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { WaitsHereOf } from '../../parts/WaitsHere.tsx';
import { LineForm } from './LineForm.tsx';
import { NEW_ORDER, NewOrder } from './NewOrder.tsx';
import { deliveriesQuery, ordersQuery } from './reads.ts';
import { differenceWords } from './words.ts';

interface WrittenProps {
  readonly line: DeliveryLine;
  readonly money: (minor: number) => string;
  readonly again: () => void;
}

/** What the line became: the code to write on the box, or that it goes back. */
function Written({ line, money, again }: WrittenProps) {
  return (
    <section
      className={`rounded-plate border-2 bg-white p-5 ${line.verdict === 'refused' ? 'border-alarm' : 'border-calm'}`}
      role="status"
      aria-label={line.verdict === 'refused' ? 'Refused' : 'Accepted'}
    >
      <p className="text-ink-soft">
        {line.speciesName}
        {line.formName !== '' && `, ${line.formName}`} · {formatMass(line.netMg - line.refusedMg)} ·{' '}
        {money(line.paidMinor)}
      </p>
      {line.code === null ? (
        <p className="my-2 font-head text-3xl font-bold">Goes back: {refusalNames[line.refusedReason ?? '']}</p>
      ) : (
        <p className="figure my-2 text-[64px] leading-none" data-testid="new-code">
          {line.code}
        </p>
      )}
      {line.useBy !== null && (
        <p className="mb-1">
          Write it on the box. Use by {dayName(line.useBy)} ({dueWords(line.useBy).text}).
        </p>
      )}
      {line.verdict === 'part' && (
        <p className="mb-1 font-semibold text-alarm">
          {formatMass(line.refusedMg)} goes back: {refusalNames[line.refusedReason ?? '']}.
        </p>
      )}
      {line.grossMg !== null && (
        <p className="mb-1">{differenceWords(line.differenceMg, line.differenceMinor, money)}</p>
      )}
      {line.judged !== null && (
        <div className="mb-1">
          <Notice tone={line.judged.verdict === 'outside' ? 'alarm' : 'calm'}>
            {line.temperatureCentiC !== null && `${formatTemperature(line.temperatureCentiC)}: `}
            {line.judged.says}. <span className="text-[13px]">{line.judged.document}</span>
          </Notice>
        </div>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        {line.lotId !== null && line.species !== null && (
          <Link
            to={`/bench?lot=${line.lotId}`}
            className="inline-flex min-h-14 items-center rounded-plate bg-ink px-5 font-head text-[17px] font-semibold text-white"
          >
            Put it on the bench
          </Link>
        )}
        <Button size="bench" onClick={again} autoFocus>
          Next line
        </Button>
        <Link
          to={`/receive/${line.deliveryId}`}
          className="inline-flex min-h-14 items-center rounded-plate border-[1.5px] border-line-strong bg-white px-5 font-head text-[17px] font-semibold"
        >
          Photographs, claim, close
        </Link>
      </div>
    </section>
  );
}

function LineRow({ line, money }: { readonly line: DeliveryLine; readonly money: (minor: number) => string }) {
  const body = (
    <>
      <span className="flex justify-between gap-3">
        <span className="truncate font-head font-semibold">{line.speciesName}</span>
        <span className="figure">
          {line.verdict === 'refused' ? 'refused' : formatMass(line.netMg - line.refusedMg)}
        </span>
      </span>
      <span className="flex justify-between gap-3 text-[14px] text-ink-soft">
        <span className="truncate">{line.code ?? refusalNames[line.refusedReason ?? '']}</span>
        <span className="whitespace-nowrap">
          {money(line.paidMinor)}
          {line.temperatureCentiC !== null && ` · ${formatTemperature(line.temperatureCentiC)}`}
        </span>
      </span>
    </>
  );
  const look = `block rounded-md px-1 py-1 ${line.reversed ? 'line-through opacity-60' : ''}`;
  return line.lotId === null ? (
    <span className={`${look} text-alarm`}>{body}</span>
  ) : (
    <Link to={`/larder/${line.lotId}`} className={`${look} hover:bg-sheet-soft`}>
      {body}
    </Link>
  );
}

function Came({ delivery, money }: { readonly delivery: Delivery; readonly money: (minor: number) => string }) {
  return (
    <li className="py-2.5">
      <Link to={`/receive/${delivery.id}`} className="flex justify-between gap-3 text-[14px] hover:underline">
        <span className="min-w-0 truncate font-semibold">{delivery.supplierName}</span>
        <span className="whitespace-nowrap text-ink-soft">
          {dayName(delivery.at)} {clockTime(delivery.at)}
          {delivery.closedAt === null && ' · open'}
        </span>
      </Link>
      {delivery.lines.map((line) => (
        <LineRow key={line.id} line={line} money={money} />
      ))}
      {delivery.claim.claimMinor > 0 && (
        <Link
          to={`/receive/${delivery.id}`}
          className="block px-1 text-[14px] font-semibold text-alarm hover:underline"
        >
          claim {money(delivery.claim.claimMinor)}
        </Link>
      )}
    </li>
  );
}

function Expected({
  onTake,
  taken,
}: {
  readonly onTake: (order: Order | undefined) => void;
  readonly taken: Order | undefined;
}) {
  const mayOrder = useMay('receive.order');
  const { data: me } = useMe();
  const [adding, setAdding] = useState(() => hasDraft(me?.person.id, NEW_ORDER));
  const orders = useQuery(ordersQuery);
  const callOff = useCommand(api.receive.callOff);
  return (
    <section aria-label="Expected">
      <h2 className="mb-1 flex items-baseline justify-between text-lg font-bold">
        Expected
        {mayOrder && (
          <button
            type="button"
            className="min-h-9 text-[14px] font-normal underline"
            onClick={() => setAdding(!adding)}
          >
            {adding ? 'not now' : 'write an order down'}
          </button>
        )}
      </h2>
      {adding && <NewOrder done={() => setAdding(false)} />}
      {orders.isSuccess && orders.data.orders.length === 0 && !adding && (
        <p className="text-[15px] text-ink-soft">Nothing is expected.</p>
      )}
      <ul className="grid gap-2">
        {orders.data?.orders.map((o) => (
          <li
            key={o.id}
            className={`rounded-md border-[1.5px] bg-white px-3 py-2 ${taken?.id === o.id ? 'border-ink' : 'border-line'}`}
          >
            <span className="flex justify-between gap-3">
              <span className="truncate font-semibold">{o.supplierName}</span>
              <span className="whitespace-nowrap text-ink-soft">{dayName(o.dueOn)}</span>
            </span>
            <span className="block text-[14px] text-ink-soft">
              {o.lines
                .map((l) => `${l.name} ${formatMass(l.massMg)}${l.cameMg > 0 ? ` (${formatMass(l.cameMg)} came)` : ''}`)
                .join('; ')}
            </span>
            <span className="mt-1 flex gap-2">
              <Button onClick={() => onTake(taken?.id === o.id ? undefined : o)}>
                {taken?.id === o.id ? 'Not this one' : 'It is here'}
              </Button>
              {mayOrder && (
                <Button disabled={callOff.pending} onClick={() => callOff.send({ params: { orderId: o.id } })}>
                  Will not come
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Latest() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const deliveries = useQuery(deliveriesQuery);
  if (deliveries.isPending) return <Loading />;
  if (deliveries.isLoadingError) return <Failed error={deliveries.error} again={() => void deliveries.refetch()} />;
  if (deliveries.data.deliveries.length === 0)
    return <Empty title="Nothing has come in yet">The first delivery you accept stands here with its code.</Empty>;
  return (
    <ol className="divide-y divide-line" aria-label="Latest deliveries">
      {deliveries.data.deliveries.map((d) => (
        <Came key={d.id} delivery={d} money={money} />
      ))}
    </ol>
  );
}

interface Taking {
  readonly deliveryId: string;
  readonly lines: readonly DeliveryLine[];
  readonly order: Order | null;
  /** The supplier of the delivery, once it has a line. */
  readonly supplierId: string | null;
}
const nothingYet = (): Taking => ({ deliveryId: uuidv7(), lines: [], order: null, supplierId: null });

export default function Receive() {
  const may = useMay('receive.accept');
  const navigate = useNavigate();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  // the delivery that is being taken in, with the lines written so far: it is the same one after a reload
  const [fresh] = useState(nothingYet);
  const taking = useDraft<Taking>('delivery', fresh);
  const { deliveryId, lines } = taking.value;
  const order = taking.value.order ?? undefined;
  const supplierId = taking.value.supplierId ?? undefined;
  const [written, setWritten] = useState<DeliveryLine | undefined>(undefined);
  const setOrder = (next: Order | undefined): void => taking.put({ order: next ?? null });
  const anew = (next: Order | undefined): void => {
    taking.set({ ...nothingYet(), order: next ?? null });
    setWritten(undefined);
  };
  /** Before a line is written an order only says what is expected; a delivery of another supplier is another delivery. */
  const take = (next: Order | undefined): void => {
    if (lines.length === 0 || next === undefined || next.supplierId === lines[0]?.supplierId) setOrder(next);
    else anew(next);
  };
  return (
    <div className="flex flex-1 flex-col">
      <ReceiveHead />
      <div className="grid flex-1 content-start lg:grid-cols-[minmax(0,1fr)_320px] lg:content-stretch">
        <section className="bg-ground px-5 pt-4" aria-label="Receive a delivery">
          {!may ? (
            <Empty title="Receiving is for the kitchen">You can read what came in beside this.</Empty>
          ) : (
            <>
              <WaitsHereOf ids={[api.receive.accept.id]} className="mb-3" />
              {lines.length > 0 && (
                <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 rounded-md border border-line bg-sheet px-3 py-2 text-[15px]">
                  <strong>
                    {lines.length} {lines.length === 1 ? 'line' : 'lines'} of {lines[0]?.supplierName}
                  </strong>
                  <span className="text-ink-soft">
                    {lines.map((l) => l.code ?? `${l.speciesName}: refused`).join(', ')}
                  </span>
                  <span className="ml-auto flex gap-2">
                    <Button onClick={() => void navigate(`/receive/${deliveryId}`)}>Look at it</Button>
                    <Button onClick={() => anew(undefined)}>Another delivery</Button>
                  </span>
                </div>
              )}
              {written === undefined ? (
                <LineForm
                  key={`${deliveryId} ${lines.length}`}
                  deliveryId={deliveryId}
                  order={order}
                  supplierId={supplierId}
                  onLine={(line) => {
                    taking.set((before) => ({ ...before, lines: [...before.lines, line] }));
                    setWritten(line);
                  }}
                />
              ) : (
                <Written
                  line={written}
                  money={money}
                  again={() => {
                    taking.put({ supplierId: written.supplierId });
                    setWritten(undefined);
                  }}
                />
              )}
            </>
          )}
        </section>
        <aside
          className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-5 border-l border-line bg-sheet p-4"
          aria-label="What came and what is expected"
        >
          <Expected taken={order} onTake={take} />
          <section>
            <h2 className="mb-1 text-lg font-bold">Came in</h2>
            <Latest />
          </section>
        </aside>
      </div>
    </div>
  );
}
