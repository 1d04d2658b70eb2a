import { formatMass } from '@zabrik/core';
import { useRef, useState } from 'react';
import { useCommand } from '../../app/command.ts';
import { dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useCatalogue } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { ProbeReading } from '../../parts/ProbeReading.tsx';
import type { KeepBody, LotRead } from './actions/keeping.ts';
import { MoveLot } from './actions/MoveLot.tsx';
import { PartLot } from './actions/PartLot.tsx';
import { TrimGoods } from './actions/TrimGoods.tsx';
import { DateLot, HoldLot, ReserveLot } from './actions/WordsOnLot.tsx';
import { PrintLabels } from './PrintLabels.tsx';

type Doing = 'move' | 'freeze' | 'thaw' | 'open' | 'split' | 'trim' | 'reserve' | 'date' | 'hold' | 'reading' | 'label';

const names: Readonly<Record<Doing, string>> = {
  move: 'Move',
  freeze: 'Freeze',
  thaw: 'Thaw',
  open: 'Open',
  split: 'Part',
  trim: 'Trim',
  reserve: 'Reserve',
  date: 'Date',
  hold: 'Hold',
  reading: 'Probe',
  label: 'Label',
};

/** The usual caution at the moment it matters. */
const cautionOf: Readonly<Partial<Record<Doing, string>>> = {
  freeze: 'freeze.parasite',
  thaw: 'thaw',
  reading: 'probe',
  label: 'date.label',
  hold: 'recall',
  trim: 'allergens.bench',
};

/** What may be done to a lot that is kept so. */
const doable = (lot: LotRead, trims: boolean): Doing[] =>
  lot.massMg === 0
    ? ['hold']
    : [
        'move',
        ...(lot.state === 'frozen' ? (['thaw'] as const) : (['freeze'] as const)),
        ...(lot.openedOn === null ? (['open'] as const) : []),
        ...(lot.nextStage === null ? (['split'] as const) : []),
        ...(trims ? (['trim'] as const) : []),
        'reserve',
        'reading',
        'label',
        'date',
        'hold',
      ];

/** Everything that is done to a lot without taking anything out of it. */
export function LotActions({ lot }: { readonly lot: LotRead }) {
  const { data: catalogue } = useCatalogue();
  // what is trimmed already has a kind; what came has none yet
  const goods = catalogue?.goods.find((g) => g.id === lot.goods && g.trim !== undefined && lot.category === null);
  const [doing, setDoing] = useState<Doing | undefined>(undefined);
  const doingNow = useRef(doing);
  doingNow.current = doing;
  const shut = (): void => setDoing(undefined);
  // the lot is often here anew before the answer is: what was opened meanwhile stays open
  const shutIfStill = (kind: Doing): void => {
    if (doingNow.current === kind) shut();
  };
  const keeping = useCommand(api.larder.keep, {
    spoken: ({ body }) => ({ says: `${lot.name} ${lot.code}: ${names[body.kind].toLowerCase()}` }),
    onDone: (_answer, { body }) => shutIfStill(body.kind),
    onKept: ({ body }) => shutIfStill(body.kind),
  });
  const split = useCommand(api.larder.split, {
    spoken: ({ body }) => ({
      says: `${lot.name} ${lot.code}, parted: ${formatMass(body.massMg)}`,
    }),
    onDone: shut,
    onKept: shut,
  });
  const undo = useCommand(api.larder.undoKeep, {
    spoken: () => ({ says: `${lot.name} ${lot.code}: undone`, about: lot.id }),
    onDone: () => keeping.reset(),
    onKept: () => keeping.reset(),
  });
  const keep = (body: KeepBody, then?: () => void): void => keeping.send({ params: { lotId: lot.id }, body }, then);
  const onIt = { keep, pending: keeping.pending };
  const choose = (next: Doing): void => {
    setDoing(doing === next ? undefined : next);
    keeping.reset();
    split.reset();
    undo.reset();
  };
  const confirmed = (): void => {
    const last = keeping.last?.body;
    if (last !== undefined && 'confirmed' in last) keep({ ...last, confirmed: true }, keeping.lastSent);
  };
  const eventId = keeping.answer?.eventId ?? '';
  return (
    <section aria-label="Keep" className="rounded-plate border border-line bg-white p-3">
      <div className="grid grid-cols-4 gap-1.5">
        {doable(lot, goods !== undefined).map((d) => (
          <Toggle key={d} on={doing === d} className="min-h-12 px-1!" onPress={() => choose(d)}>
            {d === 'hold' && lot.held !== null ? 'Let go' : names[d]}
          </Toggle>
        ))}
      </div>
      {(doing === 'move' || doing === 'freeze' || doing === 'thaw') && (
        <MoveLot key={doing} lot={lot} kind={doing} name={names[doing]} keeping={onIt} />
      )}
      {doing === 'split' && (
        <PartLot
          lot={lot}
          pending={split.pending}
          onPart={(part, then) => split.send({ params: { lotId: lot.id }, body: part }, then)}
        />
      )}
      {doing === 'trim' && goods !== undefined && <TrimGoods lot={lot} goods={goods} />}
      {doing === 'open' && (
        <div className="mt-3 flex items-center justify-between gap-3">
          <p className="text-[14px] text-ink-soft">
            Opened today: the shorter of its date and your profile’s days from opening.
          </p>
          <Button variant="strong" disabled={keeping.pending} onClick={() => keep({ kind: 'open' })}>
            Opened
          </Button>
        </div>
      )}
      {doing === 'reserve' && <ReserveLot lot={lot} keeping={onIt} />}
      {doing === 'hold' && lot.held === null && <HoldLot lot={lot} keeping={onIt} />}
      {doing === 'hold' && lot.held !== null && (
        <div className="mt-3 flex items-center justify-between gap-3">
          <p className="text-[14px]">Held: {lot.held}</p>
          <Button variant="strong" disabled={keeping.pending} onClick={() => keep({ kind: 'hold', reason: null })}>
            Let it go
          </Button>
        </div>
      )}
      {doing === 'date' && <DateLot lot={lot} keeping={onIt} />}
      {doing === 'reading' && (
        <div className="mt-3">
          <ProbeReading onTake={(centiC) => keep({ kind: 'reading', centiC })} />
        </div>
      )}
      {doing === 'label' && <PrintLabels lots={[lot]} />}
      {doing !== undefined && cautionOf[doing] !== undefined && (
        <div className="mt-2">
          <Caution id={cautionOf[doing] ?? ''} about={`${lot.code} ${lot.name}`.slice(0, 120)} />
        </div>
      )}
      <Confirm error={keeping.error ?? split.error} onConfirm={confirmed} />
      {keeping.answer !== undefined && (
        <div className="mt-2">
          <Notice tone="calm">
            <span className="flex items-center justify-between gap-3">
              <span>
                {keeping.answer.code} {keeping.answer.says}
                {keeping.answer.useBy !== null && `. Use by ${dayName(keeping.answer.useBy)}`}.
              </span>
              <Button onClick={() => undo.send({ params: { eventId } })} disabled={undo.pending}>
                Undo
              </Button>
            </span>
          </Notice>
        </div>
      )}
      {split.answer !== undefined && (
        <div className="mt-2">
          <Notice tone="calm">The part is lot {split.answer.code}. Write it on the tub.</Notice>
        </div>
      )}
      {undo.error !== null && (
        <div className="mt-2">
          <Notice tone="alarm">{undo.error.message}</Notice>
        </div>
      )}
    </section>
  );
}
