import { cutToWeight } from '@zabrik/catalogue/portioning';
import type { Answer } from '@zabrik/contract';
import { allergenWords, aMass, formatMass, formatTemperature, perHouseMass } from '@zabrik/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { dayAndTime, dayName, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useWaitingAbout } from '../../app/outbox.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Notice } from '../../kit/Notice.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import { BeforePan } from '../../parts/BeforePan.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { trayName } from '../../parts/destinations.ts';
import { HowLink } from '../../parts/HowLink.tsx';
import { WaitsHere } from '../../parts/WaitsHere.tsx';
import { LotActions } from './LotActions.tsx';
import { entryNames, keptWords } from './larderWords.ts';
import { TakeOut } from './TakeOut.tsx';

type LotRead = Answer<typeof api.larder.read>;

const logWords = {
  within: 'within the limit you selected',
  outside: 'outside the limit you selected',
  open: 'closed before the limit was reached',
  'not-shown': 'not shown to be within the limit you selected',
  'not-judged': 'logged, held against no limit',
} as const;

/** What the log of its cooling or freezing says of it. */
function LogTold({ log }: { readonly log: LotRead['logs'][number] }) {
  const tone = log.verdict === 'outside' ? 'alarm' : log.verdict === 'within' ? 'calm' : 'attention';
  const what = log.kind === 'cooling' ? 'Cooling' : 'Freezing';
  return (
    <Notice tone={tone}>
      <span data-testid="log-told">
        {log.open && `${what} now. `}
        {!log.open || log.verdict === 'outside' ? `${what}: ${logWords[log.verdict]}. ` : ''}
        {log.readings} {log.readings === 1 ? 'reading' : 'readings'}, {formatTemperature(log.lastCentiC)}{' '}
        {dayAndTime(log.lastAt)}.{log.outcome !== null && ` Done about it: ${log.outcome}.`}
      </span>{' '}
      <Link className="underline" to="/pots/cooling">
        The log
      </Link>
      {log.document !== null && <span className="text-[13px]"> {log.document}.</span>}
    </Notice>
  );
}

function Links({ title, links }: { readonly title: string; readonly links: LotRead['parents'] }) {
  if (links.length === 0) return null;
  return (
    <section>
      <h3 className="mb-1 text-[15px] font-bold text-ink-soft">{title}</h3>
      <ul className="grid gap-1">
        {links.map((l) => (
          <li key={l.id}>
            <Link
              to={`/larder/${l.id}`}
              className="flex min-h-9 items-center justify-between gap-3 rounded-md border border-line bg-white px-3 hover:border-ink"
            >
              <span className="truncate">
                <span className="figure text-[14px]">{l.code}</span> {l.name}
              </span>
              <span className="figure whitespace-nowrap">{formatMass(Math.abs(l.massMg))}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** One lot: what it is, where it came from, what it became, every entry on it, and the ways out. */
export function LotPanel({ lot, money }: { readonly lot: LotRead; readonly money: (minor: number) => string }) {
  const may = useMay('larder.takeOut');
  useOpen(`${lot.name} ${lot.code}`);
  const waitsHere = useWaitingAbout(lot.id);
  const mayKeep = useMay('larder.keep');
  const mayReverse = useMay('ledger.reverse');
  const { data: house } = useHouse();
  const [taking, setTaking] = useState<string | undefined>(undefined);
  const reverse = useCommand(api.ledger.reverse, { onDone: () => setTaking(undefined) });
  return (
    <div className="grid gap-4 p-4">
      <div className="flex items-start justify-between gap-3">
        <div className="min-w-0">
          <p className="figure text-[40px] leading-none">{lot.code}</p>
          <h2 className="mt-1 text-xl leading-tight font-bold break-words">{lot.name}</h2>
          <p className="text-ink-soft">
            {lot.kind === 'tub'
              ? 'collecting tub'
              : lot.destination === null
                ? 'to be cut'
                : trayName(lot.destination).toLowerCase()}{' '}
            · {house?.places.find((p) => p.id === lot.placeId)?.name ?? lot.placeId},{' '}
            {lot.ready ? 'ready to eat' : 'raw'} · made {dayAndTime(lot.madeAt)}
          </p>
          {keptWords(lot).map((text) => (
            <p key={text} className={`text-[15px] font-semibold ${lot.held !== null ? 'text-alarm' : ''}`}>
              {text}
            </p>
          ))}
        </div>
        <Link
          to="/larder"
          aria-label="Close"
          className="grid size-11 shrink-0 place-items-center rounded-md border border-line-strong bg-white"
        >
          <X size={20} aria-hidden="true" />
        </Link>
      </div>
      <WaitsHere of={waitsHere} />
      <dl className="grid grid-cols-2 gap-x-4 gap-y-2">
        <div>
          <dt className="text-[14px] text-ink-soft">On hand</dt>
          <dd className="figure text-lg">
            {formatMass(lot.massMg)}{' '}
            <span className="text-[14px] font-normal text-ink-soft">of {formatMass(lot.madeMg)}</span>
            {lot.freeMg < lot.massMg && (
              <span className="block text-[14px] font-normal text-ink-soft">
                {formatMass(lot.massMg - lot.freeMg)} of it on a bench or promised to a pot
              </span>
            )}
          </dd>
        </div>
        <div>
          <dt className="text-[14px] text-ink-soft">
            Cost · <HowLink to="cost" of="the cost of a piece" />
          </dt>
          <dd className="figure text-lg">
            {money(lot.costMinor)}{' '}
            <span className="text-[14px] font-normal text-ink-soft">
              {lot.massMg > 0 && `${money(perHouseMass((lot.costMinor * 1_000_000) / lot.massMg))} ${aMass()}`}
            </span>
          </dd>
        </div>
        <div>
          <dt className="text-[14px] text-ink-soft">
            Use by · <HowLink to="use-by" of="the last day" />
          </dt>
          <dd>
            {lot.useBy === null ? 'no date' : dayName(lot.useBy)}, {dueWords(lot.useBy).text}
            {lot.dateBasis !== null && <span className="block text-[13px] text-ink-soft">{lot.dateBasis}</span>}
          </dd>
        </div>
        <div>
          <dt className="text-[14px] text-ink-soft">Allergens</dt>
          <dd className={lot.allergens.length > 0 ? 'font-semibold' : ''}>
            {lot.allergens.length > 0 ? allergenWords(lot.allergens).join(', ') : 'none listed'}
          </dd>
        </div>
      </dl>
      {lot.massMg > 0 && dueWords(lot.useBy).tone === 'late' && (
        <Notice tone="alarm">
          Past its use-by date: no pot takes it. Throw it away with the reason, unless your own plan says otherwise.
        </Notice>
      )}
      {lot.cautions.map((id) => (
        <Caution key={id} id={id} about={`${lot.code} ${lot.name}`.slice(0, 120)} />
      ))}
      {lot.judged.map((j) => (
        <Notice key={j.about} tone={j.verdict === 'outside' ? 'alarm' : j.verdict === 'within' ? 'calm' : 'attention'}>
          {j.says}.{' '}
          <span className="text-[13px]">
            {j.document}; as recalled, {j.certainty} certainty.
          </span>
        </Notice>
      ))}
      {lot.logs.map((log) => (
        <LogTold key={log.id} log={log} />
      ))}
      {lot.massMg > 0 && !lot.ready && lot.state !== 'frozen' && <BeforePan of={[{ category: lot.category }]} />}
      <p className="text-[13px] text-ink-soft">
        Dates are the house’s usual ones, limits those you selected. Your own plan and local code decide.
      </p>
      {lot.freeMg > 0 && lot.destination === null && lot.state !== 'frozen' && (
        <Link
          to={`/bench?lot=${lot.id}`}
          className="flex min-h-12 items-center justify-center rounded-plate bg-ink font-head font-semibold text-white"
        >
          Put it on the bench
        </Link>
      )}
      {lot.freeMg > 0 && cutToWeight(lot.category) && lot.state !== 'frozen' && (
        <Link
          to={`/bench/cut?lot=${lot.id}`}
          className="flex min-h-12 items-center justify-center rounded-plate border-[1.5px] border-ink bg-white font-head font-semibold"
        >
          Cut to weight
        </Link>
      )}
      {mayKeep && <LotActions lot={lot} />}
      {lot.freeMg > 0 && may && <TakeOut lot={lot} money={money} />}
      <Link
        to={`/larder/${lot.id}/trace`}
        className="flex min-h-11 items-center justify-center rounded-plate border-[1.5px] border-ink bg-white font-head font-semibold"
      >
        Trace it, from the boat or farm to the plate
      </Link>
      <Links title="Made from" links={lot.parents} />
      <Links title="Went into" links={lot.children} />
      {lot.breakdownId !== null && (
        <Link to={`/ledger/${lot.breakdownId}`} className="underline">
          Yield sheet of the breakdown it came from
        </Link>
      )}
      {lot.events.length > 0 && (
        <section>
          <h3 className="mb-1 text-[15px] font-bold text-ink-soft">How it was kept</h3>
          <ol className="grid gap-1">
            {lot.events.map((e) => (
              <li key={e.id} className="flex justify-between gap-3 text-[14px]">
                <span className={`min-w-0 ${e.undone ? 'line-through opacity-60' : ''}`}>
                  {e.says}
                  {e.note !== null && `: ${e.note}`}
                </span>
                <span className="shrink-0 text-ink-soft">
                  {dayAndTime(e.at)}, {e.by}
                </span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <section>
        <h3 className="mb-1 text-[15px] font-bold text-ink-soft">Entries</h3>
        <ol className="grid gap-1.5">
          {lot.entries.map((e) => (
            <li key={e.movementId} className="rounded-md border border-line bg-white px-3 py-1.5 text-[14px]">
              <span className="flex justify-between gap-3">
                <span className={e.reversed ? 'line-through' : 'font-semibold'}>{entryNames[e.kind] ?? e.kind}</span>
                <span className="figure">
                  {e.massMg > 0 ? '+' : ''}
                  {formatMass(e.massMg)}
                </span>
              </span>
              <span className="flex justify-between gap-3 text-ink-soft">
                <span className="min-w-0 truncate">
                  {dayAndTime(e.at)}, {e.by}
                  {e.note !== null && `: ${e.note}`}
                </span>
                <span>{money(e.costMinor)}</span>
              </span>
              {mayReverse && !e.reversed && e.kind !== 'reverse' && taking !== e.movementId && (
                <button
                  type="button"
                  className="min-h-8 underline"
                  onClick={() => {
                    setTaking(e.movementId);
                    reverse.reset();
                  }}
                >
                  Take this entry back
                </button>
              )}
              {taking === e.movementId && (
                <OneField
                  formClass="mt-1 flex gap-2"
                  aria-label="Why"
                  autoFocus
                  placeholder="why"
                  dense
                  read={someWords}
                  onSend={(reason) => reverse.send({ params: { movementId: e.movementId }, body: { reason } })}
                  pending={reverse.pending}
                  send="Take back"
                  sending={{ variant: 'alarm' }}
                />
              )}
            </li>
          ))}
        </ol>
        {reverse.error !== null && (
          <div className="mt-2">
            <Notice tone="alarm">{reverse.error.message}</Notice>
          </div>
        )}
      </section>
    </div>
  );
}
