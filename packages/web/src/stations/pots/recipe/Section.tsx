import type { ReactNode } from 'react';

/** A part of the editor under its own name. */
export function Section({
  name,
  says,
  children,
}: {
  readonly name: string;
  readonly says?: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={name} className="min-w-0 border-t border-line pt-3">
      <h3 className="text-lg font-bold">{name}</h3>
      {says !== undefined && <p className="mb-2 max-w-prose text-[14px] text-ink-soft">{says}</p>}
      <div className="mt-2 grid gap-3">{children}</div>
    </section>
  );
}
