interface Props {
  /** The range that is usual, wanted or allowed, and what is there; none yet, where nothing is. */
  readonly low: number;
  readonly high: number;
  readonly value: number | undefined;
  /** The ends of the ruler. */
  readonly from: number;
  readonly to: number;
  readonly tone?: keyof typeof tones;
  /** What is there is not as it should be. */
  readonly wrong?: boolean;
  readonly height?: 'thin' | 'line' | 'bar';
}

const tones = { wanted: 'bg-portion/40', calm: 'border-x-2 border-ink bg-calm-soft' } as const;
const heights = { thin: 'h-3', line: 'h-4', bar: 'h-5' } as const;

/** A value on a small ruler: the range as a band, this one as a mark, at the end where it lies beyond. The figures stand beside it in words; this is for the eye. */
export function RangeBar({ low, high, value, from, to, tone = 'wanted', wrong = false, height = 'line' }: Props) {
  const at = (v: number): string => `${Math.min(100, Math.max(0, ((v - from) / (to - from)) * 100))}%`;
  return (
    <span className={`relative block w-full rounded-sm bg-ground-deep ${heights[height]}`} aria-hidden="true">
      <span
        className={`absolute inset-y-0 rounded-sm ${tones[tone]}`}
        style={{ left: at(low), right: `calc(100% - ${at(high)})` }}
      />
      {value !== undefined && (
        <span
          className={`absolute -inset-y-0.5 w-[5px] -translate-x-1/2 rounded-sm ${wrong ? 'bg-alarm' : 'bg-ink'}`}
          style={{ left: at(value) }}
        />
      )}
    </span>
  );
}
