import { formatMass, type PortionSize } from '@zabrik/core';
import { useEffect, useState } from 'react';
import { moneyOf, useHouse, useMay } from '../../../app/queries.ts';
import { Button } from '../../../parts/Button.tsx';
import { Notice } from '../../../parts/Notice.tsx';
import { SimulatedPan } from '../SimulatedPan.tsx';
import { useKeys } from '../useKeys.ts';
import { CloseStrip } from './CloseStrip.tsx';
import { cm, endWords, faultWords, mixWords, percentWords, thicknessWords } from './cutWords.ts';
import { PanStrip } from './PanStrip.tsx';
import { PieceTab } from './PieceTab.tsx';
import { Ruler } from './Ruler.tsx';
import { SizesTab } from './SizesTab.tsx';
import { Tally } from './Tally.tsx';
import type { AtBoard } from './useCutting.ts';
import { useCuttingClose } from './useCuttingClose.ts';
import { type Portions, usePortions } from './usePortions.ts';

type Tab = 'got' | 'sizes' | 'piece';
const tabs: readonly { readonly id: Tab; readonly name: string; readonly key: string }[] = [
  { id: 'got', name: 'Got', key: 'g' },
  { id: 'sizes', name: 'Sizes', key: 'z' },
  { id: 'piece', name: 'Piece', key: 'm' },
];
const CARD = 85.6;
const KEPT = 'zabrik-px-per-mm';

function useTrueScale() {
  const [on, setOn] = useState(false);
  const [pxPerMm, set] = useState(() => Number(localStorage.getItem(KEPT) ?? 96 / 25.4));
  useEffect(() => localStorage.setItem(KEPT, String(pxPerMm)), [pxPerMm]);
  return { on, toggle: () => setOn((before) => !before), pxPerMm, set };
}

/** The bank card everyone has: as long as it, and the ruler is true on this screen. */
function Calibrate({ scale }: { readonly scale: ReturnType<typeof useTrueScale> }) {
  return (
    <div className="flex items-center gap-4 border-b border-line bg-sheet-soft px-4 py-1.5">
      <span className="h-6 shrink-0 bg-ink" style={{ width: CARD * scale.pxPerMm }} aria-hidden="true" />
      <label className="flex min-w-0 flex-1 items-center gap-3 text-[14px]">
        <span>Hold the long side of a bank card (85.6 mm) against the bar and slide until they agree.</span>
        <input
          type="range"
          className="h-11 w-56 accent-ink"
          min={2}
          max={9}
          step={0.01}
          value={scale.pxPerMm}
          onChange={(event) => scale.set(Number(event.target.value))}
        />
      </label>
    </div>
  );
}

function Fact({
  figure,
  says,
  onClick,
}: {
  readonly figure: string;
  readonly says: string;
  readonly onClick?: () => void;
}) {
  return (
    <button
      type="button"
      className="min-h-12 rounded-md px-2 text-left leading-tight hover:bg-sheet-soft"
      onClick={onClick}
    >
      <span className="figure block text-[18px] whitespace-nowrap">{figure}</span>
      <span className="block text-[13px] whitespace-nowrap text-ink-soft underline decoration-line-strong decoration-dotted underline-offset-4">
        {says}
      </span>
    </button>
  );
}

function Head({
  board,
  flow,
  open,
}: {
  readonly board: AtBoard;
  readonly flow: Portions;
  readonly open: (tab: Tab) => void;
}) {
  const { cutting } = board;
  const { measures, setup, plan } = flow;
  const widths = [...(measures.widths ?? [])].sort((a, b) => a.at - b.at).map((w) => cm(w.mm));
  const [main] = setup.sizes;
  return (
    <div className="flex items-center gap-x-3 border-b border-line bg-sheet px-4 py-1.5 max-lg:flex-wrap">
      <div className="min-w-0 flex-1">
        <h1 className="truncate text-[22px] leading-7 font-bold">{cutting.name}</h1>
        <p className="flex items-center gap-2 text-[14px] text-ink-soft">
          {cutting.pieces > 1 ? `piece ${flow.no} of ${cutting.pieces}` : 'one piece'} ·{' '}
          {cutting.inputs.map((i) => i.code).join(', ')}
        </p>
      </div>
      <Fact
        figure={formatMass(measures.massMg)}
        says={flow.measured ? 'weighed' : 'guessed'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={`${cm(measures.lengthMm)} cm`}
        says={flow.measured ? 'long' : 'long, as usual'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={widths.length === 0 ? flow.template.name : `${widths.join(' / ')} cm`}
        says={widths.length === 0 ? 'form' : 'wide'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={main === undefined ? 'no size' : `${formatMass(main.targetMg)} ± ${percentWords(main.toleranceShare)}`}
        says={setup.sizes.length > 1 ? `${setup.sizes.length} sizes wanted` : 'wanted'}
        onClick={() => open('sizes')}
      />
      <p className="min-w-32 text-right leading-tight">
        <span className="figure block text-[18px]">{formatMass(Math.round(plan.giveAwayMg / 1_000) * 1_000)}</span>
        <span className="block text-[13px] text-ink-soft">expected over target</span>
      </p>
    </div>
  );
}

function Mixes({ flow }: { readonly flow: Portions }) {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (flow.finished) return null;
  return (
    <div className="grid gap-2 px-4 pb-2">
      {flow.faults.map((f) => (
        <Notice key={`${f.code} ${'sizeId' in f ? f.sizeId : ''}`} tone="attention">
          {faultWords(f, flow.setup.sizes)}
        </Notice>
      ))}
      <div className="grid auto-cols-fr grid-flow-col gap-2.5 max-lg:grid-flow-row" role="radiogroup" aria-label="Mix">
        {flow.options.map((o, i) => {
          const on = flow.option === i;
          return (
            // biome-ignore lint/a11y/useSemanticElements: a card with four lines of text, chosen like a radio button
            <button
              key={`${o.kind} ${mixWords(o, flow.setup.sizes)} ${o.ends.length}`}
              type="button"
              role="radio"
              aria-checked={on}
              onClick={() => flow.setOption(i)}
              className={`grid min-h-24 content-start rounded-plate border-[1.5px] bg-white px-3 py-2 text-left leading-snug ${on ? 'border-ink outline-3 -outline-offset-1 outline-ink' : 'border-line-strong hover:border-ink'}`}
            >
              <span className="flex items-baseline justify-between gap-2">
                <span className="figure text-[17px]">{mixWords(o, flow.setup.sizes)}</span>
                <span className="figure text-[17px]">{money(o.valueMinor)}</span>
              </span>
              <span className="block text-[14px] text-ink-soft">{endWords(o, flow.template.ends)}</span>
              <span className="block text-[13px] text-ink-soft">
                {thicknessWords(o, flow.template.acrossIsThickness)}
              </span>
            </button>
          );
        })}
        {flow.options.length === 0 && !flow.late && flow.faults.length === 0 && (
          <p className="py-4 text-ink-soft">No portion of these sizes is left in this piece. What is left is an end.</p>
        )}
      </div>
    </div>
  );
}

/** What can be done with a weight that was picked from the list. */
function Right({ flow }: { readonly flow: Portions }) {
  const { right } = flow;
  if (right === undefined) return null;
  const others: readonly PortionSize[] = flow.setup.sizes.filter((s) => s.id !== right.line);
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-attention bg-[#fff7e0] p-2.5">
      <p className="w-full text-[14px]">Trim it and weigh it again, or:</p>
      {(['staff', 'filling', 'larder'] as const)
        .filter((t) => t !== right.destination)
        .map((t) => (
          <Button key={t} className="min-h-12" onClick={() => flow.put(right, t)}>
            {t === 'staff' ? 'To staff' : t === 'filling' ? 'To filling' : 'Keep'}
          </Button>
        ))}
      {others.map((s) => (
        <Button key={s.id} className="min-h-12" onClick={() => flow.put(right, s)}>
          As {s.name}
        </Button>
      ))}
      <Button look="alarm" className="min-h-12" onClick={() => flow.back(right)}>
        Take it back
      </Button>
    </div>
  );
}

/** Cutting portions to weight: the ruler, the mixes, the pan and what was got. */
export function PortionBoard({ board }: { readonly board: AtBoard }) {
  const { cutting, state, unsent } = board;
  const may = useMay('cutting.event');
  const flow = usePortions(board);
  const closing = useCuttingClose(board);
  const trueScale = useTrueScale();
  const [tab, setTab] = useState<Tab>('got');
  const { taking, next, right } = flow;
  const mark = flow.marks[flow.selected];
  const cutNo = state.weights.filter((w) => w.piece === flow.no && w.line !== 'end').length + 1;
  const size = next?.kind === 'portion' ? next.size : undefined;
  const target =
    size === undefined
      ? undefined
      : {
          mg: size.targetMg,
          lowMg: size.targetMg * (1 - size.toleranceShare),
          highMg: size.targetMg * (1 + size.toleranceShare),
        };
  const allDone = flow.finished && flow.no >= cutting.pieces;
  const big =
    right !== undefined
      ? `Weigh it again: ${taking.panWords}`
      : next === undefined
        ? 'Weigh what is left'
        : next.kind === 'end'
          ? `Weigh the end, about ${formatMass(Math.round(next.massMg / 1_000) * 1_000)}`
          : `Cut ${cutNo} at ${cm(next.toMm)}, weigh it`;
  const nudge = (by: number): void => {
    if (mark !== undefined) flow.move(flow.selected, mark + by);
  };
  useKeys(
    may
      ? {
          ' ': taking.take,
          Enter: taking.take,
          ArrowLeft: () => nudge(-1),
          ArrowRight: () => nudge(1),
          ArrowUp: () => flow.setSelected(Math.max(0, flow.selected - 1)),
          ArrowDown: () => flow.setSelected(Math.min(flow.marks.length - 1, flow.selected + 1)),
          l: () => flow.toggleLock(mark),
          u: () => flow.back(right ?? state.weights.at(-1)),
          t: trueScale.toggle,
          f: () => flow.change({ ...flow.setup, tail: flow.setup.tail === 'fold' ? 'end' : 'fold' }),
          r: flow.reckon,
          k: () => taking.setTyping(''),
          n: () => flow.setPiece(Math.min(cutting.pieces, flow.no + 1)),
          c: closing.ask,
          Escape: () => {
            flow.setRight(undefined);
            taking.setTyping(undefined);
            closing.goOn();
          },
          ...Object.fromEntries(tabs.map(({ id, key }) => [key, () => setTab(id)])),
          ...Object.fromEntries([1, 2, 3, 4].map((n) => [String(n), () => flow.setOption(n - 1)])),
        }
      : {},
  );
  const rest = Math.max(1_000, cutting.startMg - state.weighedMg - 1_000);
  const pieceRest = Math.max(1_000, flow.measures.massMg - flow.got.reduce((sum, g) => sum + g.massMg, 0) - 1_000);
  const error = flow.learnt?.error;
  const learntWords =
    error === undefined || error.portions === 0
      ? ''
      : `From ${flow.learnt?.shape?.records ?? 0} of your own: portions come out within ${percentWords(error.house)}, by the handbook’s form ${percentWords(error.handbook)}.`;
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-52px)] lg:min-h-[640px]">
      <Head board={board} flow={flow} open={setTab} />
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_340px]">
        <section className="flex min-h-0 min-w-0 flex-col" aria-label="Where to cut">
          {trueScale.on && !flow.finished && <Calibrate scale={trueScale} />}
          {flow.finished ? (
            <div className="grid min-h-60 flex-1 place-items-center p-6 text-center">
              <div>
                <p className="font-head text-2xl font-bold">Piece {flow.no} is cut</p>
                {allDone ? (
                  <p className="text-ink-soft">Every piece is cut. Weigh what is left, if anything is, and finish.</p>
                ) : (
                  <Button size="bench" look="strong" className="mt-3" onClick={() => flow.setPiece(flow.no + 1)}>
                    To piece {flow.no + 1}
                  </Button>
                )}
              </div>
            </div>
          ) : (
            <Ruler
              profile={flow.profile}
              plan={flow.plan}
              sizes={flow.setup.sizes}
              got={flow.got}
              fromMm={flow.fromMm}
              endTo={flow.setup.endTo}
              marks={flow.marks}
              firstNo={cutNo}
              locked={flow.locked}
              selected={flow.selected}
              onSelect={flow.setSelected}
              onMove={flow.move}
              angleDeg={flow.setup.angleDeg}
              trueScale={trueScale.on ? trueScale.pxPerMm : undefined}
            />
          )}
          <p className="min-h-8 px-4 text-[15px]" role="status" aria-live="polite" data-testid="says">
            {taking.says !== ''
              ? taking.says
              : flow.byHand
                ? 'Marks set by hand. The masses follow; r puts them back.'
                : 'Cut, weigh, and the other marks move. Shaded: where the knife may land. Times are a hint: the core temperature decides.'}
          </p>
          <Mixes flow={flow} />
        </section>
        <aside className="flex min-h-0 flex-col border-line bg-sheet-soft max-lg:border-t lg:border-l" aria-label="Got">
          <PanStrip taking={taking} target={target} />
          <div className="grid grid-cols-3 border-b border-line" role="tablist">
            {tabs.map((t) => (
              <button
                key={t.id}
                type="button"
                role="tab"
                aria-selected={tab === t.id}
                aria-keyshortcuts={t.key}
                className={`min-h-12 font-head text-[15px] font-semibold ${tab === t.id ? 'bg-sheet shadow-[inset_0_-3px_0_var(--color-ink)]' : 'text-ink-soft'}`}
                onClick={() => setTab(t.id)}
              >
                {t.name}
              </button>
            ))}
          </div>
          {tab === 'got' && (
            <>
              <Tally
                weights={state.weights}
                sizes={flow.setup.sizes}
                unsent={unsent}
                right={right?.id}
                onPick={flow.setRight}
                startMg={cutting.startMg}
                weighedMg={state.weighedMg}
              />
              <Right flow={flow} />
            </>
          )}
          {tab !== 'got' && (
            <div className="min-h-0 flex-1 overflow-y-auto" role="tabpanel">
              {tab === 'sizes' ? (
                <SizesTab
                  setup={flow.setup}
                  category={cutting.category}
                  template={flow.template}
                  pieces={cutting.pieces}
                  pieceMg={flow.measures.massMg}
                  onChange={flow.change}
                />
              ) : (
                <PieceTab
                  no={flow.no}
                  pieces={cutting.pieces}
                  measures={flow.measures}
                  template={flow.template}
                  setup={flow.setup}
                  category={cutting.category}
                  panMg={taking.panMg}
                  learnt={learntWords}
                  onMeasure={flow.measure}
                  onSetup={flow.change}
                />
              )}
            </div>
          )}
        </aside>
      </div>
      {may && (
        <div className="px-4 py-1">
          <SimulatedPan
            next={
              next === undefined
                ? { what: 'cut', cuttingId: cutting.id, seat: 'rest', predictedMg: rest, spread: 0 }
                : next.kind === 'end'
                  ? {
                      what: 'cut',
                      cuttingId: cutting.id,
                      seat: `end ${flow.no}`,
                      predictedMg: flow.no >= cutting.pieces ? rest : pieceRest,
                      spread: 0,
                    }
                  : {
                      what: 'cut',
                      cuttingId: cutting.id,
                      seat: `${flow.no}/${cutNo}`,
                      predictedMg: Math.max(1_000, Math.round(next.massMg)),
                      spread: 0.02,
                    }
            }
          />
        </div>
      )}
      <CloseStrip closing={closing} startMg={cutting.startMg} />
      <footer className="flex items-center gap-2.5 border-t border-line bg-sheet px-4 py-2 max-lg:flex-wrap">
        <Button
          size="bench"
          hotkey="u"
          disabled={!may || state.weights.length === 0}
          onClick={() => flow.back(right ?? state.weights.at(-1))}
        >
          Undo
        </Button>
        {state.weights.length === 0 && may && (
          <Button size="bench" disabled={closing.pending} onClick={closing.putBack}>
            Put it back
          </Button>
        )}
        <Button size="bench" hotkey="l" disabled={mark === undefined} onClick={() => flow.toggleLock(mark)}>
          {mark !== undefined && flow.locked.has(mark) ? 'Unlock' : 'Lock'}
        </Button>
        <Button
          size="bench"
          hotkey="t"
          aria-pressed={trueScale.on}
          look={trueScale.on ? 'strong' : 'quiet'}
          onClick={trueScale.toggle}
        >
          True size
        </Button>
        <Button
          size="bench"
          hotkey="f"
          aria-pressed={flow.setup.tail === 'fold'}
          look={flow.setup.tail === 'fold' ? 'strong' : 'quiet'}
          onClick={() => flow.change({ ...flow.setup, tail: flow.setup.tail === 'fold' ? 'end' : 'fold' })}
        >
          Fold tail
        </Button>
        {flow.byHand && (
          <Button size="bench" hotkey="r" onClick={flow.reckon}>
            Reckon
          </Button>
        )}
        <span className="min-w-0 flex-1 truncate text-right text-[14px] text-alarm" role="alert">
          {closing.error?.message}
          {closing.held && 'Closes once the server has what waits here.'}
        </span>
        <Button
          size="bench"
          hotkey="c"
          look={allDone ? 'strong' : 'plain'}
          disabled={!may || state.weights.length === 0 || closing.pending}
          onClick={closing.ask}
        >
          Finish
        </Button>
        {!(allDone && next === undefined && taking.panMg === undefined && right === undefined) && (
          <Button size="bench" look="strong" className="min-w-64" disabled={!may} onClick={taking.take}>
            {big}
          </Button>
        )}
      </footer>
    </div>
  );
}
