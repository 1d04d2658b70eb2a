import { type Destination, formatCount, formatMass, planSlices, type SlicesSetup, shareSlices } from '@zabrik/core';
import { useId, useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { BoardFrame, Figures, useSetup } from './BoardFrame.tsx';
import type { AtBoard } from './useCutting.ts';
import { leftOn, useTake } from './useTake.ts';

const DENSITY = 1.06;
/** A block of this mass as such blocks usually are: about 2.4 : 1.2 : 0.75. */
function usual(board: AtBoard): SlicesSetup {
  const massMg = Math.round(board.cutting.startMg / Math.max(1, board.cutting.pieces));
  const side = Math.cbrt(massMg / DENSITY / (2.4 * 1.2 * 0.75));
  const five = (mm: number): number => Math.max(10, 5 * Math.round(mm / 5));
  return {
    kind: 'slices',
    lengthMm: five(2.4 * side),
    widthMm: five(1.2 * side),
    heightMm: five(0.75 * side),
    sliceMm: 8,
    angleDeg: 0,
    bladeMm: 0,
    rowMm: null,
    density: DENSITY,
    massMg,
    ways: [{ id: 'slices', name: 'slices', share: 1, destination: 'portion' }],
    endTo: 'staff',
  };
}

/** The block from the side with its cuts, and from above with its rows, to scale. */
function BlockDrawing({ setup }: { readonly setup: SlicesSetup }) {
  const hatch = useId();
  const plan = planSlices(setup);
  const { lengthMm, widthMm, heightMm, angleDeg } = setup;
  const scale = Math.min(640 / lengthMm, 150 / Math.max(widthMm, heightMm));
  const [L, H, W] = [lengthMm * scale, heightMm * scale, widthMm * scale];
  const lean = H * Math.tan((Math.abs(angleDeg) * Math.PI) / 180);
  const pitch = ((setup.sliceMm + setup.bladeMm) / Math.cos((Math.abs(angleDeg) * Math.PI) / 180)) * scale;
  const cuts = Array.from({ length: plan.perRow + 1 }, (_, i) => i * pitch).filter((at) => at + lean <= L + 0.5);
  const row = (setup.rowMm ?? widthMm) * scale;
  const rows = Array.from({ length: plan.rows + (plan.stripMg > 1_000 ? 1 : 0) - 1 }, (_, i) => (i + 1) * row);
  const shown = cuts.length > 90 ? cuts.filter((_, i) => i % Math.ceil(cuts.length / 90) === 0) : cuts;
  const end = cuts.at(-1) ?? 0;
  return (
    <svg
      viewBox={`-4 -22 ${L + 8} ${H + W + 62}`}
      className="max-h-[230px] w-full"
      role="img"
      aria-label={`A block of ${lengthMm} by ${widthMm} by ${heightMm} millimetres in ${plan.count} slices`}
    >
      <defs>
        <pattern id={hatch} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect width="9" height="9" fill="var(--color-sheet)" />
          <rect width="3.5" height="9" fill={`var(--color-${setup.endTo})`} />
        </pattern>
      </defs>
      <text x="0" y="-8" className="fill-ink-soft text-[13px]">
        from the side
      </text>
      <rect width={L} height={H} fill={`url(#${hatch})`} stroke="var(--color-ink)" strokeWidth="1.5" />
      {plan.perRow > 0 && (
        <polygon
          points={`0,${H} ${lean},0 ${end + lean},0 ${end},${H}`}
          fill="#cfe4df"
          stroke="var(--color-ink)"
          strokeWidth="1.5"
        />
      )}
      {shown.map((at) => (
        <line key={at} x1={at} y1={H} x2={at + lean} y2="0" stroke="var(--color-ink)" strokeWidth="1.2" />
      ))}
      <text x="0" y={H + 28} className="fill-ink-soft text-[13px]">
        from above
      </text>
      <g transform={`translate(0 ${H + 36})`}>
        <rect
          width={L}
          height={W}
          fill={plan.stripMg > 1_000 ? `url(#${hatch})` : '#cfe4df'}
          stroke="var(--color-ink)"
          strokeWidth="1.5"
        />
        {plan.stripMg > 1_000 && (
          <rect width={L} height={row * plan.rows} fill="#cfe4df" stroke="var(--color-ink)" strokeWidth="1.5" />
        )}
        {rows.map((y) => (
          <line key={y} x1="0" x2={L} y1={y} y2={y} stroke="var(--color-ink)" strokeWidth="1.5" />
        ))}
      </g>
    </svg>
  );
}

const usualWays: readonly { readonly id: string; readonly name: string; readonly destination: Destination }[] = [
  { id: 'raw', name: 'raw', destination: 'portion' },
  { id: 'seared', name: 'to be seared', destination: 'portion' },
  { id: 'cured', name: 'to be cured', destination: 'larder' },
];

/** A block to slices: how many, how heavy, which way they go, and what is left. */
export function SliceBoard({ board }: { readonly board: AtBoard }) {
  const { state, record } = board;
  const { setup, change, settle } = useSetup(board, 'slices', usual(board));
  const plan = planSlices(setup);
  const blocks = Math.max(1, board.cutting.pieces);
  const parts = shareSlices(plan.count * blocks, setup.ways);
  const got = (id: string): number => state.weights.filter((w) => w.line === id).reduce((sum, w) => sum + w.count, 0);
  const open = parts.find((p) => p.count > got(p.id));
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const line = picked ?? open?.id ?? 'end';
  const part = parts.find((p) => p.id === line);
  const count = part === undefined ? 1 : Math.max(1, part.count - got(part.id));
  const [own, setOwn] = useState<number | undefined>(undefined);
  const recordWeight = (massMg: number): string => {
    settle();
    const way = setup.ways.find((w) => w.id === line);
    const name = way === undefined ? 'ends' : way.name;
    record(
      {
        kind: 'weigh',
        piece: 1,
        line,
        name,
        destination: way?.destination ?? setup.endTo,
        massMg,
        count: way === undefined ? 1 : (own ?? count),
        predictedMg: Math.round(
          way === undefined ? blocks * (plan.wedgesMg + plan.restMg + plan.stripMg) : count * plan.sliceMg,
        ),
        fromMm: null,
        toMm: null,
        replaces: null,
      },
      `${name}, ${formatMass(massMg)}`,
    );
    setPicked(undefined);
    setOwn(undefined);
    return `${name}: ${formatMass(massMg)}.`;
  };
  const taking = useTake(recordWeight, () => leftOn(board));
  const split = setup.ways.length > 1;
  return (
    <BoardFrame
      board={board}
      taking={taking}
      made="slices"
      says={`Slice, then weigh each way together: the count stands beside it.`}
      wantedMg={part === undefined ? undefined : (own ?? count) * plan.sliceMg}
      big={part === undefined ? 'Weigh the ends' : `Weigh ${own ?? count} slices`}
      lines={[...setup.ways, { id: 'end', name: 'ends' }]}
      line={line}
      onLine={setPicked}
      panTo={{ label: 'The pan is the block', put: (massMg) => change({ massMg }) }}
    >
      <BlockDrawing setup={setup} />
      <div className="my-4">
        <Figures
          of={[
            [
              String(plan.count * blocks),
              `slices${plan.rows > 1 ? `, ${plan.rows} rows of ${plan.perRow}` : ''}${blocks > 1 ? `, of ${blocks} blocks` : ''}`,
            ],
            [formatMass(plan.sliceMg), 'each'],
            [`${Math.round(plan.faceMm[0])} × ${Math.round(plan.faceMm[1])} mm`, 'as it lies'],
            [
              formatMass(Math.round((blocks * (plan.wedgesMg + plan.restMg + plan.stripMg)) / 1_000) * 1_000),
              'wedges, rest and strip',
            ],
            [`${formatCount(plan.evenMm, 1)} mm`, 'thick would leave no rest'],
          ]}
        />
      </div>
      <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
        <NumField
          label="Long"
          unit="mm"
          min={5}
          max={2_000}
          decimals={0}
          value={setup.lengthMm}
          onValue={(lengthMm) => change({ lengthMm })}
        />
        <NumField
          label="Wide"
          unit="mm"
          min={5}
          max={1_000}
          decimals={0}
          value={setup.widthMm}
          onValue={(widthMm) => change({ widthMm })}
        />
        <NumField
          label="High"
          unit="mm"
          min={5}
          max={1_000}
          decimals={0}
          value={setup.heightMm}
          onValue={(heightMm) => change({ heightMm })}
        />
        <NumField
          label="Block weighs"
          unit="g"
          min={5}
          max={60_000}
          decimals={0}
          value={(setup.massMg ?? 0) / 1_000}
          onValue={(g) => change({ massMg: Math.round(g * 1_000) })}
        />
        <NumField
          label="Slice thick"
          unit="mm"
          min={0.5}
          max={500}
          value={setup.sliceMm}
          onValue={(sliceMm) => change({ sliceMm })}
        />
        <NumField
          label="Knife slants"
          unit="°"
          max={75}
          decimals={0}
          value={setup.angleDeg}
          onValue={(angleDeg) => change({ angleDeg })}
        />
        <NumField
          label="Blade takes"
          unit="mm"
          max={20}
          value={setup.bladeMm}
          onValue={(bladeMm) => change({ bladeMm })}
        />
        <NumField
          label="Row wide"
          unit="mm"
          max={1_000}
          decimals={0}
          value={setup.rowMm ?? null}
          hint="empty: the whole width"
          onNone={() => change({ rowMm: null })}
          onValue={(rowMm) => change({ rowMm: rowMm > 0 ? rowMm : null })}
        />
        {part !== undefined && (
          <NumField
            label="Slices on the pan"
            min={1}
            max={2_000}
            decimals={0}
            value={own ?? count}
            onValue={(n) => setOwn(Math.round(n))}
          />
        )}
      </div>
      <div className="mt-4">
        <Toggle
          on={split}
          className="min-h-12"
          onPress={() => change({ ways: split ? usual(board).ways : usualWays.map((w) => ({ ...w, share: 1 / 3 })) })}
        >
          {split ? 'All the same way' : 'Parts go different ways'}
        </Toggle>
        {split && (
          <ul className="mt-3 grid grid-cols-3 gap-3 max-md:grid-cols-1">
            {setup.ways.map((way, i) => (
              <li key={way.id}>
                <NumField
                  label={`${way.name}, ${parts[i]?.count ?? 0} slices`}
                  unit="%"
                  max={100}
                  decimals={0}
                  value={way.share * 100}
                  onValue={(p) => change({ ways: setup.ways.map((w, k) => (k === i ? { ...w, share: p / 100 } : w)) })}
                />
              </li>
            ))}
          </ul>
        )}
      </div>
    </BoardFrame>
  );
}
