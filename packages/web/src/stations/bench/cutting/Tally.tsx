import { type CutWeight, cuttingLines, formatMass, givenAway, offSize, type PortionSize } from '@zabrik/core';
import { clothOf, trayName } from '../../../parts/destinations.ts';

interface Props {
  readonly weights: readonly CutWeight[];
  readonly sizes: readonly PortionSize[];
  readonly unsent: ReadonlySet<string>;
  readonly right: string | undefined;
  readonly onPick: (id: string | undefined) => void;
  readonly startMg: number;
  readonly weighedMg: number;
  /** What is counted. */
  readonly made?: string;
}

const signed = (mg: number): string => {
  const g = Math.round(mg / 1_000);
  return g === 0 ? '±0' : g > 0 ? `+${g}` : `−${-g}`;
};

/** What lies on the trays so far: every weight against its size, the count, and what was given away. */
export function Tally({ weights, sizes, unsent, right, onPick, startMg, weighedMg, made = 'portions' }: Props) {
  const lines = cuttingLines(weights);
  const portions = weights.filter((w) => (sizes.length === 0 ? w.line !== 'end' : sizes.some((s) => s.id === w.line)));
  const inside = portions.filter((w) => offSize(w, sizes) === undefined);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <dl className="grid grid-cols-3 gap-2 border-b border-line px-3 py-2 text-center" data-testid="tally">
        <div>
          <dd className="figure text-2xl">{portions.reduce((sum, w) => sum + w.count, 0)}</dd>
          <dt className="text-[13px] text-ink-soft">{made}</dt>
        </div>
        {sizes.length === 0 ? (
          <div className="col-span-2">
            <dd className="figure text-2xl">{formatMass(weighedMg)}</dd>
            <dt className="text-[13px] text-ink-soft">weighed</dt>
          </div>
        ) : (
          <>
            <div>
              <dd className="figure text-2xl">{portions.length === 0 ? '–' : `${inside.length}/${portions.length}`}</dd>
              <dt className="text-[13px] text-ink-soft">in tolerance</dt>
            </div>
            <div>
              <dd className="figure text-2xl">{formatMass(givenAway(weights, sizes))}</dd>
              <dt className="text-[13px] text-ink-soft">given away</dt>
            </div>
          </>
        )}
      </dl>
      <ol className="min-h-0 flex-1 overflow-y-auto px-2 py-1.5" aria-label="Weighed">
        {weights.length === 0 && (
          <li className="px-2 py-6 text-center text-ink-soft">
            Every weight stands here, with what it is over or under.
          </li>
        )}
        {[...weights].reverse().map((w) => {
          const size = sizes.find((s) => s.id === w.line);
          const off = offSize(w, sizes);
          return (
            <li key={w.id}>
              <button
                type="button"
                aria-pressed={right === w.id}
                onClick={() => onPick(right === w.id ? undefined : w.id)}
                className={`grid min-h-12 w-full grid-cols-[18px_1fr_auto_52px] items-center gap-2 rounded-md border px-2 text-left ${right === w.id ? 'border-ink bg-[#fff7e0]' : 'border-transparent hover:bg-sheet'}`}
              >
                <span className={`size-4 rounded-[3px] ${clothOf[w.destination]}`} aria-hidden="true" />
                <span className="min-w-0 leading-tight">
                  <span className="block truncate text-[15px]">{w.name}</span>
                  <span
                    className={`block truncate text-[13px] ${off === undefined ? 'text-ink-soft' : 'font-semibold text-alarm'}`}
                  >
                    {off === 'light'
                      ? 'too light'
                      : off === 'heavy'
                        ? 'too heavy'
                        : trayName(w.destination).toLowerCase()}
                    {w.count > 1 && `, ${w.count} together`}
                    {unsent.has(w.id) && ', on this device'}
                  </span>
                </span>
                <span className="figure text-[19px]">{formatMass(w.massMg)}</span>
                <span className={`figure text-right text-[15px] ${off === undefined ? 'text-ink-soft' : 'text-alarm'}`}>
                  {size === undefined ? '' : signed(w.massMg - size.targetMg * w.count)}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      <ul className="border-t border-line px-3 py-2 text-[14px]" aria-label="Trays">
        {lines.map((l) => (
          <li key={`${l.line}/${l.destination}`} className="flex items-center gap-2 leading-6">
            <span className={`size-3.5 shrink-0 rounded-[3px] ${clothOf[l.destination]}`} aria-hidden="true" />
            <span className="min-w-0 flex-1 truncate">
              {l.count} × {l.name}
            </span>
            <span className="figure">{formatMass(l.massMg)}</span>
          </li>
        ))}
        <li className="flex justify-between text-ink-soft">
          <span>{weighedMg <= startMg ? 'still on the board' : 'more than was there'}</span>
          <span className="figure">{formatMass(Math.abs(startMg - weighedMg))}</span>
        </li>
      </ul>
    </div>
  );
}
