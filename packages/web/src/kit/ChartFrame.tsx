import type { ReactNode } from 'react';

interface Props {
  /** What the drawing shows, for who does not see it. */
  readonly label: string;
  /** What it says, in a sentence under it. */
  readonly sentence?: ReactNode;
  /** Its figures, for who wants them one by one. */
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly height: number;
  readonly children: ReactNode;
}

/** Two columns may be called alike, and two rows may say the same: each is known by where it stands. */
const placed = <T,>(items: readonly T[]): readonly { readonly item: T; readonly at: number }[] =>
  items.map((item, at) => ({ item, at }));

/** A chart with the sentence that it says, and its figures as a table one touch away. */
export function ChartFrame({ label, sentence, columns, rows, height, children }: Props) {
  return (
    <figure className="m-0" aria-label={label}>
      <div role="img" aria-label={label} style={{ height }}>
        {children}
      </div>
      {sentence !== undefined && <figcaption className="text-[14px] text-ink-soft">{sentence}</figcaption>}
      <details className="no-print text-[14px]">
        <summary className="min-h-8 w-fit cursor-pointer text-ink-soft underline">The figures</summary>
        <div className="max-h-64 overflow-auto">
          <table className="w-full max-w-xl text-left">
            <thead>
              <tr className="border-b border-ink">
                {placed(columns).map(({ item, at }) => (
                  <th key={at} scope="col" className={`py-1 pr-3 ${at > 0 ? 'text-right' : ''}`}>
                    {item}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {placed(rows).map((row) => (
                <tr key={row.at} className="border-b border-line">
                  {placed(row.item).map(({ item, at }) => (
                    <td key={at} className={`py-0.5 pr-3 ${at > 0 ? 'figure text-right' : ''}`}>
                      {item}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}
