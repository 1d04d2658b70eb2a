import { useEffect, useRef, useState } from 'react';
import { Field } from '../../../parts/Field.tsx';

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
  /** Empty is a value too (none). */
  readonly onNone?: () => void;
}

const written = (value: number | null, decimals: number): string =>
  value === null ? '' : String(Number(value.toFixed(decimals)));

/** A number with its unit, told on as soon as it is one within bounds. Comma or point. */
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
}: Props) {
  const [text, setText] = useState(written(value, decimals));
  const editing = useRef(false);
  useEffect(() => {
    if (!editing.current) setText(written(value, decimals));
  }, [value, decimals]);
  const number = text.trim() === '' ? Number.NaN : Number(text.trim().replace(',', '.'));
  const fine = (n: number): boolean => Number.isFinite(n) && n >= min && n <= max;
  const none = text.trim() === '' && onNone !== undefined;
  return (
    <Field
      label={label}
      {...(unit === undefined ? {} : { unit })}
      {...(className === undefined ? {} : { className })}
      inputMode="decimal"
      value={text}
      error={fine(number) || none ? undefined : `${min} to ${max}${unit === undefined ? '' : ` ${unit}`}`}
      hint={hint}
      onFocus={(event) => {
        editing.current = true;
        event.target.select();
      }}
      onBlur={() => {
        editing.current = false;
        if (!fine(number) && !none) setText(written(value, decimals));
      }}
      onChange={(event) => {
        setText(event.target.value);
        const next =
          event.target.value.trim() === '' ? Number.NaN : Number(event.target.value.trim().replace(',', '.'));
        if (fine(next)) onValue(next);
        else if (event.target.value.trim() === '') onNone?.();
      }}
    />
  );
}
