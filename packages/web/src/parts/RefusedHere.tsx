import { Link } from 'react-router';
import { dismiss, type Waiting } from '../app/outbox.ts';
import { Notice } from '../kit/Notice.tsx';

/** What the server, or this device, would not take of what was said here: each stays until someone sends it again or lets it go. */
export function RefusedHere({
  refused,
  className,
}: {
  readonly refused: readonly Waiting[];
  readonly className: string;
}) {
  if (refused.length === 0) return null;
  return (
    <div className={`grid gap-2 bg-sheet p-3 ${className}`}>
      {refused.map((w) => (
        <Notice key={w.key} tone="alarm">
          <strong>{w.says}</strong> {w.onDisk === false ? 'is not kept' : 'was refused by the server'}: {w.refused}{' '}
          {w.onDisk === false ? (
            <button type="button" className="font-semibold underline" onClick={() => void dismiss(w.key)}>
              I have read it
            </button>
          ) : (
            <Link to="/waiting" className="font-semibold underline">
              Send it again, or let it go
            </Link>
          )}
        </Notice>
      ))}
    </div>
  );
}
