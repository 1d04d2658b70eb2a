import { unitName } from '@zabrik/core';
import { type ComponentProps, type ReactNode, useId } from 'react';

export interface FieldProps extends ComponentProps<'input'> {
  /** Stands above it; without one it needs an aria-label, or a label around it. */
  readonly label?: string;
  /** g, kg, l, ml and °C are called what the house calls them. */
  readonly unit?: string;
  readonly error?: string | undefined;
  readonly hint?: ReactNode;
  readonly action?: ReactNode;
  readonly big?: boolean;
  /** Small, for long forms at a desk. */
  readonly dense?: boolean;
}

export const inputLook =
  'w-full rounded-md border-[1.5px] border-line-strong bg-white px-3 py-2 aria-invalid:border-alarm';

/** An input with its label, its unit, a hint, and the refusal under it in words. It takes what react-hook-form registers. */
export function Field({
  label,
  unit,
  error,
  hint,
  action,
  big = false,
  dense = false,
  className = '',
  id: given,
  ...rest
}: FieldProps) {
  const own = useId();
  const id = given ?? own;
  const describes = error !== undefined ? `${id}-error` : hint !== undefined ? `${id}-hint` : undefined;
  const input = (
    <input
      id={id}
      className={`${inputLook} ${big ? 'figure h-14 text-2xl' : dense ? 'h-10 py-1' : 'h-11'} ${unit === undefined ? '' : 'pr-12'} ${label === undefined ? className : ''}`}
      aria-invalid={error !== undefined}
      aria-describedby={label === undefined ? undefined : describes}
      autoComplete="off"
      {...rest}
    />
  );
  if (label === undefined) return input;
  return (
    <div className={className}>
      <label
        htmlFor={id}
        className={dense ? 'mb-0.5 block text-[13px] text-ink-soft' : 'mb-1 block text-[15px] font-semibold'}
      >
        {label}
      </label>
      <div className="flex items-stretch gap-2">
        <div className="relative min-w-0 flex-1">
          {input}
          {unit !== undefined && (
            <span className="pointer-events-none absolute inset-y-0 right-3 flex items-center text-ink-soft">
              {unitName(unit)}
            </span>
          )}
        </div>
        {action}
      </div>
      {error !== undefined ? (
        <p id={`${id}-error`} className="mt-1 text-[14px] text-alarm">
          {error}
        </p>
      ) : (
        hint !== undefined && (
          <p id={`${id}-hint`} className="mt-1 text-[14px] text-ink-soft">
            {hint}
          </p>
        )
      )}
    </div>
  );
}
