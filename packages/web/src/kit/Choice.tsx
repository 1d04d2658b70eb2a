import { type ComponentProps, type ReactNode, useId } from 'react';

interface Props<V extends string> extends Omit<ComponentProps<'input'>, 'type' | 'value' | 'checked'> {
  readonly legend: string;
  /** Said, not shown: where what they are is plain to see. */
  readonly quiet?: boolean;
  readonly options: readonly { readonly value: V; readonly name: ReactNode }[];
  readonly value?: V | undefined;
  readonly onValue?: (value: V) => void;
  readonly round?: boolean;
  readonly error?: string | undefined;
}

/** One of a few, all of them in sight. Arrows go from one to the next; it takes what react-hook-form registers. */
export function Choice<V extends string>({
  legend,
  quiet = false,
  options,
  value,
  onValue,
  onChange,
  round = false,
  error,
  name,
  className = '',
  ...rest
}: Props<V>) {
  const own = useId();
  return (
    <fieldset className={`min-w-0 border-0 p-0 ${className}`}>
      <legend className={quiet ? 'sr-only' : 'mb-1 text-[15px] font-semibold'}>{legend}</legend>
      <div className="flex flex-wrap gap-2">
        {options.map((o) => (
          <label
            key={o.value}
            className={`flex min-h-11 cursor-pointer items-center border-[1.5px] border-line-strong bg-white px-3 has-checked:border-ink has-checked:bg-ink has-checked:text-white has-focus-visible:outline-3 has-focus-visible:outline-attention ${round ? 'rounded-full text-[15px]' : 'rounded-md'}`}
          >
            <input
              type="radio"
              className="sr-only"
              name={name ?? own}
              value={o.value}
              {...(onValue === undefined ? {} : { checked: o.value === value })}
              onChange={(event) => {
                onChange?.(event);
                onValue?.(o.value);
              }}
              {...rest}
            />
            {o.name}
          </label>
        ))}
      </div>
      {error !== undefined && <p className="mt-1 text-[14px] text-alarm">{error}</p>}
    </fieldset>
  );
}
