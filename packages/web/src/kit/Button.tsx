import type { ButtonHTMLAttributes } from 'react';

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly variant?: 'strong' | 'plain' | 'quiet' | 'alarm';
  /** At the bench a touch target is 56 px high; at the desk 40. */
  readonly size?: 'bench' | 'desk';
  readonly hotkey?: string | undefined;
}

const variants = {
  strong:
    'bg-ink text-white border-ink hover:bg-flow disabled:bg-line-strong disabled:border-line-strong disabled:text-white',
  plain: 'bg-white text-ink border-ink hover:bg-sheet-soft disabled:text-ink-soft disabled:border-line',
  quiet: 'bg-white text-ink border-line-strong hover:bg-sheet-soft disabled:text-ink-soft disabled:border-line',
  alarm: 'bg-white text-alarm border-alarm hover:bg-alarm-soft disabled:text-ink-soft disabled:border-line',
} as const;

/** The key that does the same. */
export const HotkeyMark = ({ hotkey }: { readonly hotkey: string }) => (
  <kbd className="rounded border border-current px-1.5 font-text text-[12px] leading-5 font-normal opacity-80">
    {hotkey}
  </kbd>
);

export function Button({
  variant = 'quiet',
  size = 'desk',
  hotkey,
  className = '',
  children,
  type = 'button',
  ...rest
}: ButtonProps) {
  return (
    <button
      type={type}
      aria-keyshortcuts={hotkey}
      className={`inline-flex items-center justify-center gap-2.5 rounded-plate border-[1.5px] font-head font-semibold whitespace-nowrap ${
        size === 'bench' ? 'min-h-14 px-5 text-[17px]' : 'min-h-10 px-4 text-[15px]'
      } ${variants[variant]} ${className}`}
      {...rest}
    >
      {children}
      {hotkey !== undefined && <HotkeyMark hotkey={hotkey} />}
    </button>
  );
}
