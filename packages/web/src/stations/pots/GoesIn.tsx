import { formatMass } from '@zabrik/core';
import { Link } from 'react-router';
import { Joins } from './Joins.tsx';
import type { AtStove } from './useStove.ts';

/** The lots that were promised to it, and what it takes besides. */
export function GoesIn({ stove, may }: { readonly stove: AtStove; readonly may: boolean }) {
  const { batch } = stove;
  const besides = batch.ingredients.filter((i) => i.massMg > i.fromLotsMg);
  return (
    <section className="rounded-plate border-[1.5px] border-line-strong bg-sheet p-3.5" aria-label="What goes in">
      <h3 className="mb-1 text-[15px] font-bold">{batch.state === 'done' ? 'What went in' : 'What goes in'}</h3>
      <ul className="divide-y divide-line">
        {batch.inputs.map((i) => (
          <li key={`${i.lotId}${i.as}`}>
            <Link to={`/larder/${i.lotId}`} className="flex min-h-11 items-center gap-3 hover:underline">
              <span className="min-w-0 flex-1 truncate">
                <span className="figure text-[14px]">{i.code}</span> {i.name}
              </span>
              <span className="figure">{formatMass(i.massMg)}</span>
            </Link>
          </li>
        ))}
        {besides.map((i) => (
          <li key={i.id} className="flex min-h-9 items-center gap-3">
            <span className="min-w-0 flex-1 truncate">{i.name}</span>
            <span className="figure">{formatMass(i.massMg - i.fromLotsMg)}</span>
          </li>
        ))}
      </ul>
      {may && <Joins stove={stove} />}
    </section>
  );
}
