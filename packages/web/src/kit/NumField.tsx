import { fromHouse, parseMass, parseTemperature, readDecimal, toHouse, unitName, unitsNow } from '@zabrik/core';
import { useEffect, useRef, useState } from 'react';
import { Field } from './Field.tsx';

interface Props {
  readonly label: string;
  readonly unit?: string;
  /** In the unit that is named, as are its bounds; shown and read in the house's. */
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

/** A figure as typed, in the unit that is named. Where a mass or a temperature is asked for, one with its own unit is one too: 8 oz, 1.2 kg, 145 F. */
function readIn(unit: string | undefined, text: string): number {
  const number = readDecimal(text);
  if (Number.isFinite(number)) return unit === undefined ? number : fromHouse(unit, number);
  if (!/[a-z]/i.test(text)) return number;
  try {
    if (unit === 'g' || unit === 'kg') return parseMass(text) / (unit === 'kg' ? 1e6 : 1e3);
    if (unit === '°C') return parseTemperature(text) / 100;
  } catch {
    // said under the field
  }
  return Number.NaN;
}

/** Decimals of a field in the house's unit: an ounce is twenty-eight grams, and wants one more. */
const decimalsIn = (unit: string | undefined, decimals: number): number =>
  unit === undefined || unitName(unit) === unit ? decimals : unit === '°C' ? Math.max(1, decimals) : decimals + 2;

const written = (unit: string | undefined, value: number | null, decimals: number): string => {
  if (value === null) return '';
  const shown = Number((unit === undefined ? value : toHouse(unit, value)).toFixed(decimalsIn(unit, decimals)));
  return unitsNow().decimal === 'comma' ? String(shown).replace('.', ',') : String(shown);
};

const bound = (unit: string | undefined, value: number, decimals: number): string =>
  written(unit, value, decimals).replace('-', '−');

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
  const [text, setText] = useState(written(unit, value, decimals));
  const editing = useRef(false);
  useEffect(() => {
    if (!editing.current) setText(written(unit, value, decimals));
  }, [unit, value, decimals]);
  const number = readIn(unit, text);
  // a bound shown in another unit is rounded: it can be typed as it is shown
  const slack = unit === undefined || unitName(unit) === unit ? 0 : 0.002 * (Math.abs(max) + Math.abs(min));
  const fine = (n: number): boolean =>
    Number.isFinite(n) && n >= min - Math.min(slack, 0.1) && n <= max + Math.min(slack, 0.1);
  const none = text.trim() === '' && onNone !== undefined;
  const tell = (written: string): void => {
    const next = readIn(unit, written);
    if (fine(next)) onValue(next);
    else if (written.trim() === '') onNone?.();
  };
  const leave = (): void => {
    if (late && text !== written(unit, value, decimals)) tell(text);
    if (!fine(number) && !none) setText(written(unit, value, decimals));
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
          : `${bound(unit, min, decimals)} to ${bound(unit, max, decimals)}${unit === undefined ? '' : ` ${unitName(unit)}`}`
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
