import { Printer } from 'lucide-react';
import type { ReactNode } from 'react';

interface Props {
  /** Under /api/v1, with its query. */
  readonly to: string;
  readonly children?: ReactNode;
}

/** A whole list as a sheet on A4, in a window of its own: printed from there. */
export const PaperLink = ({ to, children = 'Print' }: Props) => (
  <a
    href={`/api/v1${to}`}
    target="_blank"
    rel="noreferrer"
    className="no-print inline-flex min-h-11 items-center gap-2 rounded-plate border-[1.5px] border-line-strong bg-white px-4 font-head text-[15px] font-semibold hover:border-ink"
  >
    <Printer size={18} aria-hidden="true" />
    {children}
  </a>
);
