import type { CuttingSetup } from '@zabrik/core';
import { formatMass } from '@zabrik/core';
import { type ReactNode, useState } from 'react';
import { useMay } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { NotForMe } from '../../../parts/NotForMe.tsx';
import { SimulatedPan } from '../../../parts/SimulatedPan.tsx';
import { useKeys } from '../../../parts/useKeys.ts';
import { CloseStrip } from './CloseStrip.tsx';
import { PanStrip } from './PanStrip.tsx';
import { Tally } from './Tally.tsx';
import type { AtBoard } from './useCutting.ts';
import { useCuttingClose } from './useCuttingClose.ts';
import type { Taking } from './useTake.ts';

/** The wish as it stands: what was said last, changed on this screen until it is written down with the first weight. */
export function useSetup<K extends CuttingSetup['kind']>(
  { state, record }: AtBoard,
  kind: K,
  usual: Extract<CuttingSetup, { kind: K }>,
) {
  type Setup = Extract<CuttingSetup, { kind: K }>;
  const saved = state.setup?.kind === kind ? (state.setup as Setup) : undefined;
  const [draft, setDraft] = useState<Setup | undefined>(undefined);
  const setup = draft ?? saved ?? usual;
  return {
    setup,
    change: (part: Partial<Setup>): void => setDraft({ ...setup, ...part }),
    settle: (): void => {
      if (saved === undefined || JSON.stringify(saved) !== JSON.stringify(setup))
        record({ kind: 'setup', setup }, 'how it is to be made');
      setDraft(undefined);
    },
  };
}

interface Props {
  readonly board: AtBoard;
  readonly taking: Taking;
  readonly says: string;
  /** What one on the pan should weigh. */
  readonly wantedMg: number | undefined;
  readonly big: string;
  /** What is weighed next, where there is a choice. */
  readonly lines: readonly { readonly id: string; readonly name: string }[];
  readonly line: string;
  readonly onLine: (id: string) => void;
  readonly panTo?: { readonly label: string; readonly put: (massMg: number) => void } | undefined;
  /** What is counted in the tally. */
  readonly made: string;
  readonly children: ReactNode;
}

/** The frame of what is made rather than cut to marks: the drawing and its figures, the pan, what was weighed, and the end. */
export function BoardFrame({ board, taking, says, wantedMg, big, lines, line, onLine, panTo, children, made }: Props) {
  const { cutting, state, record, unsent } = board;
  const may = useMay('cutting.event');
  const closing = useCuttingClose(board);
  const [right, setRight] = useState<string | undefined>(undefined);
  const picked = state.weights.find((w) => w.id === right) ?? state.weights.at(-1);
  const back = (): void => {
    if (picked === undefined) return;
    record({ kind: 'back', eventId: picked.id }, `${picked.name}, ${formatMass(picked.massMg)} taken back`);
    taking.setSays(`${picked.name}, ${formatMass(picked.massMg)}: taken back.`);
    setRight(undefined);
  };
  useKeys(
    may
      ? {
          ' ': taking.take,
          Enter: taking.take,
          u: back,
          k: () => taking.setTyping(''),
          c: closing.ask,
          Escape: () => {
            taking.setTyping(undefined);
            setRight(undefined);
            closing.goOn();
          },
          ...Object.fromEntries(lines.map((l, i) => [String(i + 1), () => onLine(l.id)])),
        }
      : {},
  );
  const rest = Math.max(1_000, cutting.startMg - state.weighedMg);
  const predicted = Math.min(rest, wantedMg === undefined ? rest : Math.round(wantedMg));
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-52px)] lg:min-h-[640px]">
      <div className="flex items-baseline gap-4 border-b border-line bg-sheet px-4 py-2">
        <h1 className="min-w-0 truncate text-[22px] font-bold">{cutting.name}</h1>
        <p className="min-w-0 flex-1 truncate text-[14px] text-ink-soft">
          {cutting.inputs.map((i) => i.code).join(', ')}
        </p>
        <p className="whitespace-nowrap">
          <span className="figure text-lg">{formatMass(cutting.startMg)}</span> on the board
        </p>
      </div>
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-h-0 min-w-0 overflow-y-auto p-4">
          <NotForMe has={cutting.inputs.flatMap((i) => i.allergens)} />
          {children}
        </div>
        <aside className="flex min-h-0 flex-col border-line bg-sheet-soft max-lg:border-t lg:border-l" aria-label="Got">
          <PanStrip
            taking={taking}
            target={
              wantedMg === undefined ? undefined : { mg: wantedMg, lowMg: wantedMg * 0.95, highMg: wantedMg * 1.05 }
            }
          />
          <fieldset
            className="border-0 p-0 flex flex-wrap gap-1.5 border-b border-line p-2"
            aria-label="What is on the pan"
          >
            {lines.map((l, i) => (
              <Toggle
                key={l.id}
                hotkey={String(i + 1)}
                on={l.id === line}
                className="min-h-12 flex-1"
                onPress={() => onLine(l.id)}
              >
                {l.name}
              </Toggle>
            ))}
            {panTo !== undefined && (
              <Button
                className="min-h-12 w-full"
                disabled={taking.panMg === undefined}
                onClick={() => taking.panMg !== undefined && panTo.put(taking.panMg)}
              >
                {panTo.label}
              </Button>
            )}
          </fieldset>
          <Tally
            weights={state.weights}
            sizes={[]}
            made={made}
            unsent={unsent}
            right={right}
            onPick={setRight}
            startMg={cutting.startMg}
            weighedMg={state.weighedMg}
          />
        </aside>
      </div>
      <p
        className={`min-h-8 border-t border-line px-4 pt-1 text-[15px] ${taking.asked === undefined ? '' : 'border-l-4 border-l-attention bg-[#fff7e0] pb-1 font-semibold'}`}
        role="status"
        aria-live="polite"
        data-testid="says"
      >
        {taking.says === '' ? says : taking.says}
      </p>
      {may && (
        <div className="px-4 py-1">
          <SimulatedPan
            next={{
              what: 'cut',
              cuttingId: cutting.id,
              seat: `${line} ${state.weights.length}`,
              predictedMg: Math.max(1_000, predicted),
              spread: wantedMg === undefined || predicted === rest ? 0 : 0.015,
            }}
          />
        </div>
      )}
      <CloseStrip closing={closing} startMg={cutting.startMg} inputs={cutting.inputs} />
      <footer className="flex items-center gap-2.5 border-t border-line bg-sheet px-4 py-2 max-lg:flex-wrap">
        <Button size="bench" hotkey="u" disabled={!may || state.weights.length === 0} onClick={back}>
          {right === undefined ? 'Undo' : 'Take it back'}
        </Button>
        {state.weights.length === 0 && may && (
          <Button size="bench" disabled={closing.pending} onClick={closing.putBack}>
            Put it back
          </Button>
        )}
        <span className="min-w-0 flex-1 truncate text-right text-[14px] text-alarm" role="alert">
          {closing.error?.message}
        </span>
        <Button
          size="bench"
          hotkey="c"
          variant="plain"
          disabled={!may || state.weights.length === 0 || closing.pending}
          onClick={closing.ask}
        >
          Finish
        </Button>
        <Button size="bench" variant="strong" className="min-w-56" disabled={!may} onClick={taking.take}>
          {taking.asked === undefined ? big : 'Count it all the same'}
        </Button>
      </footer>
    </div>
  );
}

/** A figure with its words, in a row of such. */
export function Figures({ of }: { readonly of: readonly (readonly [figure: string, says: string])[] }) {
  return (
    <dl className="flex flex-wrap gap-x-7 gap-y-2">
      {of.map(([figure, says]) => (
        <div key={says}>
          <dd className="figure text-2xl leading-tight">{figure}</dd>
          <dt className="text-[14px] text-ink-soft">{says}</dt>
        </div>
      ))}
    </dl>
  );
}
