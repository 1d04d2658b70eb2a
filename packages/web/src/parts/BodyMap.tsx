import type { Body } from '@zabrik/core';
import { drawings } from './bodyDrawings.ts';

interface Props {
  readonly body: Body;
  /** Pieces that are weighed. */
  readonly lit: ReadonlySet<string>;
  /** The piece it is about now. */
  readonly current?: string | undefined;
  /** Pieces of the stage: an area of none of them is drawn faint. */
  readonly known?: ReadonlySet<string>;
  /** Touching an area chooses one of its pieces. */
  readonly onPick?: (pieceId: string) => void;
  /** Figures to stand on the areas, by piece. */
  readonly figures?: ReadonlyMap<string, string>;
  readonly className?: string;
}

/** The animal as lines, its pieces lit as they come off. A picture beside the figures, never instead of them. */
export function BodyMap({ body, lit, current, known, onPick, figures, className = '' }: Props) {
  const { areas, marks } = drawings[body];
  const ownOf = (area: (typeof areas)[number]): readonly string[] =>
    known === undefined ? area.pieces : area.pieces.filter((id) => known.has(id));
  return (
    <svg viewBox="0 0 240 110" className={className} role="img" aria-label={`Drawing of the cuts, ${lit.size} weighed`}>
      {areas.map((area) => {
        const own = ownOf(area);
        const done = own.length > 0 && own.some((id) => lit.has(id));
        const all = own.length > 0 && own.every((id) => lit.has(id));
        const now = current !== undefined && own.includes(current);
        // the first of the area that is not weighed yet, or else the first
        const target = own.find((id) => !lit.has(id)) ?? own[0];
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: a second way to what the named piece buttons do; the drawing is one image to a screen reader
          <g
            key={area.d}
            onClick={onPick === undefined || target === undefined ? undefined : () => onPick(target)}
            className={onPick !== undefined && target !== undefined ? 'cursor-pointer' : ''}
          >
            <path
              d={area.d}
              fill={now ? 'var(--color-attention)' : done ? 'var(--color-portion)' : 'var(--color-white)'}
              fillOpacity={now ? 1 : done ? (all ? 0.9 : 0.5) : 1}
              stroke="var(--color-ink)"
              strokeOpacity={own.length === 0 ? 0.3 : 1}
              strokeWidth={now ? 2.4 : 1.6}
              strokeLinejoin="round"
            />
          </g>
        );
      })}
      {/* an eye or a seam under a figure would make another figure of it */}
      {marks !== undefined && figures === undefined && (
        <path d={marks} fill="none" stroke="var(--color-ink)" strokeWidth="1.4" pointerEvents="none" />
      )}
      {areas.map((area) => {
        const figure = ownOf(area).flatMap((id) => figures?.get(id) ?? [])[0];
        return (
          figure !== undefined && (
            <text
              key={area.d}
              pointerEvents="none"
              x={area.at[0]}
              y={area.at[1] + 3.5}
              textAnchor="middle"
              className="figure"
              fontSize="10"
              fill="var(--color-ink)"
              stroke="var(--color-sheet)"
              strokeWidth="3"
              paintOrder="stroke"
            >
              {figure}
            </text>
          )
        );
      })}
    </svg>
  );
}
