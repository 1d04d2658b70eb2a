import { Popover as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  /** What is touched to open it: a button. */
  readonly trigger: ReactNode;
  readonly children: ReactNode;
  /** Names what opens, where its words do not. */
  readonly label?: string;
}

/** Something small beside what was touched: it closes by a touch elsewhere or Escape, and gives the focus back. */
export const Popover = ({ trigger, children, label }: Props) => (
  <Radix.Root>
    <Radix.Trigger asChild>{trigger}</Radix.Trigger>
    <Radix.Portal>
      <Radix.Content
        aria-label={label}
        sideOffset={6}
        collisionPadding={12}
        className="z-30 max-w-[min(340px,calc(100vw-24px))] rounded-plate border-[1.5px] border-ink bg-white p-3.5 text-[15px] leading-snug shadow-[0_6px_24px_rgb(0_0_0/.18)] outline-none"
      >
        {children}
        <Radix.Arrow className="fill-ink" />
      </Radix.Content>
    </Radix.Portal>
  </Radix.Root>
);

interface HintProps {
  /** What it is about, for those who hear it. */
  readonly label: string;
  /** The mark that is touched. */
  readonly mark?: string;
  readonly tone?: 'quiet' | 'alarm';
  readonly children: ReactNode;
}

/** A mark that says more when it is touched, by finger, mouse or key: nothing here is said to a hovering mouse alone. */
export const Hint = ({ label, mark = '?', tone = 'quiet', children }: HintProps) => (
  <Popover
    label={label}
    trigger={
      <button
        type="button"
        aria-label={label}
        className={`relative inline-grid size-6 shrink-0 place-items-center rounded-full border-[1.5px] text-[14px] leading-none font-bold before:absolute before:-inset-2.5 ${tone === 'alarm' ? 'border-alarm text-alarm' : 'border-line-strong text-ink-soft'}`}
      >
        {mark}
      </button>
    }
  >
    {children}
  </Popover>
);
