import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { useMay } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { TabList, TabPanel, Tabs } from '../../../kit/Tabs.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { NotForMe } from '../../../parts/NotForMe.tsx';
import { SimulatedPan } from '../../../parts/SimulatedPan.tsx';
import { useKeys } from '../../../parts/useKeys.ts';
import { CloseStrip } from './CloseStrip.tsx';
import { cm, percentWords } from './cutWords.ts';
import { Mixes } from './Mixes.tsx';
import { PanStrip } from './PanStrip.tsx';
import { PieceTab } from './PieceTab.tsx';
import { PortionHead, type Tab } from './PortionHead.tsx';
import { PutRight } from './PutRight.tsx';
import { Ruler } from './Ruler.tsx';
import { SizesTab } from './SizesTab.tsx';
import { Tally } from './Tally.tsx';
import { Calibrate, useTrueScale } from './TrueSize.tsx';
import type { AtBoard } from './useCutting.ts';
import { useCuttingClose } from './useCuttingClose.ts';
import { usePortions } from './usePortions.ts';

const tabs: readonly { readonly id: Tab; readonly name: string; readonly key: string }[] = [
  { id: 'got', name: 'Got', key: 'g' },
  { id: 'sizes', name: 'Sizes', key: 'z' },
  { id: 'piece', name: 'Piece', key: 'm' },
];
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
          r: flow.compute,
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
      <PortionHead board={board} flow={flow} open={setTab} />
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_340px]">
        <section className="flex min-h-0 min-w-0 flex-col" aria-label="Where to cut">
          <NotForMe has={board.cutting.inputs.flatMap((i) => i.allergens)} />
          {trueScale.on && !flow.finished && <Calibrate scale={trueScale} />}
          {flow.finished ? (
            <div className="grid min-h-60 flex-1 place-items-center p-6 text-center">
              <div>
                <p className="font-head text-2xl font-bold">Piece {flow.no} is cut</p>
                {allDone ? (
                  <p className="text-ink-soft">Every piece is cut. Weigh what is left, if anything is, and finish.</p>
                ) : (
                  <Button size="bench" variant="strong" className="mt-3" onClick={() => flow.setPiece(flow.no + 1)}>
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
          <p
            className={`min-h-8 px-4 text-[15px] ${taking.asked === undefined ? '' : 'border-l-4 border-attention bg-[#fff7e0] py-1.5 font-semibold'}`}
            role="status"
            aria-live="polite"
            data-testid="says"
          >
            {taking.says !== ''
              ? taking.says
              : flow.byHand
                ? 'Marks set by hand. The masses follow; r puts them back.'
                : 'Cut at the first mark, weigh it, and the others move to fit. Shaded: where the knife may land.'}
          </p>
          <Mixes flow={flow} />
        </section>
        <aside className="flex min-h-0 flex-col border-line bg-sheet-soft max-lg:border-t lg:border-l" aria-label="Got">
          <PanStrip taking={taking} target={target} />
          <Tabs
            value={tab}
            onValueChange={(id) => setTab(tabs.find((t) => t.id === id)?.id ?? 'got')}
            className="flex min-h-0 flex-1 flex-col"
          >
            <TabList
              column
              label="Got, sizes or piece"
              tabs={tabs.map((t) => ({ value: t.id, name: t.name, hotkey: t.key }))}
            />
            <TabPanel value="got" tabIndex={-1} className="flex min-h-0 flex-1 flex-col data-[state=inactive]:hidden">
              <Tally
                weights={state.weights}
                sizes={flow.setup.sizes}
                unsent={unsent}
                right={right?.id}
                onPick={flow.setRight}
                startMg={cutting.startMg}
                weighedMg={state.weighedMg}
              />
              <PutRight flow={flow} />
            </TabPanel>
            <TabPanel value="sizes" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
              <SizesTab
                setup={flow.setup}
                category={cutting.category}
                template={flow.template}
                pieces={cutting.pieces}
                pieceMg={flow.measures.massMg}
                onChange={flow.change}
              />
            </TabPanel>
            <TabPanel value="piece" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
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
            </TabPanel>
          </Tabs>
        </aside>
      </div>
      {may && (
        <div className="px-4 py-1">
          <SimulatedPan
            busy={flow.late && !flow.finished && !flow.byHand}
            next={
              next === undefined
                ? { what: 'cut', cuttingId: cutting.id, seat: 'rest', predictedMg: rest, spread: 0 }
                : next.kind === 'end'
                  ? {
                      what: 'cut',
                      cuttingId: cutting.id,
                      seat: `end ${flow.no}`,
                      // the last end of a piece is all that is left of it
                      predictedMg:
                        next.toMm < flow.measures.lengthMm - 0.5
                          ? Math.max(1_000, Math.round(next.massMg))
                          : flow.no >= cutting.pieces
                            ? rest
                            : pieceRest,
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
      <CloseStrip closing={closing} startMg={cutting.startMg} inputs={cutting.inputs} />
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
        <Toggle hotkey="t" on={trueScale.on} size="bench" onPress={trueScale.toggle}>
          True size
        </Toggle>
        <Toggle
          hotkey="f"
          on={flow.setup.tail === 'fold'}
          size="bench"
          onPress={() => flow.change({ ...flow.setup, tail: flow.setup.tail === 'fold' ? 'end' : 'fold' })}
        >
          Fold tail
        </Toggle>
        {flow.byHand && (
          <Button size="bench" hotkey="r" onClick={flow.compute}>
            Reckon
          </Button>
        )}
        <span className="min-w-0 flex-1 truncate text-right text-[14px] text-alarm" role="alert">
          {closing.error?.message}
        </span>
        <Button
          size="bench"
          hotkey="c"
          variant={allDone ? 'strong' : 'plain'}
          disabled={!may || state.weights.length === 0 || closing.pending}
          onClick={closing.ask}
        >
          Finish
        </Button>
        {!(allDone && next === undefined && taking.panMg === undefined && right === undefined) && (
          <Button size="bench" variant="strong" className="min-w-64" disabled={!may} onClick={taking.take}>
            {taking.asked === undefined ? big : 'Count it all the same'}
          </Button>
        )}
      </footer>
    </div>
  );
}
