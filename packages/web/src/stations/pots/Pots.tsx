import { useQuery } from '@tanstack/react-query';
import { formatMass, refusalOf, type Use } from '@zabrik/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useCatalogue } from '../../app/queries.ts';
import { clothOf } from '../../parts/destinations.ts';
import { Empty, Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { SimulatedPan } from '../bench/SimulatedPan.tsx';

import { Batch } from './Batch.tsx';
import { offerOf } from './offers.ts';
import { Runs } from './Runs.tsx';

const clothOfKind = { stock: clothOf.stock, filling: clothOf.filling, 'staff-dish': clothOf.staff } as const;

function UseCard({
  use,
  on,
  offered,
  onPick,
}: {
  readonly use: Use;
  readonly on: boolean;
  readonly offered: number;
  readonly onPick: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onPick}
      className={`flex min-h-16 w-full overflow-hidden rounded-plate border-[1.5px] bg-white text-left ${on ? 'border-ink outline-3 outline-ink' : 'border-line-strong hover:border-ink'}`}
    >
      <span className={`w-2.5 shrink-0 ${clothOfKind[use.kind]}`} aria-hidden="true" />
      <span className="px-3 py-2">
        <span className="block font-head text-[17px] leading-tight font-semibold">{use.title}</span>
        <span className="text-[14px] text-ink-soft">
          {offered > 0 ? `${formatMass(offered)} lies ready` : 'nothing ready for it'} · {use.minutes.typical} min
        </span>
      </span>
    </button>
  );
}

export default function Pots() {
  const catalogue = useCatalogue();
  const [params] = useSearchParams();
  const [useId, setUseId] = useState<string | undefined>(params.get('use') ?? undefined);
  const lots = useQuery({
    queryKey: ['lots', 'pieces'],
    queryFn: async () => {
      const [tubs, pieces] = await Promise.all([
        call(api.larder.list, { query: { kind: 'tub', limit: 50 } }),
        call(api.larder.list, { query: { kind: 'piece', limit: 200 } }),
      ]);
      return { lots: [...tubs.lots, ...pieces.lots].filter((lot) => lot.held === null) };
    },
  });
  if (catalogue.isPending || lots.isPending) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  if (lots.isLoadingError) return <Failed error={lots.error} again={() => void lots.refetch()} />;
  const uses = catalogue.data.uses;
  const use = uses.find((u) => u.id === useId) ?? uses[0];
  const ready = (u: Use): number =>
    lots.data.lots
      .filter(
        (lot) =>
          lot.category !== null &&
          lot.destination !== null &&
          lot.destination !== 'portion' &&
          u.trays.includes(lot.destination) &&
          refusalOf(u, offerOf(lot)) === undefined,
      )
      .reduce((sum, lot) => sum + lot.massMg, 0);
  return (
    <div className="grid flex-1 content-start lg:grid-cols-[1fr_380px] lg:content-stretch">
      <section className="grid content-start gap-4 bg-ground p-5" aria-label="Make a batch">
        <h1 className="sr-only">Pots</h1>
        <ul className="grid grid-cols-3 gap-4">
          {uses.map((u) => (
            <li key={u.id}>
              <UseCard use={u} on={u.id === use?.id} offered={ready(u)} onPick={() => setUseId(u.id)} />
            </li>
          ))}
        </ul>
        {use === undefined ? (
          <Empty title="No uses in the catalogue">Uses turn bones and trim into batches.</Empty>
        ) : (
          <Batch key={use.id} use={use} lots={lots.data.lots} />
        )}
        <Notice tone="attention">
          Cool at once and log it. Limits, times and who may decide come from your local code and your own plan.
        </Notice>
      </section>
      <aside className="border-l border-line bg-sheet p-4" aria-label="Batches">
        <Runs catalogue={catalogue.data} />
        <div className="mt-4">
          <SimulatedPan />
        </div>
      </aside>
    </div>
  );
}
