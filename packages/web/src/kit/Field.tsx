import { type InputHTMLAttributes, type ReactNode, useId } from 'react';

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string;
  readonly unit?: string;
  readonly error?: string | undefined;
  readonly hint?: ReactNode;
  readonly action?: ReactNode;
  readonly big?: boolean;
}

export const inputLook =
  'w-full rounded-md border-[1.5px] border-line-strong bg-white px-3 py-2 aria-invalid:border-alarm';

/** A labelled input with its unit, a hint, and the refusal under it in words. */
export function Field({ label, unit, error, hint, action, big = false, className = '', ...rest }: Props) {
  const id = useId();
  const describes = error !== undefined ? `${id}-error` : hint !== undefined ? `${id}-hint` : undefined;
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[15px] font-semibold">
        {label}
      </label>
      <div className="flex items-stretch gap-2">
        <div className="relative min-w-0 flex-1">
          <input
            id={id}
            className={`${inputLook} ${big ? 'figure h-14 text-2xl' : 'h-11'} ${unit === undefined ? '' : 'pr-12'}`}
            aria-invalid={error !== undefined}
            aria-describedby={describes}
            autoComplete="off"
            {...rest}
          />
          {unit !== undefined && (
            <span className="pointer-events-none absolute inset-y-0 right-3 flex items-center text-ink-soft">
              {unit}
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
