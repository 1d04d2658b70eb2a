import type { Answer, Ask } from '@zabrik/contract';
import { figureWords, formatMass, formatShare } from '@zabrik/core';
import { useRef, useState } from 'react';
import { useCommand } from '../../app/command.ts';
import { dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { ProbeReading } from '../../parts/ProbeReading.tsx';
import { PieceSteps } from './PieceSteps.tsx';
import { PrintLabels } from './PrintLabels.tsx';
import { partOf } from './partOf.ts';

type LotRead = Answer<typeof api.larder.read>;
type KeepBody = Ask<typeof api.larder.keep>['body'];
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
  const { data: house } = useHouse();
  const { data: catalogue } = useCatalogue();
  const trim = catalogue?.goods.find((g) => g.id === lot.goods && g.trim?.goesTo === 'tub')?.trim;
  const [doing, setDoing] = useState<Doing | undefined>(undefined);
  const doingNow = useRef(doing);
  doingNow.current = doing;
  const [part, setPart] = useState('');
  const [words, setWords] = useState('');
  const [day, setDay] = useState(lot.useBy ?? '');
  const [place, setPlace] = useState('');
  const shut = (): void => {
    setDoing(undefined);
    setPart('');
    setWords('');
  };
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
      says: `${lot.name} ${lot.code}, ${body.trim === true ? 'trimmed' : 'parted'}: ${formatMass(body.massMg)}`,
    }),
    onDone: shut,
    onKept: shut,
  });
  const undo = useCommand(api.larder.undoKeep, {
    spoken: () => ({ says: `${lot.name} ${lot.code}: undone`, about: lot.id }),
    onDone: () => keeping.reset(),
    onKept: () => keeping.reset(),
  });
  const keep = (body: KeepBody): void => keeping.send({ params: { lotId: lot.id }, body });
  const choose = (next: Doing): void => {
    setDoing(doing === next ? undefined : next);
    setPlace('');
    keeping.reset();
    split.reset();
    undo.reset();
  };
  let massMg: number | null | undefined;
  let pieces: number | null = null;
  let error: string | undefined;
  try {
    const typed = part.trim() === '' ? null : partOf(part, lot);
    massMg = typed?.massMg ?? null;
    pieces = typed?.pieces ?? null;
    if (pieces !== null && pieces > lot.pieces) error = `The lot is ${lot.pieces} pieces`;
    else if (massMg !== null && massMg > lot.massMg) error = `The lot has ${formatMass(lot.massMg)}`;
    if (massMg !== null && massMg <= 0) error = 'A weight, such as 160 or 1.2 kg';
  } catch (thrown) {
    error = figureWords(thrown, 'A weight, such as 160 or 1.2 kg');
  }
  const fits =
    house?.places.filter((p) =>
      doing === 'freeze'
        ? p.kind === 'freezer'
        : doing === 'thaw'
          ? p.kind === 'fridge' || p.kind === 'cold-room'
          : p.id !== lot.placeId && (p.kind === 'freezer') === (lot.state === 'frozen'),
    ) ?? [];
  // raw is not put beside what is ready to eat by itself: someone has to choose that
  const to =
    fits.find((p) => p.id === place) ??
    fits.find((p) => p.holds === (lot.ready ? 'ready' : 'raw')) ??
    fits.find((p) => p.holds === 'any');
  const confirmed = (): void => {
    const last = keeping.last?.body;
    if (last !== undefined && 'confirmed' in last) keep({ ...last, confirmed: true });
  };
  const partField = (label: string) => (
    <div>
      <Field
        label={label}
        unit={pieces === null ? 'g' : ''}
        inputMode="text"
        placeholder="all of it"
        value={part}
        error={part.trim() === '' ? undefined : error}
        onChange={(event) => setPart(event.target.value)}
      />
      {lot.pieces > 1 && (
        <div className="mt-1.5">
          <PieceSteps of={lot.pieces} pieces={pieces ?? undefined} onPieces={setPart} label={label} />
        </div>
      )}
    </div>
  );
  const eventId = keeping.answer?.eventId ?? '';
  return (
    <section aria-label="Keep" className="rounded-plate border border-line bg-white p-3">
      <div className="grid grid-cols-4 gap-1.5 sm:grid-cols-5">
        {doable(lot, trim !== undefined).map((d) => (
          <Toggle key={d} on={doing === d} className="min-h-12 px-1!" onPress={() => choose(d)}>
            {d === 'hold' && lot.held !== null ? 'Let go' : names[d]}
          </Toggle>
        ))}
      </div>
      {(doing === 'move' || doing === 'freeze' || doing === 'thaw') && (
        <form
          className="mt-3 grid grid-cols-[1.5fr_1fr] gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (to !== undefined && error === undefined)
              keep({ kind: doing, placeId: to.id, massMg: massMg === lot.massMg ? null : (massMg ?? null) });
          }}
        >
          <Select
            label={doing === 'move' ? 'To' : doing === 'freeze' ? 'Into' : 'Thaw in'}
            value={to?.id ?? ''}
            onValue={setPlace}
            {...(to === undefined ? { none: 'which place' } : {})}
            options={fits.map((p) => ({
              value: p.id,
              name: `${p.name}${p.holds === 'any' ? '' : p.holds === 'ready' ? ' (ready to eat)' : ' (raw)'}`,
            }))}
          />
          {partField('How much')}
          <p className="col-span-2 text-[14px] text-ink-soft">
            {doing === 'freeze' &&
              'Its days stop counting. The frozen date is one of quality; what it has left comes back when it is thawed.'}
            {doing === 'thaw' && 'In the cold, on a tray. It gets back no more days than it had, and two at most.'}
            {doing === 'move' &&
              fits.length === 0 &&
              'There is no other place for it. To freeze or thaw it is a step of its own.'}
          </p>
          <Button
            type="submit"
            look="strong"
            className="col-span-2"
            disabled={to === undefined || error !== undefined || keeping.pending}
          >
            {names[doing]} {massMg == null ? 'all of it' : formatMass(massMg)}
            {to !== undefined && `, ${to.name}`}
          </Button>
        </form>
      )}
      {(doing === 'split' || doing === 'trim') && (
        <form
          className="mt-3 grid grid-cols-2 items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (massMg != null && error === undefined)
              split.send({ params: { lotId: lot.id }, body: { massMg, pieces, trim: doing === 'trim' } });
          }}
        >
          {partField(doing === 'trim' ? 'Comes off as trim' : 'Take off')}
          <Button
            type="submit"
            look="strong"
            className="h-11"
            disabled={massMg == null || error !== undefined || split.pending}
          >
            {doing === 'trim' ? 'Trimmed' : 'Part it'}
          </Button>
        </form>
      )}
      {doing === 'open' && (
        <div className="mt-3 flex items-center justify-between gap-3">
          <p className="text-[14px] text-ink-soft">
            Opened today: the shorter of its date and your profile’s days from opening.
          </p>
          <Button look="strong" disabled={keeping.pending} onClick={() => keep({ kind: 'open' })}>
            Opened
          </Button>
        </div>
      )}
      {(doing === 'reserve' || (doing === 'hold' && lot.held === null)) && (
        <form
          className="mt-3 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            const text = words.trim();
            if (doing === 'reserve') {
              if (error === undefined)
                keep({
                  kind: 'reserve',
                  reservedFor: text === '' ? null : text,
                  massMg: massMg === lot.massMg ? null : (massMg ?? null),
                  pieces: massMg === lot.massMg ? null : pieces,
                });
            } else if (text !== '') keep({ kind: 'hold', reason: text });
          }}
        >
          {doing === 'reserve' && partField('How much')}
          <Field
            className="flex-1"
            label={doing === 'reserve' ? 'For which dish or pot' : 'Why nothing may leave it'}
            placeholder={doing === 'reserve' ? (lot.reservedFor ?? 'Friday’s pie') : 'recall, waiting for papers'}
            maxLength={doing === 'reserve' ? 120 : 300}
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <Button
            type="submit"
            look={doing === 'hold' ? 'alarm' : 'strong'}
            className="h-11"
            disabled={
              keeping.pending ||
              (words.trim() === '' && (doing === 'hold' || lot.reservedFor === null)) ||
              (doing === 'reserve' && error !== undefined)
            }
          >
            {doing === 'hold' ? 'Hold it' : words.trim() === '' ? 'No longer' : 'Reserve'}
          </Button>
          {doing === 'hold' && (
            <p className="w-full text-[14px] text-ink-soft">
              What was made of it, and what will be, is held back with it. What was served is in its trace.
            </p>
          )}
        </form>
      )}
      {doing === 'hold' && lot.held !== null && (
        <div className="mt-3 flex items-center justify-between gap-3">
          <p className="text-[14px]">Held: {lot.held}</p>
          <Button look="strong" disabled={keeping.pending} onClick={() => keep({ kind: 'hold', reason: null })}>
            Let it go
          </Button>
        </div>
      )}
      {doing === 'date' && (
        <form
          className="mt-3 grid grid-cols-[1fr_1.4fr_auto] items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (day !== '' && words.trim() !== '') keep({ kind: 'date', useBy: day, reason: words.trim() });
          }}
        >
          <Field label="Use by" type="date" value={day} onChange={(event) => setDay(event.target.value)} />
          <Field label="Why" value={words} maxLength={500} onChange={(event) => setWords(event.target.value)} />
          <Button
            type="submit"
            look="strong"
            className="h-11"
            disabled={day === '' || words.trim() === '' || keeping.pending}
          >
            Set
          </Button>
        </form>
      )}
      {doing === 'reading' && (
        <div className="mt-3">
          <ProbeReading onTake={(centiC) => keep({ kind: 'reading', centiC })} />
        </div>
      )}
      {doing === 'trim' && trim !== undefined && (
        <p className="mt-2 text-[14px] text-ink-soft">
          Usually {formatShare(trim.low, 0)} to {formatShare(trim.high, 0)},{' '}
          {formatMass(Math.round(lot.massMg * trim.mean))} of this ({trim.provenance.replaceAll('-', ' ')}).
        </p>
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
