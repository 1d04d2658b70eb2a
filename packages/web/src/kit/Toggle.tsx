import { Toggle as Pressed } from 'radix-ui';
import type { ComponentProps } from 'react';
import { HotkeyMark } from './Button.tsx';

interface Props extends Omit<ComponentProps<'button'>, 'onClick' | 'type'> {
  readonly on: boolean;
  readonly onPress: () => void;
  /** `part` of a bordered row of them; `line` of a list. */
  readonly shape?: 'plate' | 'pill' | 'part' | 'line';
  readonly size?: 'bench' | 'desk' | 'small';
  /** What it says when it is on: a good answer, a bad one, or neither. */
  readonly tone?: 'ink' | 'calm' | 'alarm';
  readonly hotkey?: string | undefined;
}

const shapes = {
  plate: 'rounded-plate border-[1.5px] border-line-strong bg-white font-head font-semibold hover:border-ink',
  pill: 'rounded-full border-[1.5px] border-line-strong bg-white hover:border-ink',
  part: 'border-r border-line last:border-r-0',
  line: 'w-full rounded-md text-left hover:bg-sheet',
} as const;

const sizes = {
  bench: 'min-h-14 px-4 text-[17px]',
  desk: 'min-h-11 px-3 text-[15px]',
  small: 'min-h-8 px-2 text-[13px]',
} as const;

const tones = {
  ink: 'aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-white',
  calm: 'aria-pressed:border-calm aria-pressed:bg-calm aria-pressed:text-white',
  alarm: 'aria-pressed:border-alarm aria-pressed:bg-alarm aria-pressed:text-white',
} as const;

/** What is on or off, alone or among others. Whether pressing one lets go of another is up to whoever holds them. */
export function Toggle({
  on,
  onPress,
  shape = 'plate',
  size = 'desk',
  tone = 'ink',
  hotkey,
  className = '',
  children,
  ...rest
}: Props) {
  return (
    <Pressed.Root
      pressed={on}
      onPressedChange={onPress}
      aria-keyshortcuts={hotkey}
      className={`${hotkey === undefined ? '' : 'inline-flex items-center justify-center gap-2.5'} disabled:text-ink-soft ${sizes[size]} ${shapes[shape]} ${tones[tone]} ${className}`}
      {...rest}
    >
      {children}
      {hotkey !== undefined && <HotkeyMark hotkey={hotkey} />}
    </Pressed.Root>
  );
}
