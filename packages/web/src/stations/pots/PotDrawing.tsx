import { brimOf, formatCount, formatLitres, levelOf, type VesselShape } from '@zabrik/core';

interface Props {
  readonly shape: VesselShape;
  /** What stands in it, litres. */
  readonly litres: number;
  /** A line to boil down to, litres, and what it is called. */
  readonly mark?: { readonly litres: number; readonly name: string };
  /** No fuller than this share of its brim. */
  readonly fillShare?: number;
  readonly width?: number;
}

const cm = (mm: number): string => `${formatCount(mm / 10, mm < 100 ? 1 : 0)} cm`;

/** A pot or a tray from the side, to scale: what stands in it in centimetres, how full it may be, and the line to boil down to. */
export function PotDrawing({ shape, litres, mark, fillShare = 0.75, width = 220 }: Props) {
  const across = shape.kind === 'round' ? shape.diameterMm : Math.max(shape.lengthMm, shape.widthMm);
  const scale = Math.min((width - 64) / across, 150 / shape.heightMm);
  const w = across * scale;
  const h = shape.heightMm * scale;
  const left = 8;
  const top = 10;
  const level = levelOf(shape, litres);
  const y = (mm: number): number => top + h - Math.min(mm, shape.heightMm) * scale;
  const over = litres > brimOf(shape) * fillShare;
  const most = levelOf(shape, brimOf(shape) * fillShare);
  const said = `${cm(level)} deep, ${formatLitres(litres)} of ${formatLitres(brimOf(shape))}${
    mark === undefined ? '' : `; ${mark.name} at ${cm(levelOf(shape, mark.litres))}`
  }${over ? '; fuller than it should be' : ''}`;
  const step = shape.heightMm > 160 ? 50 : 20;
  return (
    <svg
      role="img"
      aria-label={said}
      width={width}
      height={h + 26}
      viewBox={`0 0 ${width} ${h + 26}`}
      className="max-w-full"
    >
      <rect
        x={left + 2}
        y={y(level)}
        width={w - 4}
        height={Math.max(0, top + h - y(level) - 2)}
        className={over ? 'fill-alarm' : 'fill-flow-soft'}
        opacity={over ? 0.35 : 1}
      />
      <path
        d={`M${left} ${top} V${top + h - 6} q0 6 6 6 H${left + w - 6} q6 0 6 -6 V${top}`}
        fill="none"
        strokeWidth="3"
        className="stroke-ink"
      />
      <line
        x1={left}
        x2={left + w}
        y1={y(most)}
        y2={y(most)}
        strokeDasharray="3 5"
        strokeWidth="1.5"
        className="stroke-ink-soft"
      />
      {Array.from({ length: Math.floor(shape.heightMm / step) }, (_, i) => (i + 1) * step).map((mm) => (
        <line
          key={mm}
          x1={left + w}
          x2={left + w + 5}
          y1={y(mm)}
          y2={y(mm)}
          strokeWidth="1.5"
          className="stroke-line-strong"
        />
      ))}
      <text x={left + w + 9} y={y(level) + 5} className="fill-ink font-head text-[15px] font-bold">
        {cm(level)}
      </text>
      {mark !== undefined && (
        <>
          <line
            x1={left - 4}
            x2={left + w + 5}
            y1={y(levelOf(shape, mark.litres))}
            y2={y(levelOf(shape, mark.litres))}
            strokeWidth="3"
            className="stroke-stock"
          />
          {Math.abs(y(levelOf(shape, mark.litres)) - y(level)) > 15 && (
            <text
              x={left + w + 9}
              y={y(levelOf(shape, mark.litres)) + 5}
              className="fill-stock font-head text-[15px] font-bold"
            >
              {cm(levelOf(shape, mark.litres))}
            </text>
          )}
        </>
      )}
    </svg>
  );
}
