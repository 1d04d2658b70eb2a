import type { ScaleReading } from '@zabrik/contract';
import { formatMass, massFigure, type PieceExpectation, unitsNow } from '@zabrik/core';

interface Props {
  readonly reading: ScaleReading;
  readonly expected: PieceExpectation | undefined;
  /** The rest of the pan that was already taken as a weight. */
  readonly takenAt: number | undefined;
  readonly large?: boolean;
  /** What the house calls the scale, where it has several. */
  readonly scaleName?: string | undefined;
}

const CX = 170;
const CY = 132;
const START = 200;
const SWEEP = 140;

const point = (degrees: number, rx: number, ry: number): string => {
  const radians = (degrees * Math.PI) / 180;
  return `${(CX + rx * Math.cos(radians)).toFixed(1)} ${(CY + ry * Math.sin(radians)).toFixed(1)}`;
};

const arc = (from: number, to: number, rx: number, ry: number): string =>
  `M ${point(from, rx, ry)} A ${rx} ${ry} 0 ${to - from > 180 ? 1 : 0} 1 ${point(to, rx, ry)}`;

const words = (reading: ScaleReading, taken: boolean): string => {
  switch (reading.state) {
    case 'away':
      return 'no scale: type the weight';
    case 'moving':
      return `${unitsNow().mass === 'metric' ? 'grams' : 'ounces'}, moving`;
    case 'over':
      return 'too heavy for this scale';
    case 'under':
      return 'below zero: clear the pan, set zero';
    case 'steady':
      return `${unitsNow().mass === 'metric' ? 'grams' : 'ounces'}, ${taken ? 'taken' : 'steady'}`;
  }
};

/** The scale's live figure in a plate. The rim shows where this piece usually falls and where it is now; dashed while it moves. */
export function Pan({ reading, expected, takenAt, large = false, scaleName }: Props) {
  const taken = reading.state === 'steady' && reading.settled === takenAt;
  const away = reading.state === 'away';
  const usual = expected !== undefined && expected.nextMg > 0 ? expected : undefined;
  const span = usual === undefined ? 0 : Math.max(usual.high95Mg - usual.low95Mg, usual.nextMg * 0.2);
  const low = usual === undefined ? 0 : usual.nextMg - span;
  const at = (massMg: number): number => START + SWEEP * Math.min(1, Math.max(0, (massMg - low) / (2 * span || 1)));
  const shown = away ? '–' : massFigure(reading.netMg);
  return (
    <div
      className="grid min-h-[92px] w-full max-md:min-h-[230px] min-w-0 flex-1 place-items-center [container-type:size]"
      data-testid="pan"
      data-state={reading.state}
      data-settled={reading.settled}
    >
      {/* as large as the height that is left allows: what is above it comes and goes, the button below it stays */}
      <div
        className={`relative ${large ? 'w-[min(480px,128cqh)]' : 'w-[min(296px,128cqh)]'} [container-type:inline-size]`}
      >
        <svg viewBox="0 0 340 262" className="block w-full" aria-hidden="true">
          <ellipse cx={CX} cy={CY + 5} rx="166" ry="124" fill="rgb(20 33 31 / .14)" />
          <ellipse
            cx={CX}
            cy={CY}
            rx="166"
            ry="124"
            fill={away ? 'var(--color-sheet-soft)' : 'var(--color-sheet)'}
            stroke="var(--color-ink)"
            strokeWidth="2.5"
            strokeDasharray={reading.state === 'steady' ? undefined : '9 7'}
          />
          {usual !== undefined && (
            <>
              <path d={arc(START, START + SWEEP, 150, 109)} fill="none" stroke="var(--color-ground)" strokeWidth="13" />
              <path
                d={arc(at(usual.low80Mg), at(usual.high80Mg), 150, 109)}
                fill="none"
                stroke="var(--color-portion)"
                strokeWidth="13"
              />
              {!away && reading.netMg > usual.nextMg * 0.05 && (
                <line
                  x1={point(at(reading.netMg), 138, 98).split(' ')[0]}
                  y1={point(at(reading.netMg), 138, 98).split(' ')[1]}
                  x2={point(at(reading.netMg), 163, 121).split(' ')[0]}
                  y2={point(at(reading.netMg), 163, 121).split(' ')[1]}
                  stroke="var(--color-ink)"
                  strokeWidth="7"
                />
              )}
            </>
          )}
        </svg>
        <div className="absolute inset-0 flex flex-col items-center justify-center pt-3 text-center">
          <output
            className={`figure leading-none tracking-tight ${shown.length > 5 ? 'text-[20cqw]' : shown.length > 4 ? 'text-[25cqw]' : 'text-[31cqw]'}`}
            aria-live="off"
          >
            {shown}
          </output>
          <span className="mt-1 text-[max(13px,5.7cqw)] text-ink-soft">{words(reading, taken)}</span>
          <span className="h-5 max-w-[70cqw] truncate text-sm text-ink-soft">
            {reading.tareMg > 0 && !away ? `tray tared off, ${formatMass(reading.tareMg)}` : scaleName}
          </span>
        </div>
      </div>
    </div>
  );
}
