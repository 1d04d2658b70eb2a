import type { CutsForWeight, Destination, PieceProfile, PortionSize } from '@zabrik/core';
import { useEffect, useId, useRef, useState } from 'react';
import { cm } from './cutWords.ts';
import { Got, type GotPart, Mark, Scale, Segment } from './RulerParts.tsx';
import { drawingOf, partsOf, RULER, SIDE } from './rulerDrawing.ts';

interface Props {
  readonly profile: PieceProfile;
  readonly plan: CutsForWeight;
  readonly sizes: readonly PortionSize[];
  /** Cut and weighed already. */
  readonly got: readonly GotPart[];
  readonly fromMm: number;
  readonly endTo: Destination;
  readonly marks: readonly number[];
  /** The number of the first mark: cuts made already count. */
  readonly firstNo: number;
  readonly locked: ReadonlySet<number>;
  readonly selected: number;
  readonly onSelect: (index: number) => void;
  readonly onMove: (index: number, mm: number) => void;
  readonly angleDeg: number;
  /** Pixels a millimetre when fish and screen lie side by side; undefined to fit the screen. */
  readonly trueScale: number | undefined;
}

function useWidth(): [React.RefObject<HTMLDivElement | null>, number, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<readonly [number, number]>([900, 430]);
  useEffect(() => {
    const element = ref.current;
    if (element === null || typeof ResizeObserver === 'undefined') return undefined;
    const observer = new ResizeObserver(() => setSize([element.clientWidth, element.clientHeight]));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, ...size];
}

/** The piece to scale with its cuts, the ruler under it, and where each cut falls in centimetres from the thick end. */
export function Ruler(props: Props) {
  const {
    profile,
    plan,
    sizes,
    got,
    fromMm,
    endTo,
    marks,
    firstNo,
    locked,
    selected,
    onSelect,
    onMove,
    angleDeg,
    trueScale,
  } = props;
  const [box, width, height] = useWidth();
  const hatch = useId();
  const drawing = drawingOf(profile, width, height, trueScale);
  const { x, lengthMm, rulerTop } = drawing;
  const first = marks[0] ?? fromMm;
  useEffect(() => {
    const element = box.current;
    if (trueScale !== undefined && element !== null)
      element.scrollLeft = SIDE + first * trueScale - element.clientWidth / 2;
  }, [box, trueScale, first]);
  const slant = Math.tan((angleDeg * Math.PI) / 180) * 12;
  const parts = partsOf(plan);
  // a mark is the first, the second... cut: it keeps its focus while it moves
  const names = marks.map((_, i) => `cut ${i + 1}`);
  return (
    <div
      ref={box}
      className={`min-h-0 flex-1 ${trueScale === undefined ? 'overflow-hidden' : 'overflow-x-auto overflow-y-hidden'}`}
      data-testid="ruler"
    >
      <svg
        width={trueScale === undefined ? '100%' : drawing.width}
        height={drawing.height}
        className="block select-none"
      >
        <title>{`A piece ${cm(lengthMm)} cm long with ${marks.length} cuts`}</title>
        <defs>
          <pattern id={hatch} width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <rect width="10" height="10" fill="var(--color-sheet)" />
            <rect width="4" height="10" fill={`var(--color-${endTo})`} />
          </pattern>
        </defs>
        {got.map((g) => (
          <Got key={`got ${g.fromMm}`} part={g} drawing={drawing} />
        ))}
        {parts.map((part, i) => (
          <Segment key={`${part.kind} ${part.fromMm}`} part={part} even={i % 2 === 0} hatch={hatch} drawing={drawing} />
        ))}
        <Scale profile={profile} sizes={sizes} parts={parts} drawing={drawing} />
        {marks.map((mm, i) => (
          <Mark
            key={names[i]}
            marks={marks}
            i={i}
            no={firstNo + i}
            fixed={locked.has(mm)}
            selected={selected}
            fromMm={fromMm}
            slant={slant}
            drawing={drawing}
            onSelect={onSelect}
            onMove={onMove}
          />
        ))}
        <text x={x(0)} y={rulerTop + RULER + 58} className="fill-ink-soft text-[14px]">
          {profile.template.ends[0]}
        </text>
        <text x={x(lengthMm)} y={rulerTop + RULER + 58} textAnchor="end" className="fill-ink-soft text-[14px]">
          {profile.template.ends[1]}, {cm(lengthMm)} cm
        </text>
      </svg>
    </div>
  );
}
