import { useMutation } from '@tanstack/react-query';
import { type Destination, formatMass, parseMass } from '@zabrik/core';
import { Tabs } from 'radix-ui';
import { type ComponentProps, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useScale, useScaleAtRest } from '../../app/live.ts';
import { dismiss } from '../../app/outbox.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { BodyMap } from '../../parts/BodyMap.tsx';
import { Button } from '../../parts/Button.tsx';
import { trayName, trays } from '../../parts/destinations.ts';
import { inputLook } from '../../parts/Field.tsx';
import { Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { Pan } from '../../parts/Pan.tsx';
import { Ribbon, type RibbonPart } from '../../parts/Ribbon.tsx';
import { Tray } from '../../parts/Tray.tsx';
import { nextOpen, piecesInOrder, stepAt } from './benchOrder.ts';
import { adviceWords, bracketOf, unitName } from './benchWords.ts';
import { CloseBar } from './CloseBar.tsx';
import { Pieces } from './Pieces.tsx';
import { SimulatedPan } from './SimulatedPan.tsx';
import { Steps } from './Steps.tsx';
import { type BenchState, type Counted, useBreakdown } from './useBreakdown.ts';
import { useKeys } from './useKeys.ts';
import { Weights } from './Weights.tsx';

const tabLook =
  'min-h-11 flex-1 font-head text-[15px] font-semibold text-ink-soft data-[state=active]:bg-sheet data-[state=active]:text-ink data-[state=active]:shadow-[inset_0_-3px_0] data-[state=active]:shadow-ink';

/** The only part of the bench that is drawn at every tremble of the pan. */
const LivePan = (props: Omit<ComponentProps<typeof Pan>, 'reading'>) => <Pan reading={useScale()} {...props} />;

/** False for the first drawing: what nobody touches in the first tenth of a second comes right after it. */
function useStanding(): boolean {
  const [standing, setStanding] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() => setTimeout(() => setStanding(true), 0));
    return () => cancelAnimationFrame(frame);
  }, []);
  return standing;
}

function AtBench({ state }: { readonly state: BenchState }) {
  const { breakdown, stage, counted, expected, balance } = state;
  const { data: house } = useHouse();
  const may = useMay('bench.weigh');
  const money = moneyOf(house);
  const reading = useScaleAtRest();
  const standing = useStanding();
  const navigate = useNavigate();
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const [tray, setTray] = useState<Destination | undefined>(undefined);
  const [correcting, setCorrecting] = useState<string | undefined>(undefined);
  const [typing, setTyping] = useState<string | undefined>(undefined);
  const [goneTo, setGoneTo] = useState(0);
  const [list, setList] = useState(false);
  const [closing, setClosing] = useState(false);
  const [takenAt, setTakenAt] = useState<number | undefined>(undefined);
  const [says, setSays] = useState('');
  const closeKey = useRef(uuidv7());
  /** Asked to close; sent as soon as no weight waits on this device. */
  const [closeWith, setCloseWith] = useState<{ readonly unbalancedReason: string | null } | undefined>(undefined);

  const taken = useMemo(() => {
    const counts = new Map<string, number>();
    for (const w of counted) counts.set(w.piece.id, (counts.get(w.piece.id) ?? 0) + 1);
    return counts;
  }, [counted]);
  const order = useMemo(() => piecesInOrder(stage), [stage]);
  const lit = useMemo(() => new Set(counted.map((w) => w.piece.id)), [counted]);
  const right: Counted | undefined = counted.find((w) => w.id === correcting);
  const piece = right?.piece ?? order.find((p) => p.id === picked) ?? nextOpen(order, taken, undefined) ?? order.at(-1);
  const at = Math.max(stepAt(stage, taken), goneTo);
  const weighed = balance.weighedMg;
  const waiting = state.all.filter((w) => w.waiting).length;

  const close = useMutation({
    mutationFn: (unbalancedReason: string | null) =>
      call(api.bench.close, { params: { breakdownId: breakdown.id }, body: { unbalancedReason } }, closeKey.current),
    onSuccess: () => void navigate(`/ledger/${breakdown.id}`),
    onError: () => {
      closeKey.current = uuidv7();
    },
  });
  const { mutate: sendClose, isPending: isClosing } = close;
  useEffect(() => {
    if (closeWith === undefined || waiting > 0 || isClosing) return;
    setCloseWith(undefined);
    sendClose(closeWith.unbalancedReason);
  }, [closeWith, waiting, isClosing, sendClose]);
  const putBack = useMutation({
    mutationFn: () => call(api.bench.cancel, { params: { breakdownId: breakdown.id }, body: {} }),
    onSuccess: () => void navigate('/bench'),
  });
  const scaleCommand = useMutation({
    mutationFn: (command: 'tare' | 'untare' | 'zero') => call(api.bench.scaleCommand, { body: { command } }),
    onError: (error) => setSays(error.message),
  });

  if (piece === undefined) throw new Error(`plan ${breakdown.planId} has no pieces`);
  const unit = right?.unit ?? taken.get(piece.id) ?? 0;
  const complete = right === undefined && nextOpen(order, taken, undefined) === undefined;
  const suggested = right?.destination ?? tray ?? piece.destination;
  const refusalOf = (id: Destination): string | undefined => piece.refused.find((r) => r.destination === id)?.reason;
  const wasTaken = takenAt === reading.settled && reading.state === 'steady';
  const expectedNow = right === undefined ? expected.get(piece.id) : undefined;

  const record = async (
    massMg: number,
    source: 'scale' | 'typed',
    destination: Destination = suggested,
  ): Promise<void> => {
    const name = unitName(piece, unit);
    const saidMass = formatMass(massMg);
    const advice = right === undefined ? adviceWords(massMg, state, piece) : undefined;
    await state.takeNew(
      { pieceId: piece.id, destination, massMg, source, replaces: right?.id ?? null },
      `${name}, ${saidMass}`,
    );
    setSays(
      `${name}: ${saidMass} to ${trayName(destination).toLowerCase()}.${advice === undefined ? '' : ` ${advice}`}`,
    );
    setTyping(undefined);
    setTray(undefined);
    setCorrecting(undefined);
    if (right === undefined) {
      const after = new Map(taken).set(piece.id, (taken.get(piece.id) ?? 0) + 1);
      setPicked(nextOpen(order, after, piece.id)?.id);
    }
  };

  const take = (): void => {
    if (typing !== undefined) return;
    switch (reading.state) {
      case 'away':
        setTyping('');
        setSays('The scale does not answer. Type the weight.');
        return;
      case 'moving':
        setSays('Still moving. Let the pan rest.');
        return;
      case 'over':
      case 'under':
        setSays('The scale cannot read this. Clear the pan and set zero.');
        return;
      case 'steady':
        if (reading.netMg <= 0) setSays('Nothing on the pan.');
        else if (wasTaken) setSays('This weight is already taken. Put the next piece on.');
        else if (complete)
          setSays('Every piece of this plan is weighed. Pick the piece this belongs to, or close the stage.');
        else {
          setTakenAt(reading.settled);
          void record(reading.netMg, 'scale');
        }
    }
  };
  const typed = ((): number | undefined => {
    try {
      return typing === undefined ? undefined : parseMass(typing);
    } catch {
      return undefined;
    }
  })();
  const takeTyped = (): void => {
    if (typed !== undefined && typed > 0) void record(typed, 'typed');
  };
  const toTray = (id: Destination): void => {
    const refusal = refusalOf(id);
    if (refusal !== undefined) setSays(`Not to ${trayName(id).toLowerCase()}: ${refusal}.`);
    else if (right !== undefined) {
      if (id !== right.destination) void record(right.massMg, right.source ?? 'typed', id);
    } else {
      setTray(id);
      setSays(`${unitName(piece, unit)} goes to ${trayName(id).toLowerCase()}.`);
    }
  };
  const takeBack = (w: Counted | undefined): void => {
    if (w === undefined) {
      setSays('There is nothing to undo.');
      return;
    }
    void state.takeBack(w.id, `${w.piece.name}, ${formatMass(w.massMg)}, taken back`);
    setSays(`${w.piece.name}, ${formatMass(w.massMg)}: taken back.`);
    setCorrecting(undefined);
    setPicked(w.piece.id);
    setTakenAt(undefined);
  };
  const step = (by: number): void => {
    const i = order.findIndex((p) => p.id === piece.id);
    const next = order[(i + by + order.length) % order.length];
    setCorrecting(undefined);
    setTray(undefined);
    setPicked(next?.id);
  };
  const closeFor = (unbalancedReason: string | null): void => {
    setCloseWith({ unbalancedReason });
    if (waiting > 0)
      setSays(
        `${waiting} ${waiting === 1 ? 'weight is' : 'weights are'} still on this device. The stage closes once the server has them.`,
      );
  };
  const tryClose = (): void => {
    if (counted.length === 0) setSays('Nothing is weighed yet.');
    else if (balance.verdict === 'balanced') closeFor(null);
    else setClosing(true);
  };

  useKeys(
    may
      ? {
          ' ': take,
          Enter: take,
          ArrowRight: () => step(1),
          ArrowLeft: () => step(-1),
          ArrowDown: () => setGoneTo(Math.min(stage.steps.length - 1, at + 1)),
          u: () => takeBack(right ?? counted.at(-1)),
          t: () => scaleCommand.mutate(reading.tareMg > 0 && reading.netMg <= 0 ? 'untare' : 'tare'),
          z: () => scaleCommand.mutate('zero'),
          m: () => setTyping(''),
          w: () => setList((before) => !before),
          c: tryClose,
          Escape: () => {
            setCorrecting(undefined);
            setTyping(undefined);
            setClosing(false);
          },
          ...Object.fromEntries(trays.map(({ id, key }) => [key, () => toTray(id)])),
        }
      : {},
  );

  const parts: RibbonPart[] = counted.flatMap((w) =>
    w.destination === null
      ? []
      : [
          {
            id: w.id,
            name: unitName(w.piece, w.unit),
            destination: w.destination,
            massMg: w.massMg,
            selected: w.id === correcting,
          },
        ],
  );
  if (right === undefined && reading.netMg > 0 && !wasTaken && reading.state === 'steady' && !complete)
    parts.push({ id: 'pan', name: 'on the pan', destination: suggested, massMg: reading.netMg, onPan: true });
  const openNames = order.filter((p) => (taken.get(p.id) ?? 0) < p.units.length).map((p) => p.name.split(',')[0]);
  const advice =
    reading.state === 'steady' && !wasTaken && reading.netMg > 0 && right === undefined
      ? adviceWords(reading.netMg, state, piece)
      : undefined;

  return (
    <div className="flex h-[calc(100dvh-52px)] min-h-[700px] flex-col">
      <div className="border-b border-line bg-sheet px-4 pt-2.5 pb-1">
        <div className="mb-1.5 flex items-baseline gap-4">
          <h1 className="truncate text-[24px] leading-8 font-bold">
            {breakdown.speciesName}, {breakdown.formName}
          </h1>
          <p className="min-w-0 flex-1 truncate text-ink-soft">
            lot {breakdown.lotCode} · {breakdown.supplierName} · {breakdown.planTitle.toLowerCase()}
            {breakdown.animals > 1 && ` · ${breakdown.animals} animals`}
          </p>
          <p className="whitespace-nowrap">
            <span className="figure text-lg">{formatMass(breakdown.startMg)}</span> at start ·{' '}
            <span className="figure text-lg">{money(breakdown.startMinor)}</span>
          </p>
        </div>
        <Ribbon
          totalMg={breakdown.startMg}
          parts={parts}
          openName={openNames.join(', ')}
          bracket={bracketOf(state)}
          onPick={(id) => {
            if (may && id !== 'pan') setCorrecting(id === correcting ? undefined : id);
          }}
        />
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[318px_1fr_380px]">
        {!standing && <div className="border-r border-line bg-sheet-soft" />}
        {standing && (
          <Tabs.Root
            value={list ? 'weights' : 'steps'}
            onValueChange={(value) => setList(value === 'weights')}
            className="flex min-h-0 flex-col border-r border-line bg-sheet-soft"
          >
            <Tabs.List className="flex border-b border-line" aria-label="Steps or weights">
              <Tabs.Trigger value="steps" className={tabLook}>
                Steps, {Math.min(at + 1, stage.steps.length)} of {stage.steps.length}
              </Tabs.Trigger>
              <Tabs.Trigger value="weights" aria-keyshortcuts="w" className={tabLook}>
                Weights, {counted.length}
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="steps" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
              <Steps stage={stage} at={at} onGo={setGoneTo} />
              <BodyMap body={breakdown.plan.body} lit={lit} className="mx-auto mt-2 mb-2 block h-20" />
            </Tabs.Content>
            <Tabs.Content value="weights" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
              <Weights state={state} selected={correcting} onSelect={may ? setCorrecting : () => undefined} />
            </Tabs.Content>
          </Tabs.Root>
        )}
        <section
          className="flex min-h-0 min-w-0 flex-col items-center gap-2 overflow-y-auto px-3 py-2.5"
          aria-label="Scale"
        >
          <Pieces
            order={order}
            state={state}
            taken={taken}
            current={piece.id}
            onPick={(id) => {
              setCorrecting(undefined);
              setTray(undefined);
              setPicked(id);
            }}
          />
          <LivePan expected={expectedNow} takenAt={takenAt} />
          <div
            className="-mt-1 min-h-11 w-full max-w-[540px] shrink-0 text-center leading-snug"
            role="status"
            aria-live="polite"
            data-testid="says"
          >
            {right !== undefined ? (
              <span>
                Putting right: <strong>{unitName(right.piece, right.unit)}</strong>, {formatMass(right.massMg)}. Weigh
                it again, pick its tray, or take it back.
              </span>
            ) : (
              <>
                <span className="block">{says}</span>
                {advice !== undefined && <strong className="block text-alarm">{advice}</strong>}
              </>
            )}
          </div>
          {typing !== undefined ? (
            <form
              className="flex w-full max-w-[540px] gap-3"
              onSubmit={(event) => {
                event.preventDefault();
                takeTyped();
              }}
            >
              <input
                aria-label="Weight, typed"
                autoFocus
                inputMode="decimal"
                placeholder="grams"
                className={`${inputLook} figure h-16 flex-1 text-2xl`}
                value={typing}
                onChange={(event) => setTyping(event.target.value)}
                onKeyDown={(event) => {
                  if (event.key === 'Escape') setTyping(undefined);
                }}
              />
              <Button size="bench" className="h-16" onClick={() => setTyping(undefined)}>
                Back
              </Button>
              <Button
                size="bench"
                look="strong"
                type="submit"
                className="h-16 px-8"
                disabled={typed === undefined || typed <= 0}
              >
                Take {typed === undefined ? '' : formatMass(typed)}
              </Button>
            </form>
          ) : (
            <div className="flex w-full max-w-[540px] gap-3">
              <Button
                size="bench"
                look="plain"
                className="h-16"
                hotkey="t"
                disabled={!may || reading.state === 'away'}
                onClick={() => scaleCommand.mutate(reading.tareMg > 0 && reading.netMg <= 0 ? 'untare' : 'tare')}
              >
                {reading.tareMg > 0 && reading.netMg <= 0 ? 'Tare off' : 'Tare'}
              </Button>
              <Button
                size="bench"
                look="strong"
                className="h-16 flex-1 text-[20px]"
                hotkey="Space"
                disabled={!may}
                onClick={take}
              >
                {right === undefined ? 'Take weight' : 'Weigh again'}
              </Button>
              {right === undefined ? (
                <Button
                  size="bench"
                  look="plain"
                  className="h-16"
                  hotkey="m"
                  disabled={!may}
                  onClick={() => setTyping('')}
                >
                  Type
                </Button>
              ) : (
                <>
                  <Button size="bench" look="alarm" className="h-16" onClick={() => takeBack(right)}>
                    Take back
                  </Button>
                  <Button size="bench" look="plain" className="h-16" onClick={() => setTyping('')}>
                    Type
                  </Button>
                </>
              )}
            </div>
          )}
          {may && standing && (
            <SimulatedPan next={complete ? undefined : { breakdownId: breakdown.id, pieceId: piece.id, unit }} />
          )}
        </section>
        <section
          className="grid grid-cols-2 grid-rows-4 gap-3 overflow-y-auto border-l border-line p-3"
          aria-label="Trays"
        >
          {trays.map(({ id, name, key }) => {
            const mass = counted.filter((w) => w.destination === id).reduce((sum, w) => sum + w.massMg, 0);
            const refusal = refusalOf(id);
            const here = suggested === id;
            const usual = piece.destination === id || piece.alternatives.includes(id);
            const n = counted.filter((w) => w.destination === id).length;
            return (
              <Tray
                key={id}
                id={id}
                name={name}
                hotkey={key}
                massMg={mass}
                fill={mass / (breakdown.startMg * 0.7)}
                state={
                  refusal !== undefined
                    ? 'refused'
                    : here
                      ? tray === undefined && right === undefined
                        ? 'suggested'
                        : 'chosen'
                      : 'possible'
                }
                note={
                  refusal ??
                  (here
                    ? 'this piece goes here'
                    : n > 0
                      ? `${n} ${n === 1 ? 'weight' : 'weights'}`
                      : usual
                        ? 'can go here'
                        : 'not usual')
                }
                disabled={!may}
                onChoose={() => toTray(id)}
              />
            );
          })}
        </section>
      </div>
      {state.refused.length > 0 && (
        <div className="grid gap-2 border-t border-line bg-sheet p-3">
          {state.refused.map((w) => (
            <Notice key={w.key} tone="alarm">
              <strong>{w.says}</strong> was refused by the server: {w.refused}{' '}
              <button type="button" className="font-semibold underline" onClick={() => void dismiss(w.key)}>
                I have read it
              </button>
            </Notice>
          ))}
        </div>
      )}
      {closing && balance.verdict !== 'balanced' && (
        <CloseBar
          balance={balance}
          stage={stage}
          pending={close.isPending}
          onBack={() => setClosing(false)}
          onClose={closeFor}
        />
      )}
      <footer className="flex items-center gap-3 border-t border-line bg-sheet px-4 py-2">
        <Button
          size="bench"
          hotkey="u"
          disabled={!may || counted.length === 0}
          onClick={() => takeBack(right ?? counted.at(-1))}
        >
          Undo last weight
        </Button>
        {counted.length === 0 && may && (
          <Button size="bench" disabled={putBack.isPending} onClick={() => putBack.mutate()}>
            Put it back
          </Button>
        )}
        <p className="ml-auto text-right leading-tight" data-testid="balance">
          Weighed <strong className="figure">{formatMass(weighed)}</strong> of {formatMass(breakdown.startMg)}
          <br />
          <span className={balance.verdict === 'gain' ? 'font-semibold text-alarm' : 'text-ink-soft'}>
            {balance.verdict === 'gain'
              ? `${formatMass(-balance.unaccountedMg)} too much`
              : `${formatMass(balance.unaccountedMg)} left, ${formatMass(balance.allowedMg)} may be drip and scale`}
          </span>
        </p>
        {(close.isError || putBack.isError) && (
          <span className="max-w-80 text-alarm">{(close.error ?? putBack.error)?.message}</span>
        )}
        <Button
          size="bench"
          look={balance.verdict === 'balanced' && counted.length > 0 ? 'strong' : 'plain'}
          hotkey="c"
          disabled={!may || close.isPending || counted.length === 0}
          onClick={tryClose}
        >
          Close stage
        </Button>
      </footer>
    </div>
  );
}

export default function Bench() {
  const { breakdownId = '' } = useParams();
  const { query, state } = useBreakdown(breakdownId);
  if (query.isPending) return <Loading />;
  if (state === undefined)
    return (
      <Failed error={query.error ?? new Error('This breakdown cannot be read.')} again={() => void query.refetch()} />
    );
  if (state.breakdown.state !== 'open')
    return (
      <div className="mx-auto max-w-xl p-8">
        <Notice tone="calm">
          {state.breakdown.state === 'closed' ? (
            <>
              This stage is closed.{' '}
              <Link className="font-semibold underline" to={`/ledger/${breakdownId}`}>
                See its yield sheet
              </Link>
              .
            </>
          ) : (
            <>
              It was put back uncut.{' '}
              <Link className="font-semibold underline" to="/bench">
                To the bench
              </Link>
              .
            </>
          )}
        </Notice>
      </div>
    );
  return <AtBench key={breakdownId} state={state} />;
}
