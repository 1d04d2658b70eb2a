import { type Destination, formatMass } from '@zabrik/core';
import { clothOf, trayShort } from './destinations.ts';

export interface RibbonPart {
  readonly id: string;
  readonly name: string;
  readonly destination: Destination | 'whole';
  readonly massMg: number;
  /** Still on the pan: drawn half-toned. */
  readonly onPan?: boolean;
  readonly selected?: boolean;
}

export interface RibbonBracket {
  readonly fromShare: number;
  readonly toShare: number;
  readonly says: string;
}

interface Props {
  readonly totalMg: number;
  readonly parts: readonly RibbonPart[];
  readonly openName?: string;
  readonly bracket?: RibbonBracket | undefined;
  readonly onPick?: (id: string) => void;
}

const percent = (share: number): string => `${Math.max(0, share * 100)}%`;

interface SegmentProps {
  readonly part: RibbonPart;
  readonly width: string;
  readonly onPick: ((id: string) => void) | undefined;
}

function Segment({ part, width, onPick }: SegmentProps) {
  const tray = part.destination === 'whole' ? '' : `, ${trayShort(part.destination)}`;
  const says = `${part.name}, ${formatMass(part.massMg)}${tray}`;
  const onPan = part.onPan === true;
  const look = `@container relative h-full min-w-0 overflow-hidden border-r border-ink text-left ${clothOf[part.destination]} ${part.selected === true ? 'outline-3 -outline-offset-3 outline-attention' : ''}`;
  const shadow = onPan ? 'text-ink' : '[text-shadow:0_0_3px_rgb(0_0_0/.35)]';
  const inner = (
    <>
      {onPan && <span className="absolute inset-0 bg-sheet/75" aria-hidden="true" />}
      <span className={`relative hidden p-2 @min-[64px]:block ${shadow}`}>
        <span className="figure block truncate text-[15px] leading-tight">{formatMass(part.massMg)}</span>
        <span className="block truncate text-[13px] leading-tight">{part.name}</span>
      </span>
    </>
  );
  if (onPick === undefined || onPan)
    return (
      <div className={look} style={{ width }} title={says}>
        {inner}
      </div>
    );
  return (
    <button
      type="button"
      className={`ribbon-part ${look}`}
      style={{ width }}
      title={says}
      aria-label={says}
      onClick={() => onPick(part.id)}
    >
      {inner}
    </button>
  );
}

/** Mass as length: each piece takes the length of its grams, what is not weighed yet is hatched, what is expected stands under it. */
export function Ribbon({ totalMg, parts, openName, bracket, onPick }: Props) {
  const weighed = parts.reduce((sum, part) => sum + part.massMg, 0);
  const full = Math.max(totalMg, weighed, 1);
  const open = totalMg - weighed;
  return (
    <figure className="m-0" aria-label={`${formatMass(weighed)} of ${formatMass(totalMg)} weighed`}>
      <div className="flex h-15 overflow-hidden rounded-[5px] border border-ink bg-sheet">
        {parts.map((part) => (
          <Segment key={part.id} part={part} width={percent(part.massMg / full)} onPick={onPick} />
        ))}
        {open > 0 && (
          <div className={`@container min-w-0 flex-1 overflow-hidden ${clothOf.open}`}>
            <span className="hidden p-2 @min-[90px]:block">
              <span className="figure inline-block bg-sheet pr-1 text-[15px] leading-tight">
                {formatMass(open)} left
              </span>
              {openName !== undefined && (
                <span className="block truncate text-[13px] leading-tight text-ink-soft">{openName}</span>
              )}
            </span>
          </div>
        )}
      </div>
      {bracket !== undefined && (
        <div className="relative mt-1 h-6">
          <div
            className="absolute top-0 h-1.5 rounded-b-sm border-x-2 border-b-2 border-calm"
            style={{
              left: percent(bracket.fromShare),
              width: percent(Math.min(1, bracket.toShare) - bracket.fromShare),
            }}
          />
          <figcaption
            className="absolute top-1.5 text-[13px] whitespace-nowrap text-calm max-sm:right-auto! max-sm:left-0!"
            style={
              bracket.fromShare > 0.5
                ? { right: percent(1 - Math.min(1, bracket.toShare)) }
                : { left: percent(bracket.fromShare) }
            }
          >
            {bracket.says}
          </figcaption>
        </div>
      )}
    </figure>
  );
}

/** The same ribbon, small, wherever a lot or a yield is spoken of. */
export function MiniRibbon({
  totalMg,
  parts,
  scaleMg,
}: {
  readonly totalMg: number;
  readonly parts: readonly RibbonPart[];
  readonly scaleMg?: number;
}) {
  const full = Math.max(scaleMg ?? totalMg, 1);
  const weighed = parts.reduce((sum, part) => sum + part.massMg, 0);
  return (
    <div className="h-4 w-full" aria-hidden="true">
      <div
        className="flex h-full overflow-hidden rounded-[3px] border border-line-strong"
        style={{ width: percent(Math.max(0.012, totalMg / full)) }}
      >
        {parts.map((part) => (
          <div
            key={part.id}
            className={`h-full ${clothOf[part.destination]}`}
            style={{ width: percent(part.massMg / Math.max(totalMg, weighed, 1)) }}
          />
        ))}
        {totalMg > weighed && <div className={`h-full flex-1 ${clothOf.open}`} />}
      </div>
    </div>
  );
}
