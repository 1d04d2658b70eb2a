import { usualCourses, usualMoulds } from '@zabrik/catalogue/portioning';
import { formatLitres, formatMass, type Mould, type MouldSetup, planCase, planMould } from '@zabrik/core';
import { useId, useState } from 'react';
import { useHouse } from '../../../app/queries.ts';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { mouldSides } from '../../../parts/mouldSides.ts';
import { BoardFrame, Figures, useSetup } from './BoardFrame.tsx';
import type { AtBoard } from './useCutting.ts';
import { leftOn, useTake } from './useTake.ts';

const firstMould = (): Mould => {
  const [first] = usualMoulds;
  if (first === undefined) throw new Error('the catalogue has no moulds');
  return first.mould;
};

interface KnownMould {
  readonly id: string;
  readonly name: string;
  readonly mould: Mould;
}

/** The house’s own moulds, then what is usual; of two of one id the house’s counts. */
function useMoulds(): readonly KnownMould[] {
  const own = useHouse().data?.moulds ?? [];
  return [...own, ...usualMoulds.filter((m) => !own.some((o) => o.id === m.id))];
}

function usual(board: AtBoard, moulds: readonly KnownMould[]): MouldSetup {
  const setup: MouldSetup = {
    kind: 'mould',
    mould: firstMould(),
    moulds: 1,
    density: 1.02,
    fillShare: 0.95,
    liningMm: 0,
    liningDensity: 1.05,
    cookLossShare: 0.04,
    courses: [...usualCourses],
    courseId: 'starter',
  };
  // the largest mould that what lies here fills, and as many as it fills
  const filled = (mould: Mould): number => planMould({ ...setup, mould }).filledMg;
  const bySize = [...moulds].sort((a, b) => filled(b.mould) - filled(a.mould));
  const mould = (bySize.find((m) => filled(m.mould) <= board.cutting.startMg) ?? bySize.at(-1))?.mould ?? setup.mould;
  return { ...setup, mould, moulds: Math.max(1, Math.floor(board.cutting.startMg / filled(mould))) };
}

/** The mould cut through, filled as high as it will be, with its lining. */
function MouldDrawing({ setup }: { readonly setup: MouldSetup }) {
  const clip = useId();
  const { mould, liningMm, fillShare } = setup;
  const round = mould.kind === 'dome' || mould.kind === 'gutter';
  const top = mould.kind === 'terrine' || mould.kind === 'dariole' ? mould.topMm : mould.diameterMm;
  const bottom = mould.kind === 'terrine' || mould.kind === 'dariole' ? mould.bottomMm : mould.diameterMm;
  const deep = round ? top / 2 : mould.heightMm;
  const scale = 170 / Math.max(deep, top * 0.6);
  const [T, B, D, l] = [top * scale, bottom * scale, deep * scale, liningMm * scale];
  const shape = (inset: number): string => {
    const r = Math.max(0, T / 2 - inset);
    if (round) return `M ${T / 2 - r} 0 A ${r} ${r} 0 0 0 ${T / 2 + r} 0 Z`;
    const b = Math.max(0, B / 2 - inset);
    return `M ${T / 2 - r} 0 L ${T / 2 - b} ${Math.max(0, D - inset)} L ${T / 2 + b} ${Math.max(0, D - inset)} L ${T / 2 + r} 0 Z`;
  };
  const air = (1 - fillShare) * D;
  return (
    <svg
      viewBox={`-6 -6 ${T + 12} ${D + 12}`}
      className="mx-auto h-[210px]"
      role="img"
      aria-label={`A mould ${Math.round(top)} millimetres across and ${Math.round(deep)} deep, cut through`}
    >
      <defs>
        <clipPath id={clip}>
          <rect x="0" y={air} width={T} height={D} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${clip})`}>
        <path d={shape(0)} fill={liningMm > 0 ? 'var(--color-filling)' : '#d0e6e1'} opacity={liningMm > 0 ? 0.55 : 1} />
        {liningMm > 0 && <path d={shape(l)} fill="#d0e6e1" stroke="var(--color-ink)" strokeWidth="1" />}
      </g>
      <path d={shape(0)} fill="none" stroke="var(--color-ink)" strokeWidth="3" />
    </svg>
  );
}

/** The pastry case for a piece, or how to cut the piece when the sheet is small. */
function PastryCase() {
  const [piece, setPiece] = useState({ lengthMm: 300, widthMm: 90, heightMm: 45 });
  const [sheet, setSheet] = useState({ lengthMm: 380, widthMm: 260 });
  const [sealMm, setSeal] = useState(20);
  const plan = planCase({ piece, sheet, sealMm });
  return (
    <section aria-label="Pastry case" className="mt-6 border-t border-line pt-4">
      <h2 className="mb-2 text-lg font-bold">A pastry case for a piece</h2>
      <div className="grid grid-cols-6 gap-3 max-md:grid-cols-2">
        <NumField
          label="Piece long"
          unit="mm"
          min={10}
          max={1_500}
          decimals={0}
          value={piece.lengthMm}
          onValue={(lengthMm) => setPiece({ ...piece, lengthMm })}
        />
        <NumField
          label="wide"
          unit="mm"
          min={5}
          max={800}
          decimals={0}
          value={piece.widthMm}
          onValue={(widthMm) => setPiece({ ...piece, widthMm })}
        />
        <NumField
          label="high"
          unit="mm"
          min={5}
          max={500}
          decimals={0}
          value={piece.heightMm}
          onValue={(heightMm) => setPiece({ ...piece, heightMm })}
        />
        <NumField
          label="Sheet long"
          unit="mm"
          min={20}
          max={2_000}
          decimals={0}
          value={sheet.lengthMm}
          onValue={(lengthMm) => setSheet({ ...sheet, lengthMm })}
        />
        <NumField
          label="wide"
          unit="mm"
          min={20}
          max={2_000}
          decimals={0}
          value={sheet.widthMm}
          onValue={(widthMm) => setSheet({ ...sheet, widthMm })}
        />
        <NumField label="Seal" unit="mm" max={80} decimals={0} value={sealMm} onValue={setSeal} />
      </div>
      <p className="mt-2 text-[15px]" data-testid="case">
        Bottom {Math.round(plan.bottomMm[0])} × {Math.round(plan.bottomMm[1])} mm, lid {Math.round(plan.lidMm[0])} ×{' '}
        {Math.round(plan.lidMm[1])} mm.{' '}
        {plan.pieces === null
          ? 'The sheet is too narrow for this piece either way. A wider sheet, or a flatter piece.'
          : plan.pieces === 1
            ? `It fits whole; ${plan.sheets === 1 ? 'one sheet for both' : `${plan.sheets} sheets`}.`
            : `The sheet covers ${Math.round(plan.longestMm)} mm: cut the piece across in ${plan.pieces}, ${plan.sheets} sheets.`}
      </p>
    </section>
  );
}

/** A mould to covers: what goes in, lining and heart, and how many it serves by course. */
export function MouldBoard({ board }: { readonly board: AtBoard }) {
  const { state, record } = board;
  const moulds = useMoulds();
  const { setup, change, settle } = useSetup(board, 'mould', usual(board, moulds));
  const plan = planMould(setup);
  const course = setup.courses.find((c) => c.id === setup.courseId) ?? setup.courses[0];
  const covers = plan.courses.find((c) => c.id === course?.id);
  const made = state.weights.filter((w) => w.line === 'mould').length;
  const [line, setLine] = useState('mould');
  const each = plan.filledMg / Math.max(1, setup.moulds);
  const recordWeight = (massMg: number): string => {
    settle();
    const filled = line === 'mould';
    const count = filled ? Math.max(1, covers?.perMould ?? 1) : 1;
    const name = filled ? `mould for ${count} ${course?.name ?? 'covers'}` : 'ends';
    record(
      {
        kind: 'weigh',
        piece: made + 1,
        line,
        name,
        destination: filled ? 'portion' : 'staff',
        massMg,
        count,
        predictedMg: filled ? Math.round(each) : null,
        fromMm: null,
        toMm: null,
        replaces: null,
      },
      `${name}, ${formatMass(massMg)}`,
    );
    return filled ? `Mould ${made + 1}: ${formatMass(massMg)}, ${count} covers.` : `Left over: ${formatMass(massMg)}.`;
  };
  const taking = useTake(recordWeight, () => leftOn(board));
  const { mould } = setup;
  const known = moulds.find((m) => JSON.stringify(m.mould) === JSON.stringify(mould));
  return (
    <BoardFrame
      board={board}
      taking={taking}
      made="covers"
      says="Tare the empty mould, fill it, and weigh it."
      wantedMg={line === 'mould' ? each : undefined}
      big={line === 'mould' ? `Weigh mould ${made + 1}` : 'Weigh what is left'}
      lines={[
        { id: 'mould', name: 'mould' },
        { id: 'end', name: 'left over' },
      ]}
      line={line}
      onLine={setLine}
    >
      <div className="grid items-center gap-4 md:grid-cols-[1fr_1.3fr]">
        <MouldDrawing setup={setup} />
        <Figures
          of={[
            [formatLitres(plan.mouldMl / 1_000, 2), 'to the rim'],
            [
              formatMass(Math.round(plan.filledMg / 1_000) * 1_000),
              setup.moulds > 1 ? `into ${setup.moulds} moulds` : 'to fill it',
            ],
            ...(plan.liningMg > 0
              ? ([
                  [formatMass(Math.round(plan.liningMg / 1_000) * 1_000), 'lining'],
                  [formatMass(Math.round(plan.heartMg / 1_000) * 1_000), 'heart'],
                ] as const)
              : []),
            ...plan.courses.map((c): readonly [string, string] => [
              `${c.covers}`,
              `${setup.courses.find((k) => k.id === c.id)?.name ?? c.id}${c.sliceMm === null ? '' : `, ${Math.round(c.sliceMm)} mm slices`}`,
            ]),
          ]}
        />
      </div>
      {plan.filledMg > board.cutting.startMg * 1.02 && (
        <p className="mt-2 text-[15px] font-semibold text-alarm">
          {formatMass(board.cutting.startMg)} lies here: {Math.floor(board.cutting.startMg / each)} of these moulds can
          be filled.
        </p>
      )}
      <div className="mt-4 grid grid-cols-4 gap-3 max-md:grid-cols-2">
        <Select
          label="Mould"
          value={known?.id ?? 'own'}
          onValue={(id) => {
            const next = moulds.find((m) => m.id === id);
            if (next !== undefined) change({ mould: next.mould });
          }}
          options={[
            ...moulds.map((m) => ({ value: m.id, name: m.name })),
            ...(known === undefined ? [{ value: 'own', name: 'your own' }] : []),
          ]}
        />
        {mouldSides[mould.kind].map(([key, label]) => (
          <NumField
            key={key}
            label={label}
            unit="mm"
            min={1}
            max={2_000}
            decimals={0}
            value={Number((mould as unknown as Record<string, number>)[key])}
            onValue={(v) => change({ mould: { ...mould, [key]: v } as Mould })}
          />
        ))}
        <NumField
          label="Moulds"
          min={1}
          max={200}
          decimals={0}
          value={setup.moulds}
          onValue={(v) => change({ moulds: Math.round(v) })}
        />
        <NumField
          label="Filled to"
          unit="%"
          min={5}
          max={100}
          decimals={0}
          value={setup.fillShare * 100}
          onValue={(p) => change({ fillShare: p / 100 })}
        />
        <NumField
          label="Lining"
          unit="mm"
          max={100}
          value={setup.liningMm}
          onValue={(liningMm) => change({ liningMm })}
        />
        <NumField
          label="Lost in the oven"
          unit="%"
          max={60}
          value={setup.cookLossShare * 100}
          onValue={(p) => change({ cookLossShare: p / 100 })}
        />
        <Select
          label="Served as"
          value={setup.courseId}
          onValue={(value) => change({ courseId: value })}
          options={setup.courses.map((c) => ({ value: c.id, name: `${c.name}, ${formatMass(c.grams * 1_000)}` }))}
        />
        {course !== undefined && (
          <NumField
            label={`A ${course.name}`}
            unit="g"
            min={1}
            max={5_000}
            decimals={0}
            value={course.grams}
            onValue={(g) =>
              change({ courses: setup.courses.map((c) => (c.id === course.id ? { ...c, grams: g } : c)) })
            }
          />
        )}
      </div>
      <PastryCase />
    </BoardFrame>
  );
}
