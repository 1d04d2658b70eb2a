import {
  type CutsForWeight,
  type Destination,
  formatMass,
  massBetween,
  type PieceProfile,
  type PortionSize,
} from '@zabrik/core';
import { type KeyboardEvent, type PointerEvent, useEffect, useId, useRef, useState } from 'react';
import { cm } from './cutWords.ts';

export interface GotPart {
  readonly fromMm: number;
  readonly toMm: number;
  readonly massMg: number;
}

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

const TOP = 46;
const RULER = 52;
const BELOW = 62;
const SIDE = 34;
const LARGEST = 250;

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

/** How far a mark may be out and its portion still be of its size. */
function playOf(profile: PieceProfile, from: number, sizes: readonly PortionSize[], sizeId: string | undefined) {
  const size = sizes.find((s) => s.id === sizeId);
  if (size === undefined) return undefined;
  const [light, heavy] = [size.targetMg * (1 - size.toleranceShare), size.targetMg * (1 + size.toleranceShare)];
  let low = from + 1;
  while (low < profile.lengthMm && massBetween(profile, from, low) < light) low += 1;
  let high = low;
  while (high < profile.lengthMm && massBetween(profile, from, high + 1) <= heavy) high += 1;
  return { low, high };
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
  const { lengthMm } = profile;
  const widest = Math.max(...profile.widthMm, 1);
  const room = Math.max(110, Math.min(LARGEST, height - TOP - RULER - BELOW - 40));
  const scale = trueScale ?? Math.min((Math.max(320, width) - 2 * SIDE) / lengthMm, room / widest);
  // at true size the length is what counts: the piece is only as high as there is room
  const across = trueScale === undefined ? scale : Math.min(scale, room / widest);
  const bodyPx = widest * across;
  const drawn = lengthMm * scale + 2 * SIDE;
  const left = trueScale === undefined ? Math.max(SIDE, (width - lengthMm * scale) / 2) : SIDE;
  const middle = TOP + bodyPx / 2;
  const rulerTop = TOP + bodyPx + 26;
  const x = (mm: number): number => left + mm * scale;
  const edge = (mm: number): number => ((profile.widthMm[Math.round(mm)] ?? 0) * across) / 2;
  const outline = (from: number, to: number): string => {
    const step = Math.max(1, Math.round((to - from) / 40));
    const places: number[] = [];
    for (let mm = from; mm < to; mm += step) places.push(mm);
    places.push(to);
    const upper = places.map((mm) => `${x(mm).toFixed(1)},${(middle - edge(mm)).toFixed(1)}`);
    const lower = [...places].reverse().map((mm) => `${x(mm).toFixed(1)},${(middle + edge(mm)).toFixed(1)}`);
    return [...upper, ...lower].join(' ');
  };
  const first = marks[0] ?? fromMm;
  useEffect(() => {
    const element = box.current;
    if (trueScale !== undefined && element !== null)
      element.scrollLeft = SIDE + first * trueScale - element.clientWidth / 2;
  }, [box, trueScale, first]);
  const slant = Math.tan((angleDeg * Math.PI) / 180) * 12;
  const drag = useRef<{ readonly index: number; readonly startX: number; readonly mm: number } | undefined>(undefined);
  const press = (event: PointerEvent<SVGGElement>, index: number): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { index, startX: event.clientX, mm: marks[index] ?? 0 };
    onSelect(index);
  };
  const pull = (event: PointerEvent<SVGGElement>): void => {
    const held = drag.current;
    if (held === undefined) return;
    onMove(held.index, Math.round(held.mm + (event.clientX - held.startX) / scale));
  };
  const onKey = (event: KeyboardEvent<SVGGElement>, index: number): void => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(index, (marks[index] ?? 0) + step * (event.shiftKey ? 5 : 1));
  };
  const segments = [
    ...plan.portions.map((p) => ({ ...p, kind: 'portion' as const })),
    ...plan.ends.map((e) => ({ ...e, kind: 'end' as const, sizeId: undefined, sdMg: 0, folded: false })),
  ].sort((a, b) => a.fromMm - b.fromMm);
  // a mark is the first, the second... cut: it keeps its focus while it moves
  const names = marks.map((_, i) => `cut ${i + 1}`);
  const ticks = Array.from({ length: Math.floor(lengthMm / 5) + 1 }, (_, i) => i * 5);
  return (
    <div
      ref={box}
      className={`min-h-0 flex-1 ${trueScale === undefined ? 'overflow-hidden' : 'overflow-x-auto overflow-y-hidden'}`}
      data-testid="ruler"
    >
      <svg
        width={trueScale === undefined ? '100%' : drawn}
        height={rulerTop + RULER + BELOW}
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
          <g key={`got ${g.fromMm}`}>
            <polygon
              points={outline(g.fromMm, g.toMm)}
              fill="var(--color-ground-deep)"
              stroke="var(--color-line-strong)"
              strokeDasharray="5 4"
            />
            {(g.toMm - g.fromMm) * scale > 58 && (
              <text
                x={x((g.fromMm + g.toMm) / 2)}
                y={middle + 6}
                textAnchor="middle"
                className="figure fill-ink-soft text-[18px]"
              >
                {formatMass(g.massMg)}
              </text>
            )}
          </g>
        ))}
        {segments.map((s, i) => {
          const wide = (s.toMm - s.fromMm) * scale;
          const at = x((s.fromMm + s.toMm) / 2);
          return (
            <g key={`${s.kind} ${s.fromMm}`}>
              <polygon
                points={outline(s.fromMm, s.toMm)}
                fill={s.kind === 'end' ? `url(#${hatch})` : i % 2 === 0 ? '#bfdcd6' : '#d0e6e1'}
                stroke="var(--color-ink)"
                strokeWidth="1.5"
              />
              {s.kind === 'portion' ? (
                <>
                  <text
                    x={at}
                    y={middle + (wide > 84 ? 6 : 4)}
                    textAnchor="middle"
                    className={`figure fill-ink ${wide > 110 ? 'text-[34px]' : wide > 78 ? 'text-[24px]' : 'text-[15px]'}`}
                    // too narrow to stand upright in, it is written along the cut
                    {...(wide < 44 ? { transform: `rotate(-90 ${at} ${middle})` } : {})}
                  >
                    {formatMass(Math.round(s.massMg / 1_000) * 1_000)}
                  </text>
                  {wide > 54 && (
                    <text
                      x={at}
                      y={middle + (wide > 110 ? 30 : 24)}
                      textAnchor="middle"
                      className="fill-ink-soft text-[13px]"
                    >
                      ± {Math.max(1, Math.round(s.sdMg / 1_000))}
                      {s.folded ? ', tail folded' : ''}
                    </text>
                  )}
                </>
              ) : (
                <g>
                  <rect
                    x={at - 30}
                    y={middle + edge((s.fromMm + s.toMm) / 2) + 4}
                    width="60"
                    height="20"
                    rx="4"
                    fill="var(--color-sheet)"
                  />
                  <text
                    x={at}
                    y={middle + edge((s.fromMm + s.toMm) / 2) + 19}
                    textAnchor="middle"
                    className="figure fill-ink text-[15px]"
                  >
                    {formatMass(Math.round(s.massMg / 1_000) * 1_000)}
                  </text>
                </g>
              )}
            </g>
          );
        })}
        <rect
          x={x(0)}
          y={rulerTop}
          width={lengthMm * scale}
          height={RULER}
          fill="white"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
        {segments.map((s) => {
          if (s.kind !== 'portion' || s.toMm >= lengthMm) return null;
          const play = playOf(profile, s.fromMm, sizes, s.sizeId);
          return play === undefined ? null : (
            <rect
              key={`play ${s.toMm}`}
              x={x(play.low)}
              y={rulerTop + 1}
              width={Math.max(2, (play.high - play.low) * scale)}
              height={RULER - 2}
              fill="var(--color-portion)"
              opacity="0.22"
            />
          );
        })}
        {ticks.map((mm) => (
          <line
            key={mm}
            x1={x(mm)}
            x2={x(mm)}
            y1={rulerTop}
            y2={rulerTop + (mm % 50 === 0 ? 20 : mm % 10 === 0 ? 13 : 6)}
            stroke="var(--color-ink)"
            strokeWidth={mm % 50 === 0 ? 1.8 : 1}
          />
        ))}
        {ticks
          .filter((mm) => mm % 50 === 0)
          .map((mm) => (
            <text
              key={mm}
              x={x(mm) + (mm === 0 ? 8 : 0)}
              y={rulerTop + RULER - 10}
              textAnchor="middle"
              className="fill-ink-soft text-[14px]"
            >
              {mm / 10}
            </text>
          ))}
        {marks.map((mm, i) => {
          const on = i === selected;
          const fixed = locked.has(mm);
          return (
            <g
              key={names[i]}
              role="slider"
              tabIndex={0}
              aria-label={`Cut ${firstNo + i}${fixed ? ', locked' : ''}`}
              aria-valuemin={fromMm}
              aria-valuemax={lengthMm}
              aria-valuenow={mm}
              aria-valuetext={`${cm(mm)} centimetres`}
              className="cursor-ew-resize touch-none outline-none focus-visible:[outline:3px_solid_var(--color-attention)]"
              onPointerDown={(event) => press(event, i)}
              onPointerMove={pull}
              onPointerUp={() => {
                drag.current = undefined;
              }}
              onPointerCancel={() => {
                drag.current = undefined;
              }}
              onFocus={() => onSelect(i)}
              onKeyDown={(event) => onKey(event, i)}
            >
              <rect
                x={x(mm) - touch(marks, i, scale)}
                y={0}
                width={2 * touch(marks, i, scale)}
                height={rulerTop + RULER}
                fill="transparent"
              />
              <line
                x1={x(mm) + slant}
                x2={x(mm) - slant}
                y1={30}
                y2={rulerTop + RULER}
                stroke="var(--color-ink)"
                strokeWidth={on ? 5 : 3}
              />
              <circle
                cx={x(mm) + slant}
                cy={20}
                r={on ? 17 : dot(marks, i, scale)}
                fill={fixed ? 'var(--color-ink)' : on ? 'var(--color-attention)' : 'white'}
                stroke="var(--color-ink)"
                strokeWidth="2.5"
              />
              {(on || dot(marks, i, scale) >= 9) && (
                <text
                  x={x(mm) + slant}
                  y={25}
                  textAnchor="middle"
                  className={`figure text-[14px] ${fixed ? 'fill-white' : 'fill-ink'}`}
                >
                  {firstNo + i}
                </text>
              )}
              {figured(marks, i, selected, scale) && (
                <text
                  x={x(mm)}
                  y={rulerTop + RULER + (i % 2 === 1 && crowded(marks, i, scale) ? 58 : 34)}
                  textAnchor="middle"
                  className={`figure fill-ink ${on ? 'text-[32px]' : 'text-[26px]'}`}
                >
                  {cm(mm)}
                </text>
              )}
            </g>
          );
        })}
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

/** Room to a mark's nearest neighbour, in the drawing's units. */
const room = (marks: readonly number[], i: number, scale: number): number =>
  Math.min(
    ...[marks[i - 1], marks[i + 1]].flatMap((m) => (m === undefined ? [] : [Math.abs(m - (marks[i] ?? 0)) * scale])),
    Number.POSITIVE_INFINITY,
  );
/** Marks near each other have smaller handles, and none covers its neighbour's. */
const dot = (marks: readonly number[], i: number, scale: number): number =>
  Math.max(4, Math.min(14, room(marks, i, scale) / 2 - 1));
const touch = (marks: readonly number[], i: number, scale: number): number =>
  Math.max(6, Math.min(28, room(marks, i, scale) / 2));

/** A figure is about so wide in the drawing. */
const FIGURE = 76;
/**
 * Which marks carry their figure: the one in hand always; of the others as many as stand clear of it and of each other, in two rows.
 *
 * @example 30 marks 25 apart: every fourth of a row, and none that would touch the one in hand
 */
export function figured(marks: readonly number[], i: number, selected: number, scale: number): boolean {
  if (i === selected) return true;
  const at = (k: number): number => (marks[k] ?? 0) * scale;
  const row = (k: number): number => (crowded(marks, k, scale) ? k % 2 : 0);
  if (row(i) === row(selected) && Math.abs(at(i) - at(selected)) < FIGURE) return false;
  let last = Number.NEGATIVE_INFINITY;
  for (let k = 0; k <= i; k += 1) {
    if (row(k) !== row(i) || k === selected) continue;
    if (Math.abs(at(k) - at(selected)) < FIGURE && row(k) === row(selected)) continue;
    if (at(k) - last < FIGURE) {
      if (k === i) return false;
      continue;
    }
    last = at(k);
  }
  return true;
}

/** Whether a mark's figure would touch its neighbour's. */
const crowded = (marks: readonly number[], i: number, scale: number): boolean =>
  [marks[i - 1], marks[i + 1]].some((other) => other !== undefined && Math.abs(other - (marks[i] ?? 0)) * scale < 72);
