import { type CutWeight, formatMass, formatShare, givenAway, offSize } from '@zabrik/core';
import { Link, useParams } from 'react-router';
import { api } from '../../../app/endpoints.ts';
import { useStuck, useWaitingAbout } from '../../../app/outbox.ts';
import { Failed, Loading } from '../../../kit/Notice.tsx';
import { clothOf } from '../../../parts/destinations.ts';
import { RefusedHere } from '../../../parts/RefusedHere.tsx';
import { ClosedHere } from '../ClosedHere.tsx';
import { useTouchLetsGo } from '../useTouchLetsGo.ts';
import { Figures } from './BoardFrame.tsx';
import { MouldBoard } from './MouldBoard.tsx';
import { PortionBoard } from './PortionBoard.tsx';
import { RollBoard } from './RollBoard.tsx';
import { SliceBoard } from './SliceBoard.tsx';
import { type AtBoard, useCutting } from './useCutting.ts';

/** What it came to: shares of what was cut, and how near the portions are to what was asked for. */
function Came({ board }: { readonly board: AtBoard }) {
  const { state } = board;
  const sizes = state.setup?.kind === 'portions' ? state.setup.sizes : [];
  const sum = (of: (w: CutWeight) => boolean): number =>
    state.weights.filter(of).reduce((total, w) => total + w.massMg, 0);
  const ends = sum((w) => w.line === 'end');
  const made = sum((w) => w.line !== 'end');
  const sized = state.weights.filter((w) => sizes.some((s) => s.id === w.line));
  const inside = sized.filter((w) => offSize(w, sizes) === undefined).length;
  const share = (mg: number): string => formatShare(mg / Math.max(1, state.weighedMg));
  return (
    <div className="mb-4">
      <Figures
        of={[
          [share(made), 'made of what was weighed'],
          [share(ends), 'ends'],
          ...(sized.length > 0
            ? ([
                [`${inside} of ${sized.length}`, 'in tolerance'],
                [formatMass(givenAway(state.weights, sizes)), 'given away'],
              ] as const)
            : []),
        ]}
      />
    </div>
  );
}

/** What came of a cutting: the lots, each one touch away from its label. */
function Done({ board }: { readonly board: AtBoard }) {
  const { cutting } = board;
  return (
    <section className="mx-auto w-full max-w-2xl p-6" aria-label="Cut">
      <h1 className="text-2xl font-bold">{cutting.name}</h1>
      {cutting.state === 'cancelled' ? (
        <p className="text-ink-soft">It was put back uncut.</p>
      ) : (
        <>
          <p className="mb-4 text-ink-soft">
            {formatMass(board.state.weighedMg)} of {formatMass(cutting.startMg)} cut and weighed, now in the larder. A
            chef can take the entry back from any of these lots.
          </p>
          <Came board={board} />
          <ul className="grid gap-2">
            {cutting.lots.map((l) => (
              <li key={l.lotId}>
                <Link
                  to={`/larder/${l.lotId}`}
                  className="grid min-h-16 grid-cols-[20px_1fr_auto] items-center gap-3 rounded-plate border-[1.5px] border-line-strong bg-white px-4 hover:border-ink"
                >
                  <span className={`size-5 rounded-[3px] ${clothOf[l.destination ?? 'whole']}`} aria-hidden="true" />
                  <span className="min-w-0">
                    <span className="block truncate font-head text-lg font-semibold">{l.name}</span>
                    <span className="text-[14px] text-ink-soft">
                      {l.code} · {l.pieces === 1 ? 'one' : `${l.pieces} of them`}
                    </span>
                  </span>
                  <span className="figure text-xl">{formatMass(l.massMg)}</span>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-6 flex gap-6">
        <Link className="font-semibold underline" to="/bench/cut">
          Cut the next one
        </Link>
        <Link className="underline" to="/larder">
          To the larder
        </Link>
      </p>
    </section>
  );
}

const boards = { portions: PortionBoard, roll: RollBoard, slices: SliceBoard, mould: MouldBoard } as const;

export default function Cutting() {
  const { cuttingId = '' } = useParams();
  const { query, board } = useCutting(cuttingId);
  const here = useWaitingAbout(cuttingId);
  const stuck = useStuck();
  useTouchLetsGo();
  if (board === undefined) {
    if (query.isPending) return <Loading />;
    return (
      <Failed error={query.error ?? new Error('This cutting cannot be read.')} again={() => void query.refetch()} />
    );
  }
  const Board = boards[board.cutting.kind];
  // the server would not have it begun: there is nothing to weigh here
  const never = board.refused.some((w) => w.endpoint === api.cutting.start.id);
  return (
    <>
      <RefusedHere refused={board.refused} className="border-b border-line" />
      {never ? (
        <p className="p-6">
          <Link className="font-semibold underline" to="/bench/cut">
            Pick another lot
          </Link>
        </p>
      ) : board.closing && stuck ? (
        <ClosedHere here={here} closing={api.cutting.close.id} to="/bench/cut" leave="Cut something else" />
      ) : board.cutting.state === 'open' ? (
        <Board key={cuttingId} board={board} />
      ) : (
        <Done board={board} />
      )}
    </>
  );
}
