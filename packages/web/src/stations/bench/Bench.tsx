import { formatMass } from '@zabrik/core';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api } from '../../app/endpoints.ts';
import { useStuck, useWaitingAbout } from '../../app/outbox.ts';
import { useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { trays } from '../../parts/destinations.ts';
import { RefusedHere } from '../../parts/RefusedHere.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { BenchFoot } from './BenchFoot.tsx';
import { BenchHead } from './BenchHead.tsx';
import { BenchPieces } from './BenchPieces.tsx';
import { BenchScale } from './BenchScale.tsx';
import { BenchSide, type SideTab } from './BenchSide.tsx';
import { setBenchDevice, useBenchDevice } from './benchDevice.ts';
import { CloseBar } from './CloseBar.tsx';
import { ClosedHere } from './ClosedHere.tsx';
import { CookedBar } from './CookedBar.tsx';
import { Trays } from './Trays.tsx';
import { useBench } from './useBench.ts';
import { type BenchState, useBreakdown } from './useBreakdown.ts';
import { useTouchLetsGo } from './useTouchLetsGo.ts';

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

function AtBench({ state }: { readonly state: BenchState }) {
  const { stage, balance } = state;
  const may = useMay('bench.weigh');
  const device = useBenchDevice();
  const standing = useStanding();
  const flow = useBench(state, may);
  const [tab, setTab] = useState<SideTab>('steps');
  useTouchLetsGo();
  const [wiping, setWiping] = useState(false);
  const { reading } = flow;

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
          ArrowDown: () => flow.steps.goTo(flow.steps.at + 1),
          u: flow.undo,
          t: () => flow.tellScale(reading.tareMg > 0 && reading.netMg <= 0 ? 'untare' : 'tare'),
          z: () => flow.tellScale('zero'),
          m: () => flow.setTyping({ for: 'weight', text: '' }),
          w: () => setTab((before) => (before === 'weights' ? 'steps' : 'weights')),
          o: () => setTab((before) => (before === 'tools' ? 'steps' : 'tools')),
          a: () => setBenchDevice({ whenSteady: !device.whenSteady }),
          b: () => setBenchDevice({ large: !device.large }),
          l: () => setWiping(true),
          h: flow.steps.pauseOrGoOn,
          n: flow.toNextAnimal,
          g: () => flow.steps.answerGuard('done', null),
          k: () => flow.steps.answerGuard('skipped', null),
          '+': () => flow.setCount(flow.count + 1),
          '-': () => flow.setCount(flow.count - 1),
          c: flow.closing.ask,
          Escape: () => {
            flow.correct(undefined);
            flow.setTyping(undefined);
            flow.closing.weighOn();
          },
          ...Object.fromEntries(trays.map(({ id, key }) => [key, () => flow.toTray(id)])),
        }
      : {},
  );

  return (
    <div className="flex flex-col md:h-[calc(100dvh-52px)] md:min-h-[700px]">
      <BenchHead flow={flow} state={state} may={may} />
      <div
        className={`grid min-h-0 flex-1 max-md:grid-cols-1 md:grid-rows-[minmax(0,1fr)_auto] lg:grid-rows-1 ${device.large ? 'grid-cols-[180px_1fr] lg:grid-cols-[200px_1fr_380px]' : 'grid-cols-[270px_1fr] lg:grid-cols-[318px_1fr_380px]'}`}
      >
        {device.large && (
          <div className="min-h-0 overflow-y-auto border-r border-line p-2.5 max-md:hidden">
            <BenchPieces flow={flow} state={state} column />
          </div>
        )}
        {!standing && !device.large && <div className="border-r border-line bg-sheet-soft max-md:hidden" />}
        {standing && !device.large && (
          <BenchSide flow={flow} state={state} may={may} tab={tab} onTab={setTab} onWipe={() => setWiping(true)} />
        )}
        <BenchScale flow={flow} state={state} may={may} standing={standing} />
        <Trays flow={flow} state={state} may={may} />
      </div>
      <RefusedHere refused={state.refused} className="border-t border-line" />
      {flow.closing.asking && (
        <CloseBar
          balance={balance}
          stage={stage}
          missingPasses={flow.steps.missingPasses}
          onJoined={() => {
            flow.closing.weighOn();
            setTab('tools');
          }}
          onPasses={flow.passesMade}
          pending={flow.closing.pending}
          onBack={flow.closing.weighOn}
          onClose={flow.closing.closeFor}
        />
      )}
      {flow.closing.askingCooked && (
        <CookedBar
          stage={stage}
          pending={flow.closing.pending}
          onBack={flow.closing.weighOn}
          onClose={flow.closing.sayCooked}
        />
      )}
      <BenchFoot flow={flow} state={state} may={may} />
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
  const here = useWaitingAbout(breakdownId);
  const stuck = useStuck();
  useOpen(query.data === undefined ? undefined : `${query.data.speciesName} ${query.data.lotCode}`);
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
  if (state.closing && stuck)
    return (
      <ClosedHere here={here} closing={api.bench.close.id} to="/bench" leave="To the bench">
        <p>
          {formatMass(state.balance.weighedMg)} of {formatMass(state.breakdown.startMg)} is weighed. Its yield sheet
          stands in the ledger, and its pieces in the larder, once the server has it.
        </p>
      </ClosedHere>
    );
  return <AtBench key={breakdownId} state={state} />;
}
