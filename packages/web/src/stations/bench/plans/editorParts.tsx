/** The small parts a plan is edited with. */

import { type ComponentProps, type ReactNode, useId } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { inputLook } from '../../../kit/Field.tsx';

const small = `${inputLook} h-10 py-1`;

/** A small label over its control, which gets the id it is named by. */
function Labelled({
  label,
  className = '',
  children,
}: {
  readonly label: string;
  readonly className?: string | undefined;
  readonly children: (id: string) => ReactNode;
}) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-0.5 block text-[13px] text-ink-soft">
        {label}
      </label>
      {children(id)}
    </div>
  );
}

interface Common<T> {
  readonly label: string;
  readonly value: T;
  readonly onValue: (value: T) => void;
  /** Of the label and the control together. */
  readonly className?: string;
}

export function TextBox({
  label,
  value,
  onValue,
  className,
  inputClass = '',
  maxLength = 500,
}: Common<string> & { readonly inputClass?: string; readonly maxLength?: number }) {
  return (
    <Labelled label={label} className={className}>
      {(id) => (
        <input
          id={id}
          className={`${small} ${inputClass}`}
          value={value}
          maxLength={maxLength}
          onChange={(e) => onValue(e.target.value)}
        />
      )}
    </Labelled>
  );
}

export function NumberBox({
  label,
  value,
  onValue,
  className,
  ...limits
}: Common<number> & Pick<ComponentProps<'input'>, 'min' | 'max' | 'step'>) {
  return (
    <Labelled label={label} className={className}>
      {(id) => (
        <input
          id={id}
          className={`${small} text-right`}
          type="number"
          value={value}
          onChange={(e) => onValue(Number(e.target.value))}
          {...limits}
        />
      )}
    </Labelled>
  );
}

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
            <button
              key={item}
              type="button"
              aria-pressed={on}
              onClick={() => onToggle(item)}
              className={`min-h-8 rounded-md border px-2 text-[13px] ${on ? 'border-ink bg-ink text-white' : 'border-line-strong bg-white'}`}
            >
              {nameOf(item)}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

export const toggled = <T,>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];
