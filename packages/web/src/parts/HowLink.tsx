import { Link } from 'react-router';

/** From a figure to the page that says how it is made. */
export const HowLink = ({ to, of }: { readonly to: string; readonly of: string }) => (
  <Link
    className="no-print py-2 text-[14px] text-ink-soft underline"
    to={`/help/figures#${to}`}
    aria-label={`How ${of} is made`}
  >
    how it is made
  </Link>
);
