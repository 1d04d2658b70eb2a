/** A list of the house's things on a form: each a row with its fields, one taken out by its button, another added under it. */
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../../kit/Button.tsx';

interface ListProps {
  readonly title: string;
  readonly says: string;
  readonly more: string;
  /** Left out where nothing may be added. */
  readonly onMore?: (() => void) | undefined;
  readonly children: ReactNode;
}

export const List = ({ title, says, more, onMore, children }: ListProps) => (
  <section aria-label={title} className="grid content-start gap-3">
    <div>
      <h2 className="text-lg font-bold">{title}</h2>
      <p className="text-[15px] text-ink-soft">{says}</p>
    </div>
    <ul className="grid gap-2">{children}</ul>
    {onMore !== undefined && (
      <Button className="h-11 justify-self-start" onClick={onMore}>
        {more}
      </Button>
    )}
  </section>
);

export const Row = ({
  name,
  onAway,
  children,
}: {
  readonly name: string;
  /** Left out where nothing may be taken away. */
  readonly onAway?: (() => void) | undefined;
  readonly children: ReactNode;
}) => (
  <li className="flex items-start gap-2 rounded-plate border border-line bg-white p-3">
    <div className="flex min-w-0 flex-1 flex-wrap items-start gap-2">{children}</div>
    {onAway !== undefined && (
      <Button
        className="mt-[22px] size-10 shrink-0 px-0!"
        aria-label={`Without ${name === '' ? 'the new one' : name}`}
        onClick={onAway}
      >
        <Trash2 size={18} aria-hidden="true" />
      </Button>
    )}
  </li>
);
