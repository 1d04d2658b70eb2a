import { parseMass, readDecimal } from '@zabrik/core';
import { useEffect, useRef, useState } from 'react';
import { Field } from './Field.tsx';

interface Props {
  readonly label: string;
  readonly unit?: string;
  readonly value: number | null;
  readonly onValue: (value: number) => void;
  readonly min?: number;
  readonly max?: number;
  readonly decimals?: number;
  readonly hint?: string;
  readonly className?: string;
  /** Told when the field is left or Enter is pressed: for what is written down, not for every digit. */
  readonly late?: boolean;
  /** Empty is a value too (none). */
  readonly onNone?: () => void;
}

/** A figure as typed. Where grams or kilograms are asked for, a mass with its own unit is one too: 8 oz, 1.2 kg. */
function readIn(unit: string | undefined, text: string): number {
  const number = readDecimal(text);
  if (Number.isFinite(number) || (unit !== 'g' && unit !== 'kg') || !/[a-z]/i.test(text)) return number;
  try {
    return parseMass(text) / (unit === 'kg' ? 1e6 : 1e3);
  } catch {
    return Number.NaN;
  }
}

const written = (value: number | null, decimals: number): string =>
  value === null ? '' : String(Number(value.toFixed(decimals)));

/** A number with its unit, told on as soon as it is one within bounds, or when the field is left. Comma or point. */
export function NumField({
  label,
  unit,
  value,
  onValue,
  min = 0,
  max = 100_000,
  decimals = 1,
  hint,
  className,
  onNone,
  late = false,
}: Props) {
  const [text, setText] = useState(written(value, decimals));
  const editing = useRef(false);
  useEffect(() => {
    if (!editing.current) setText(written(value, decimals));
  }, [value, decimals]);
  const number = readIn(unit, text);
  const fine = (n: number): boolean => Number.isFinite(n) && n >= min && n <= max;
  const none = text.trim() === '' && onNone !== undefined;
  const tell = (written: string): void => {
    const next = readIn(unit, written);
    if (fine(next)) onValue(next);
    else if (written.trim() === '') onNone?.();
  };
  const leave = (): void => {
    if (late && text !== written(value, decimals)) tell(text);
    if (!fine(number) && !none) setText(written(value, decimals));
  };
  return (
    <Field
      label={label}
      {...(unit === undefined ? {} : { unit })}
      {...(className === undefined ? {} : { className })}
      inputMode="decimal"
      value={text}
      error={
        fine(number) || none
          ? undefined
          : `${String(min).replace('-', '−')} to ${max}${unit === undefined ? '' : ` ${unit}`}`
      }
      hint={hint}
      onFocus={(event) => {
        editing.current = true;
        event.target.select();
      }}
      onBlur={() => {
        editing.current = false;
        leave();
      }}
      onKeyDown={(event) => {
        if (late && event.key === 'Enter') leave();
      }}
      onChange={(event) => {
        setText(event.target.value);
        if (!late) tell(event.target.value);
      }}
    />
  );
}
