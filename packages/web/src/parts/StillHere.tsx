import { dayAndTime } from '../app/dates.ts';
import type { Draft } from '../app/draft.ts';

/** Says that a form stands as it was left, and gives the way to begin anew. */
export function StillHere({
  draft,
  className = '',
}: {
  readonly draft: Pick<Draft<unknown>, 'typedAt' | 'clear'>;
  readonly className?: string;
}) {
  if (draft.typedAt === undefined) return null;
  return (
    <p className={`text-[15px] text-ink-soft ${className}`} data-testid="still-here">
      Still here from {dayAndTime(new Date(draft.typedAt).toISOString())}.{' '}
      <button type="button" className="min-h-9 font-semibold underline" onClick={draft.clear}>
        Begin anew
      </button>
    </p>
  );
}
