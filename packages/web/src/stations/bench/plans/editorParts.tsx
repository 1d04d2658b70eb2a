/** The small parts a plan is edited with. */

import type { ComponentProps } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';

interface Common<T> {
  readonly label: string;
  readonly value: T;
  readonly onValue: (value: T) => void;
  /** Of the label and the control together. */
  readonly className?: string;
}

export const TextBox = ({
  onValue,
  maxLength = 500,
  ...rest
}: Common<string> & { readonly maxLength?: number; readonly dense?: boolean }) => (
  <Field dense maxLength={maxLength} onChange={(e) => onValue(e.target.value)} {...rest} />
);

export const NumberBox = ({
  onValue,
  ...rest
}: Common<number> & Pick<ComponentProps<'input'>, 'min' | 'max' | 'step'>) => (
  <Field dense type="number" onChange={(e) => onValue(Number(e.target.value))} {...rest} />
);

/** A share typed as per cent. An empty field counts as next to nothing until something is typed. */
export function PerCent({ value, onValue, ...rest }: Common<number>) {
  return (
    <NumberBox
      min={0.01}
      max={99.9}
      step="any"
      className="w-20"
      value={Math.round(value * 10_000) / 100}
      onValue={(perCent) => onValue(Math.max(0.0001, Math.min(0.999, perCent / 100)))}
      {...rest}
    />
  );
}

/** Moves one of a list up or down, or takes it away. */
export function Order({
  index,
  count,
  name,
  onMove,
  onRemove,
}: {
  readonly index: number;
  readonly count: number;
  readonly name: string;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}) {
  return (
    <span className="flex gap-1">
      <Button className="size-10 px-0" aria-label={`${name} up`} disabled={index === 0} onClick={() => onMove(-1)}>
        ↑
      </Button>
      <Button
        className="size-10 px-0"
        aria-label={`${name} down`}
        disabled={index === count - 1}
        onClick={() => onMove(1)}
      >
        ↓
      </Button>
      <Button className="size-10 px-0" aria-label={`${name} away`} disabled={count === 1} onClick={onRemove}>
        ×
      </Button>
    </span>
  );
}

export function Chips<T extends string>({
  legend,
  all,
  chosen,
  nameOf,
  onToggle,
}: {
  readonly legend: string;
  readonly all: readonly T[];
  readonly chosen: readonly T[];
  readonly nameOf: (item: T) => string;
  readonly onToggle: (item: T) => void;
}) {
  return (
    <fieldset className="border-0 p-0">
      <legend className="text-[13px] text-ink-soft">{legend}</legend>
      <div className="mt-0.5 flex flex-wrap gap-1">
        {all.map((item) => {
          const on = chosen.includes(item);
          return (
            <Toggle key={item} on={on} size="small" onPress={() => onToggle(item)}>
              {nameOf(item)}
            </Toggle>
          );
        })}
      </div>
    </fieldset>
  );
}

export const toggled = <T,>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];
