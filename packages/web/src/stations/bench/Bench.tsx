import { formatMass, shortName } from '@zabrik/core';
import { Tabs } from 'radix-ui';
import { type ComponentProps, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useScale } from '../../app/live.ts';
import { dismiss } from '../../app/outbox.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { BodyMap } from '../../parts/BodyMap.tsx';
import { Button } from '../../parts/Button.tsx';
import { Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { Pan } from '../../parts/Pan.tsx';
import { Ribbon, type RibbonPart } from '../../parts/Ribbon.tsx';
import { Tray } from '../../parts/Tray.tsx';
import { setBenchDevice, useBenchDevice } from './benchDevice.ts';
import { bracketOf, minutesWords, unitName } from './benchWords.ts';
import { CloseBar } from './CloseBar.tsx';
import { GuardStrip } from './GuardStrip.tsx';
import { Picking, useNow } from './Picking.tsx';
import { Pieces } from './Pieces.tsx';
import { SimulatedPan } from './SimulatedPan.tsx';
import { Steps } from './Steps.tsx';
import { TakeBar } from './TakeBar.tsx';
import { Tools } from './Tools.tsx';
import { type BenchFlow, useBench } from './useBench.ts';
import { type BenchState, useBreakdown } from './useBreakdown.ts';
import { useKeys } from './useKeys.ts';
import { Weights } from './Weights.tsx';

const tabLook =
  'min-h-11 flex-1 px-1 font-head text-[15px] font-semibold whitespace-nowrap text-ink-soft data-[state=active]:bg-sheet data-[state=active]:text-ink data-[state=active]:shadow-[inset_0_-3px_0] data-[state=active]:shadow-ink';
const WIPE_MS = 3_000;

/** False for the first drawing: what nobody touches in the first tenth of a second comes right after it. */
function useStanding(): boolean {
  const [standing, setStanding] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() => setTimeout(() => setStanding(true), 0));
    return () => cancelAnimationFrame(frame);
  }, []);
  return standing;
}

/** The only part of the bench that is drawn at every tremble of the pan. */
const LivePan = (props: Omit<ComponentProps<typeof Pan>, 'reading'>) => <Pan reading={useScale()} {...props} />;

function Clock({ flow, animals }: { readonly flow: BenchFlow; readonly animals: number }) {
  const minutes = flow.minutes(useNow(20_000));
  return (
    <span data-testid="clock">
      {flow.paused ? 'paused at ' : ''}
      {minutesWords(minutes)}
      {animals > 1 && minutes >= 1 && `, ${(minutes / animals).toFixed(1)} an animal`}
    </span>
  );
}

/** How many units this weight stands for, when it may be more than one. */
function CountStep({ flow, state }: { readonly flow: BenchFlow; readonly state: BenchState }) {
  const { piece, count, right } = flow;
  const inAll = piece.count * state.breakdown.animals;
  if (right !== undefined || piece.accumulates === true || inAll < 2) return null;
  return (
    <fieldset className="flex items-center gap-2 border-0 p-0" aria-label="How many in this weight">
      <Button className="size-11 px-0 text-xl" aria-label="One fewer" onClick={() => flow.setCount(count - 1)}>
        −
      </Button>
      <span className="min-w-24 text-center leading-tight">
        <strong className="figure text-lg" data-testid="count">
          {count}
        </strong>{' '}
        in this weight
      </span>
      <Button className="size-11 px-0 text-xl" aria-label="One more" onClick={() => flow.setCount(count + 1)}>
        +
      </Button>
    </fieldset>
  );
}

/** What a boned-out piece can be filled with, from what it weighs now and what came out of it. */
function FillWords({ state }: { readonly state: BenchState }) {
  const { fill, pieces } = state.stage;
  if (fill === undefined) return null;
  const own = state.counted.filter((w) => w.piece.id === fill.piece).reduce((sum, w) => sum + w.massMg, 0);
  if (own === 0) return null;
  const out = state.counted.filter((w) => w.piece.id !== fill.piece).reduce((sum, w) => sum + w.massMg, 0);
  const name = shortName(pieces.find((p) => p.id === fill.piece)?.name ?? '');
  return (
    <p className="w-full border-y border-line bg-sheet px-3 py-1.5 text-center text-[15px]" data-testid="fill">
      {name} {formatMass(own)}; what came out {formatMass(out)}. Filling{' '}
      <strong>
        {formatMass(Math.round((own * fill.low) / 1_000) * 1_000)} to{' '}
        {formatMass(Math.round((own * fill.high) / 1_000) * 1_000)}
      </strong>
      .
    </p>
  );
}

function AtBench({ state }: { readonly state: BenchState }) {
  const { breakdown, stage, counted, balance } = state;
  const { data: house } = useHouse();
  const may = useMay('bench.weigh');
  const money = moneyOf(house);
  const device = useBenchDevice();
  const standing = useStanding();
  const flow = useBench(state, may);
  const [tab, setTab] = useState('steps');
  const [wiping, setWiping] = useState(false);
  const { piece, right, order, reading } = flow;
  const several = breakdown.animals > 1;

  useEffect(() => {
    if (!wiping) return undefined;
    const timer = setTimeout(() => setWiping(false), WIPE_MS);
    return () => clearTimeout(timer);
  }, [wiping]);

  useKeys(
    may && !wiping
      ? {
          ' ': flow.take,
          Enter: flow.take,
          ArrowRight: () => flow.step(1),
          ArrowLeft: () => flow.step(-1),
          ArrowDown: () => flow.goTo(flow.at + 1),
          u: () => flow.takeBack(right ?? counted.at(-1)),
          t: () => flow.scaleCommand.mutate(reading.tareMg > 0 && reading.netMg <= 0 ? 'untare' : 'tare'),
          z: () => flow.scaleCommand.mutate('zero'),
          m: () => flow.setTyping({ for: 'weight', text: '' }),
          w: () => setTab((before) => (before === 'weights' ? 'steps' : 'weights')),
          o: () => setTab((before) => (before === 'tools' ? 'steps' : 'tools')),
          a: () => setBenchDevice({ whenSteady: !device.whenSteady }),
          b: () => setBenchDevice({ large: !device.large }),
          l: () => setWiping(true),
          h: flow.pauseOrGoOn,
          n: flow.toNextAnimal,
          g: () => flow.answerGuard('done', null),
          k: () => flow.answerGuard('skipped', null),
          '+': () => flow.setCount(flow.count + 1),
          '-': () => flow.setCount(flow.count - 1),
          c: flow.tryClose,
          Escape: () => {
            flow.correct(undefined);
            flow.setTyping(undefined);
            flow.setClosing(false);
          },
          ...Object.fromEntries(flow.trays.map(({ id, key }) => [key, () => flow.toTray(id)])),
        }
      : {},
  );

  const parts: RibbonPart[] = counted.flatMap((w) =>
    w.destination === null
      ? []
      : [
          {
            id: w.id,
            name: unitName(w.piece, w.unit, w.count, breakdown.animals, w.animal),
            destination: w.destination,
            massMg: w.massMg,
            selected: w.id === right?.id,
          },
        ],
  );
  if (right === undefined && reading.netMg > 0 && !flow.wasTaken && reading.state === 'steady' && !flow.complete)
    parts.push({ id: 'pan', name: 'on the pan', destination: flow.suggested, massMg: reading.netMg, onPan: true });
  const lit = new Set(counted.map((w) => w.piece.id));
  const known = new Set(stage.pieces.map((p) => p.id));

  return (
    // a touched button must not keep the pedal: the next Space is for the weight (detail 0 is a key press, which keeps its focus)
    // biome-ignore lint/a11y/useKeyWithClickEvents lint/a11y/noStaticElementInteractions: moves the focus after a touch, offers nothing to press
    <div
      className="flex h-[calc(100dvh-52px)] min-h-[700px] flex-col"
      onClick={(event) => {
        if (event.detail > 0 && document.activeElement instanceof HTMLButtonElement) document.activeElement.blur();
      }}
    >
      <div className="border-b border-line bg-sheet px-4 pt-2.5 pb-1">
        <div className="mb-1.5 flex items-baseline gap-4">
          <h1 className="truncate text-[24px] leading-8 font-bold">
            {breakdown.speciesName}
            {breakdown.stageIndex === 0 ? `, ${breakdown.formName}` : `: ${breakdown.stageName.toLowerCase()}`}
          </h1>
          <p className="min-w-0 flex-1 truncate text-ink-soft">
            lot {breakdown.inputs.map((i) => i.code).join(', ')}
            {breakdown.supplierName !== null && ` · ${breakdown.supplierName}`} · {breakdown.planTitle.toLowerCase()}
            {breakdown.stageCount > 1 && ` · stage ${breakdown.stageIndex + 1} of ${breakdown.stageCount}`}
            {several && ` · ${breakdown.animals} animals`}
          </p>
          <p className="text-[15px] whitespace-nowrap text-ink-soft">
            <Clock flow={flow} animals={breakdown.animals} />
            {breakdown.holder !== breakdown.by && ` · ${breakdown.holder}`}
          </p>
          <p className="whitespace-nowrap">
            <span className="figure text-lg">{formatMass(breakdown.startMg)}</span> at start ·{' '}
            <span className="figure text-lg">{money(breakdown.startMinor)}</span>
          </p>
        </div>
        <Ribbon
          totalMg={breakdown.startMg}
          parts={parts}
          openName={flow.openNames.join(', ')}
          bracket={bracketOf(state)}
          onPick={(id) => {
            if (may && id !== 'pan') flow.correct(id === right?.id ? undefined : id);
          }}
        />
      </div>
      <div className={`grid min-h-0 flex-1 ${device.large ? 'grid-cols-[1fr_380px]' : 'grid-cols-[318px_1fr_380px]'}`}>
        {!standing && !device.large && <div className="border-r border-line bg-sheet-soft" />}
        {standing && !device.large && (
          <Tabs.Root
            value={tab}
            onValueChange={setTab}
            className="flex min-h-0 flex-col border-r border-line bg-sheet-soft"
          >
            <Tabs.List className="flex border-b border-line" aria-label="Steps, weights or tools">
              <Tabs.Trigger value="steps" className={tabLook}>
                Steps, {Math.min(flow.at + 1, stage.steps.length)} of {stage.steps.length}
              </Tabs.Trigger>
              <Tabs.Trigger value="weights" aria-keyshortcuts="w" className={tabLook}>
                Weights, {counted.length}
              </Tabs.Trigger>
              <Tabs.Trigger value="tools" aria-keyshortcuts="o" className={tabLook}>
                Tools
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="steps" tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
              <div className="min-h-0 flex-1 overflow-y-auto">
                <Steps
                  stage={stage}
                  at={flow.at}
                  onGo={flow.goTo}
                  passes={flow.passes}
                  onPass={may ? flow.countPass : undefined}
                />
              </div>
              <BodyMap
                body={stage.body ?? breakdown.plan.body}
                lit={lit}
                known={known}
                current={piece.id}
                onPick={flow.pick}
                className="mx-auto block h-[124px] shrink-0 border-t border-line py-1.5"
              />
            </Tabs.Content>
            <Tabs.Content value="weights" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
              <Weights state={state} selected={right?.id} onSelect={may ? flow.correct : () => undefined} />
            </Tabs.Content>
            <Tabs.Content value="tools" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
              <Tools flow={flow} state={state} onWipe={() => setWiping(true)} />
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
            taken={flow.taken}
            animals={breakdown.animals}
            current={piece.id}
            onPick={flow.pick}
          />
          {may && <GuardStrip flow={flow} />}
          {piece.accumulates === true && <Picking flow={flow} state={state} />}
          <FillWords state={state} />
          <LivePan expected={flow.expectedNow} takenAt={flow.takenAt} large={device.large} />
          {right === undefined && piece.accumulates !== true && (several || flow.usualCount > 1 || flow.count > 1) && (
            <div className="flex min-h-11 shrink-0 items-center gap-4">
              <span className="font-head font-semibold" data-testid="now">
                {flow.complete ? 'all weighed' : flow.name}
                {flow.animal !== null && ` of ${breakdown.animals}`}
              </span>
              <CountStep flow={flow} state={state} />
              {flow.animal !== null && flow.animal < breakdown.animals && (
                <Button hotkey="n" className="min-h-11" onClick={flow.toNextAnimal}>
                  Next animal
                </Button>
              )}
            </div>
          )}
          <div
            className="min-h-10 w-full max-w-[540px] shrink-0 text-center leading-snug"
            role="status"
            aria-live="polite"
            data-testid="says"
          >
            {right !== undefined && flow.typing === undefined ? (
              <span>
                Putting right: <strong>{unitName(right.piece, right.unit, right.count, breakdown.animals)}</strong>,{' '}
                {formatMass(right.massMg)}. Weigh it again, pick its tray or its piece, split it, or take it back.
              </span>
            ) : (
              <>
                <span className="block">{flow.says}</span>
                {flow.advice !== undefined && <strong className="block text-alarm">{flow.advice}</strong>}
              </>
            )}
          </div>
          <TakeBar flow={flow} may={may} />
          {may && standing && (
            <SimulatedPan
              next={
                flow.complete
                  ? undefined
                  : { breakdownId: breakdown.id, pieceId: piece.id, unit: flow.unit, count: flow.count }
              }
            />
          )}
        </section>
        <section
          className="grid grid-cols-2 grid-rows-4 gap-3 overflow-y-auto border-l border-line p-3"
          aria-label="Trays"
        >
          {flow.trays.map(({ id, name, key }) => {
            const inTray = counted.filter((w) => w.destination === id);
            const mass = inTray.reduce((sum, w) => sum + w.massMg, 0);
            const refusal = flow.refusalOf(id);
            const here = flow.suggested === id;
            const usual = piece.destination === id || piece.alternatives.includes(id);
            const note = flow.trayNotes.get(id);
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
                      ? !flow.trayChosen && right === undefined
                        ? 'suggested'
                        : 'chosen'
                      : 'possible'
                }
                note={
                  refusal ??
                  note ??
                  (here
                    ? 'this piece goes here'
                    : inTray.length > 0
                      ? `${inTray.length} ${inTray.length === 1 ? 'weight' : 'weights'}`
                      : usual
                        ? 'can go here'
                        : 'not usual')
                }
                disabled={!may}
                onChoose={() => flow.toTray(id)}
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
      {flow.closing && (balance.verdict !== 'balanced' || flow.missingPasses.length > 0) && (
        <CloseBar
          balance={balance}
          stage={stage}
          missingPasses={flow.missingPasses}
          pending={flow.close.isPending}
          onBack={() => flow.setClosing(false)}
          onClose={flow.closeFor}
        />
      )}
      <footer className="flex items-center gap-3 border-t border-line bg-sheet px-4 py-2">
        <Button
          size="bench"
          hotkey="u"
          disabled={!may || counted.length === 0}
          onClick={() => flow.takeBack(right ?? counted.at(-1))}
        >
          Undo last weight
        </Button>
        {counted.length === 0 && may && (
          <Button size="bench" disabled={flow.putBack.isPending} onClick={() => flow.putBack.mutate()}>
            Put it back
          </Button>
        )}
        {may && (
          <Button size="bench" hotkey="h" onClick={flow.pauseOrGoOn}>
            {flow.paused ? 'Go on' : 'Pause'}
          </Button>
        )}
        {device.whenSteady && (
          <span className="text-[15px] leading-tight text-ink-soft">takes by itself when steady</span>
        )}
        {device.large && (
          <Button size="bench" hotkey="b" onClick={() => setBenchDevice({ large: false })}>
            Steps back
          </Button>
        )}
        <p className="ml-auto text-right leading-tight" data-testid="balance">
          Weighed <strong className="figure">{formatMass(balance.weighedMg)}</strong> of {formatMass(breakdown.startMg)}
          <br />
          <span className={balance.verdict === 'gain' ? 'font-semibold text-alarm' : 'text-ink-soft'}>
            {balance.verdict === 'gain'
              ? `${formatMass(-balance.unaccountedMg)} too much`
              : `${formatMass(balance.unaccountedMg)} left, ${formatMass(balance.allowedMg)} may be ${stage.dripIs ?? 'drip'} and scale`}
          </span>
        </p>
        {(flow.close.isError || flow.putBack.isError) && (
          <span className="max-w-80 text-alarm">{(flow.close.error ?? flow.putBack.error)?.message}</span>
        )}
        <Button
          size="bench"
          look={balance.verdict === 'balanced' && counted.length > 0 ? 'strong' : 'plain'}
          hotkey="c"
          disabled={!may || flow.close.isPending || counted.length === 0}
          onClick={flow.tryClose}
        >
          Close stage
        </Button>
      </footer>
      {wiping && (
        <div
          role="status"
          className="fixed inset-0 z-20 grid place-items-center bg-flow/85 text-center font-head text-[40px] font-bold text-white"
        >
          Wiping. Touches are ignored.
        </div>
      )}
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
              . A chef can reopen it there, with a reason.
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
