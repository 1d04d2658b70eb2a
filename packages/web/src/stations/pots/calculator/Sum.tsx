import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly children: ReactNode;
  readonly answer: ReactNode;
  readonly says?: ReactNode;
  readonly chart?: ReactNode;
  /** The equation as one would write it on a napkin. */
  readonly equation: string;
  readonly source: string;
}

/** One sum by itself: what goes in, the answer large, a chart where it helps, and one touch away how it is worked out and from where. */
export function Sum({ title, children, answer, says, chart, equation, source }: Props) {
  return (
    <section aria-label={title} className="grid gap-4">
      <h2 className="text-2xl font-bold">{title}</h2>
      <div className="grid gap-5 lg:grid-cols-[minmax(0,380px)_minmax(0,1fr)]">
        <div className="grid content-start grid-cols-2 gap-3">{children}</div>
        <div className="grid content-start gap-3">
          <p className="figure text-5xl" data-testid="answer" aria-live="polite">
            {answer}
          </p>
          {says !== undefined && <div className="text-[17px]">{says}</div>}
          {chart}
          <Collapsible.Root>
            <Collapsible.Trigger className="group flex min-h-11 items-center gap-1.5 font-semibold">
              <ChevronRight size={18} className="group-data-[state=open]:rotate-90" aria-hidden="true" />
              How it is worked out
            </Collapsible.Trigger>
            <Collapsible.Content className="border-l-4 border-line pl-3">
              <p className="figure font-normal">{equation}</p>
              <p className="mt-1 text-[15px] text-ink-soft">{source}</p>
            </Collapsible.Content>
          </Collapsible.Root>
        </div>
      </div>
    </section>
  );
}
