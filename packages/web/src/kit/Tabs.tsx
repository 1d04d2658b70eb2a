import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props<V extends string> {
  /** What the tabs are of, for those who hear it. */
  readonly label: string;
  readonly tabs: readonly { readonly value: V; readonly name: ReactNode; readonly hotkey?: string }[];
  /** They share the width of a column; else each is as wide as its name. */
  readonly column?: boolean;
  readonly className?: string;
}

const looks = {
  column:
    'min-h-11 flex-1 px-1 whitespace-nowrap data-[state=active]:bg-sheet data-[state=active]:shadow-[inset_0_-3px_0_var(--color-ink)]',
  row: 'min-h-11 border-b-[3px] border-transparent px-3 data-[state=active]:border-ink',
} as const;

/** One of a few views of a place: what they are in, their row, and each of them. Arrows go from one to the next. */
export const Tabs = Radix.Root;
export const TabPanel = Radix.Content;

export function TabList<V extends string>({ label, tabs, column = false, className = '' }: Props<V>) {
  return (
    <Radix.List className={`flex ${column ? 'border-b border-line' : ''} ${className}`} aria-label={label}>
      {tabs.map((t) => (
        <Radix.Trigger
          key={t.value}
          value={t.value}
          aria-keyshortcuts={t.hotkey}
          className={`font-head text-[15px] font-semibold text-ink-soft data-[state=active]:text-ink ${column ? looks.column : looks.row}`}
        >
          {t.name}
        </Radix.Trigger>
      ))}
    </Radix.List>
  );
}
