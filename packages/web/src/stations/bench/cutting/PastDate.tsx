import { Link } from 'react-router';
import { dayName, dueWords } from '../../../app/dates.ts';
import { Button } from '../../../kit/Button.tsx';
import type { Begin } from './useBegin.ts';

/** Asks before something past its date comes under the knife. */
export function PastDate({ asks }: { readonly asks: Begin }) {
  if (asks.late === undefined) return null;
  const [first] = asks.late.lots;
  return (
    <section
      role="alert"
      aria-label="Past its date"
      className="sticky top-2 z-10 mb-4 rounded-plate border-2 border-ink bg-attention p-3"
    >
      {asks.late.lots.map((l) => (
        <p key={l.id} className="font-head text-[17px] leading-tight font-bold">
          {l.name} {l.code}: use by {l.useBy === null ? '' : dayName(l.useBy)}, {dueWords(l.useBy).text}.
        </p>
      ))}
      <p className="mt-1 text-[15px]">
        Cutting does not make it good. It is thrown away with the reason, unless a chef can show why the date was wrong.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button size="bench" variant="strong" onClick={asks.leave}>
          Leave it
        </Button>
        <Link className="grid min-h-14 items-center px-2 font-semibold underline" to={`/larder/${first?.id ?? ''}`}>
          Open it in the larder
        </Link>
        <Button size="bench" variant="plain" onClick={asks.goOn}>
          Cut it all the same
        </Button>
      </div>
    </section>
  );
}
