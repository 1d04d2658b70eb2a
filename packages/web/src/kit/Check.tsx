import { type ComponentProps, type ReactNode, useId } from 'react';

interface Props extends Omit<ComponentProps<'input'>, 'type' | 'children'> {
  /** What is said yes to; without one it needs an aria-label. */
  readonly label?: ReactNode;
  readonly labelClass?: string;
}

/** A tick. All of its label is touched. */
export function Check({ label, labelClass = 'min-h-11', className = '', id: given, ...rest }: Props) {
  const own = useId();
  const id = given ?? own;
  const box = <input type="checkbox" id={id} className={`size-5 shrink-0 accent-flow ${className}`} {...rest} />;
  if (label === undefined) return box;
  return (
    <label htmlFor={id} className={`flex cursor-pointer items-center gap-2.5 ${labelClass}`}>
      {box}
      {label}
    </label>
  );
}
