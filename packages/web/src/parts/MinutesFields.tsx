import { formatMass, type MinutesRange, type MinutesUpTo } from '@zabrik/core';
import { Trash2 } from 'lucide-react';
import { Button } from '../kit/Button.tsx';
import { NumField } from '../kit/NumField.tsx';
import { useRows } from './useRows.ts';

const parts = ['low', 'typical', 'high'] as const;
const partWords = { low: 'from', typical: 'minutes', high: 'to' } as const;

interface RangeProps {
  readonly minutes: MinutesRange | undefined;
  readonly onMinutes: (minutes: MinutesRange | undefined) => void;
}

/** How long a step takes: from, usual, to. What is typed moves the others along, so that they follow each other. */
export function MinutesFields({ minutes, onMinutes }: RangeProps) {
  return (
    <>
      {parts.map((part) => (
        <NumField
          key={part}
          label={partWords[part]}
          unit="min"
          decimals={2}
          value={minutes?.[part] ?? null}
          min={0.1}
          max={10_000}
          onNone={() => onMinutes(undefined)}
          onValue={(value) => {
            const now = minutes ?? { low: value, typical: value, high: value };
            onMinutes({ ...now, [part]: value });
          }}
        />
      ))}
    </>
  );
}

interface SizeProps {
  readonly bySize: readonly MinutesUpTo[] | undefined;
  /** What a first row begins with. */
  readonly minutes: MinutesRange | undefined;
  readonly onSizes: (bySize: readonly MinutesUpTo[] | undefined) => void;
}

/** The same by the mass of one piece, where that is what decides. */
export function SizeFields({ bySize = [], minutes, onSizes }: SizeProps) {
  const { rows, change, leaveOut, add } = useRows<MinutesUpTo>(bySize, (next) =>
    onSizes(next.length === 0 ? undefined : next),
  );
  return (
    <div className="grid gap-2">
      {rows.map(({ row, i, id }) => (
        <div key={id} className="grid grid-cols-[repeat(4,104px)_auto] items-end gap-2 max-md:grid-cols-2">
          <NumField
            label="a piece up to"
            unit="g"
            value={row.upToG}
            min={1}
            max={1_000_000}
            decimals={0}
            onValue={(upToG) => change(i, { ...row, upToG })}
          />
          <MinutesFields
            minutes={row.minutes}
            onMinutes={(next) => next !== undefined && change(i, { ...row, minutes: next })}
          />
          <Button
            className="h-11"
            aria-label={`Not up to ${formatMass(row.upToG * 1_000)}`}
            onClick={() => leaveOut(i)}
          >
            <Trash2 size={18} aria-hidden="true" />
          </Button>
        </div>
      ))}
      {minutes !== undefined && bySize.length < 8 && (
        <Button
          className="justify-self-start"
          onClick={() => {
            const last = bySize.at(-1);
            add({ upToG: (last?.upToG ?? 400) * (last === undefined ? 1 : 2), minutes: last?.minutes ?? minutes });
          }}
        >
          {bySize.length === 0 ? 'By the size of a piece' : 'Up to a larger size'}
        </Button>
      )}
    </div>
  );
}
