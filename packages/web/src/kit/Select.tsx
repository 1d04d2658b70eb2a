import { type ReactNode, type SelectHTMLAttributes, useId } from 'react';
import { inputLook } from './Field.tsx';

export interface Option<V extends string> {
  readonly value: V;
  readonly name: string;
}

/** Options from a list of names by value. */
export const optionsOf = <V extends string>(names: Readonly<Record<V, string>>): Option<V>[] =>
  (Object.entries(names) as [V, string][]).map(([value, name]) => ({ value, name }));

/** Options of things that have an id and a name; none yet while they are read. */
export const named = <V extends string>(
  things: readonly { readonly id: V; readonly name: string }[] | undefined,
): Option<V>[] | undefined => things?.map(({ id, name }) => ({ value: id, name }));

interface Props<V extends string> extends Omit<SelectHTMLAttributes<HTMLSelectElement>, 'value' | 'children'> {
  /** Stands above it; without one it needs an aria-label, or a label around it. */
  readonly label?: ReactNode;
  /** None yet while they are read. */
  readonly options: readonly Option<V>[] | undefined;
  /** What stands there when nothing is chosen: its value is empty. */
  readonly none?: string;
  readonly value?: V;
  readonly onValue?: (value: V) => void;
  readonly error?: string | undefined;
  readonly big?: boolean;
  /** As wide as its words. */
  readonly fit?: boolean;
  /** Small, for long forms at a desk. */
  readonly dense?: boolean;
  /** The label stands beside it. */
  readonly beside?: boolean;
  readonly ref?: React.Ref<HTMLSelectElement>;
}

/** One of a list. The machine's own list opens: a wheel under a thumb, letters at a keyboard; it takes what react-hook-form registers. */
export function Select<V extends string>({
  label,
  options,
  none,
  onValue,
  onChange,
  error,
  big = false,
  fit = false,
  dense = false,
  beside = false,
  className = '',
  id: given,
  ...rest
}: Props<V>) {
  const own = useId();
  const id = given ?? own;
  const select = (
    <select
      // options that come after the value: it is set again where it is registered, or nothing would seem chosen
      key={options === undefined || options.length === 0 ? 'none yet' : 'there'}
      id={id}
      className={`${inputLook} font-normal ${big ? 'h-14' : dense ? 'h-10 py-1' : 'h-11'} ${fit ? 'w-auto! max-w-full' : ''} ${label === undefined ? className : ''}`}
      aria-invalid={error !== undefined}
      aria-describedby={error === undefined ? undefined : `${id}-error`}
      onChange={(event) => {
        onChange?.(event);
        onValue?.(event.target.value as V);
      }}
      {...rest}
    >
      {none !== undefined && <option value="">{none}</option>}
      {options?.map((o) => (
        <option key={o.value} value={o.value}>
          {o.name}
        </option>
      ))}
    </select>
  );
  if (label === undefined) return select;
  return (
    <div className={`min-w-0 ${beside ? 'flex items-center gap-2' : ''} ${className}`}>
      <label
        htmlFor={id}
        className={
          beside ? '' : dense ? 'mb-0.5 block text-[13px] text-ink-soft' : 'mb-1 block text-[15px] font-semibold'
        }
      >
        {label}
      </label>
      {select}
      {error !== undefined && (
        <p id={`${id}-error`} className="mt-1 text-[14px] text-alarm">
          {error}
        </p>
      )}
    </div>
  );
}
