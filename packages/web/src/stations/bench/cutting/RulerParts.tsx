/** What is drawn on the ruler: what is cut already, what comes next, the ruler itself, and the marks that are dragged. */
import { formatMass, type PieceProfile, type PortionSize } from '@zabrik/core';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { cm } from './cutWords.ts';
import { type Drawing, type Part, RULER } from './rulerDrawing.ts';
import { crowded, dot, figured, playOf, touch } from './rulerMarks.ts';

export interface GotPart {
  readonly fromMm: number;
  readonly toMm: number;
  readonly massMg: number;
}

/** Cut and weighed already. */
export function Got({ part, drawing }: { readonly part: GotPart; readonly drawing: Drawing }) {
  const { x, outline, scale, middle } = drawing;
  return (
    <g>
      <polygon
        points={outline(part.fromMm, part.toMm)}
        fill="var(--color-ground-deep)"
        stroke="var(--color-line-strong)"
        strokeDasharray="5 4"
      />
      {(part.toMm - part.fromMm) * scale > 58 && (
        <text
          x={x((part.fromMm + part.toMm) / 2)}
          y={middle + 6}
          textAnchor="middle"
          className="figure fill-ink-soft text-[18px]"
        >
          {formatMass(part.massMg)}
        </text>
      )}
    </g>
  );
}

interface SegmentProps {
  readonly part: Part;
  /** Neighbours are told apart by their shade. */
  readonly even: boolean;
  /** The pattern of ends. */
  readonly hatch: string;
  readonly drawing: Drawing;
}

/** A portion or an end, as it will be cut. */
export function Segment({ part, even, hatch, drawing }: SegmentProps) {
  const { x, edge, outline, scale, middle } = drawing;
  const wide = (part.toMm - part.fromMm) * scale;
  const at = x((part.fromMm + part.toMm) / 2);
  return (
    <g>
      <polygon
        points={outline(part.fromMm, part.toMm)}
        fill={part.kind === 'end' ? `url(#${hatch})` : even ? '#bfdcd6' : '#d0e6e1'}
        stroke="var(--color-ink)"
        strokeWidth="1.5"
      />
      {part.kind === 'portion' ? (
        <>
          <text
            x={at}
            y={middle + (wide > 84 ? 6 : 4)}
            textAnchor="middle"
            className={`figure fill-ink ${wide > 110 ? 'text-[34px]' : wide > 78 ? 'text-[24px]' : 'text-[15px]'}`}
            // too narrow to stand upright in, it is written along the cut
            {...(wide < 44 ? { transform: `rotate(-90 ${at} ${middle})` } : {})}
          >
            {formatMass(Math.round(part.massMg / 1_000) * 1_000)}
          </text>
          {wide > 54 && (
            <text x={at} y={middle + (wide > 110 ? 30 : 24)} textAnchor="middle" className="fill-ink-soft text-[13px]">
              ± {Math.max(1, Math.round(part.sdMg / 1_000))}
              {part.folded ? ', tail folded' : ''}
            </text>
          )}
        </>
      ) : (
        <g>
          <rect
            x={at - 30}
            y={middle + edge((part.fromMm + part.toMm) / 2) + 4}
            width="60"
            height="20"
            rx="4"
            fill="var(--color-sheet)"
          />
          <text
            x={at}
            y={middle + edge((part.fromMm + part.toMm) / 2) + 19}
            textAnchor="middle"
            className="figure fill-ink text-[15px]"
          >
            {formatMass(Math.round(part.massMg / 1_000) * 1_000)}
          </text>
        </g>
      )}
    </g>
  );
}

interface ScaleProps {
  readonly profile: PieceProfile;
  readonly sizes: readonly PortionSize[];
  readonly parts: readonly Part[];
  readonly drawing: Drawing;
}

/** The ruler, with how far each cut may be out. */
export function Scale({ profile, sizes, parts, drawing }: ScaleProps) {
  const { x, lengthMm, rulerTop, scale } = drawing;
  const ticks = Array.from({ length: Math.floor(lengthMm / 5) + 1 }, (_, i) => i * 5);
  return (
    <>
      <rect
        x={x(0)}
        y={rulerTop}
        width={lengthMm * scale}
        height={RULER}
        fill="white"
        stroke="var(--color-ink)"
        strokeWidth="2"
      />
      {parts.map((s) => {
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
    </>
  );
}

interface MarkProps {
  readonly marks: readonly number[];
  /** Which of them it is, and its number on the piece. */
  readonly i: number;
  readonly no: number;
  readonly fixed: boolean;
  readonly selected: number;
  readonly fromMm: number;
  readonly slant: number;
  readonly drawing: Drawing;
  readonly onSelect: (index: number) => void;
  readonly onMove: (index: number, mm: number) => void;
}

/** A cut: dragged, or moved by the arrow keys. */
export function Mark({ marks, i, no, fixed, selected, fromMm, slant, drawing, onSelect, onMove }: MarkProps) {
  const { x, lengthMm, rulerTop, scale } = drawing;
  const mm = marks[i] ?? 0;
  const drag = useRef<{ readonly startX: number; readonly mm: number } | undefined>(undefined);
  const press = (event: PointerEvent<SVGGElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { startX: event.clientX, mm };
    onSelect(i);
  };
  const pull = (event: PointerEvent<SVGGElement>): void => {
    const held = drag.current;
    if (held !== undefined) onMove(i, Math.round(held.mm + (event.clientX - held.startX) / scale));
  };
  const onKey = (event: KeyboardEvent<SVGGElement>): void => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(i, mm + step * (event.shiftKey ? 5 : 1));
  };
  const on = i === selected;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Cut ${no}${fixed ? ', locked' : ''}`}
      aria-valuemin={fromMm}
      aria-valuemax={lengthMm}
      aria-valuenow={mm}
      aria-valuetext={`${cm(mm)} centimetres`}
      className="cursor-ew-resize touch-none outline-none focus-visible:[outline:3px_solid_var(--color-attention)]"
      onPointerDown={press}
      onPointerMove={pull}
      onPointerUp={() => {
        drag.current = undefined;
      }}
      onPointerCancel={() => {
        drag.current = undefined;
      }}
      onFocus={() => onSelect(i)}
      onKeyDown={onKey}
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
          {no}
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
}
