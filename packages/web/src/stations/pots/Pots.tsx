import type { ListedUse } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { RadioGroup, Tabs } from 'radix-ui';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { SearchBox } from '../../kit/SearchBox.tsx';
import { clothOf } from '../../parts/destinations.ts';
import { Batch } from './Batch.tsx';
import { HowMade } from './HowMade.tsx';
import { byKind, kindWords, readyFor } from './offers.ts';
import { PotsHead } from './PotsHead.tsx';
import { useLotsForPots, useUses } from './potQueries.ts';
import { UseFiles } from './UseFiles.tsx';

const clothOfKind = {
  stock: clothOf.stock,
  'pan-sauce': clothOf.stock,
  reduction: clothOf.larder,
  liquor: clothOf.larder,
  filling: clothOf.filling,
  rendering: clothOf.fat,
  preserve: clothOf.larder,
  garnish: clothOf.garnish,
  'staff-dish': clothOf.staff,
} as const;

interface ListProps {
  readonly uses: readonly ListedUse[];
  readonly ready: ReadonlyMap<string, number>;
  readonly on: string | undefined;
  readonly onPick: (id: string) => void;
}

/** Every use by its kind; first what something lies ready for. */
function UseList({ uses, ready, on, onPick }: ListProps) {
  const [search, setSearch] = useState('');
  const words = search.trim().toLowerCase();
  const found = uses.filter((u) => u.use.title.toLowerCase().includes(words));
  const lying = found
    .filter((u) => (ready.get(u.use.id) ?? 0) > 0)
    .sort((a, b) => (ready.get(b.use.id) ?? 0) - (ready.get(a.use.id) ?? 0));
  const item = (u: ListedUse) => (
    <li key={u.use.id}>
      <RadioGroup.Item
        value={u.use.id}
        className="flex min-h-12 w-full overflow-hidden rounded-md border-[1.5px] border-line-strong bg-white text-left hover:border-ink data-[state=checked]:border-ink data-[state=checked]:outline-2 data-[state=checked]:outline-ink"
      >
        <span className={`w-2 shrink-0 ${clothOfKind[u.use.kind]}`} aria-hidden="true" />
        <span className="min-w-0 px-2.5 py-1.5 leading-tight">
          <span className="block truncate font-head text-[16px] font-semibold">
            {u.use.title}
            {u.own && <span className="ml-1.5 text-[12px] font-normal text-ink-soft">own</span>}
          </span>
          {(ready.get(u.use.id) ?? 0) > 0 && (
            <span className="block text-[13px] text-ink-soft">{formatMass(ready.get(u.use.id) ?? 0)} lies ready</span>
          )}
        </span>
      </RadioGroup.Item>
    </li>
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-4">
      <SearchBox label="Search what can be made" placeholder="what can be made" value={search} onValue={setSearch} />
      <RadioGroup.Root
        className="grid grid-cols-[minmax(0,1fr)] gap-4"
        aria-label="What can be made"
        value={on ?? null}
        onValueChange={onPick}
      >
        {lying.length > 0 && (
          <section aria-label="From what lies ready">
            <h2 className="mb-1.5 text-[14px] font-bold text-ink-soft">From what lies ready</h2>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-1.5">{lying.map(item)}</ul>
          </section>
        )}
        {byKind(found.filter((u) => !lying.includes(u))).map(([kind, mine]) => (
          <section key={kind} aria-label={kindWords(kind)}>
            <h2 className="mb-1.5 text-[14px] font-bold text-ink-soft">{kindWords(kind)}</h2>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-1.5">{mine.map(item)}</ul>
          </section>
        ))}
      </RadioGroup.Root>
      {found.length === 0 && <p className="text-ink-soft">Nothing by that name.</p>}
    </div>
  );
}

const tabLook =
  'min-h-11 border-b-[3px] border-transparent px-3 font-head text-[16px] font-semibold text-ink-soft data-[state=active]:border-ink data-[state=active]:text-ink';

/** What can be made from what there is: every use, scaled to the lots that lie ready or to what is wanted. */
export default function Pots() {
  const uses = useUses();
  const lots = useLotsForPots();
  const { data: house } = useHouse();
  const { data: catalogue } = useCatalogue();
  const mayEdit = useMay('pots.saveUse');
  const [params, setParams] = useSearchParams();
  if (uses.isPending || lots.isPending) return <Loading />;
  if (uses.isLoadingError) return <Failed error={uses.error} again={() => void uses.refetch()} />;
  if (lots.isLoadingError) return <Failed error={lots.error} again={() => void lots.refetch()} />;
  const kept = uses.data.uses.filter((u) => !u.retired);
  const ready = new Map(kept.map((u) => [u.use.id, readyFor(u.use, lots.data.lots, catalogue?.species ?? [])]));
  const asked = params.get('use');
  const most = [...kept].sort((a, b) => (ready.get(b.use.id) ?? 0) - (ready.get(a.use.id) ?? 0))[0];
  const listed = kept.find((u) => u.use.id === asked) ?? most;
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead>{mayEdit && <UseFiles />}</PotsHead>
      <div className="grid flex-1 content-start lg:grid-cols-[264px_1fr] lg:content-stretch">
        <aside
          className="max-h-[calc(100dvh-104px)] overflow-y-auto border-r border-line bg-sheet-soft p-3.5 max-lg:max-h-72"
          aria-label="What can be made"
        >
          <UseList
            uses={kept}
            ready={ready}
            on={listed?.use.id}
            onPick={(id) => setParams({ use: id }, { replace: true })}
          />
        </aside>
        {listed === undefined ? (
          <Empty title="Nothing can be made">Uses turn bones and trim into batches.</Empty>
        ) : (
          <Tabs.Root key={listed.use.id} defaultValue="scale" className="min-w-0 p-4">
            <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line">
              <h2 className="text-2xl font-bold">{listed.use.title}</h2>
              <Tabs.List aria-label={listed.use.title} className="flex">
                <Tabs.Trigger value="scale" className={tabLook}>
                  Scale
                </Tabs.Trigger>
                <Tabs.Trigger value="how" className={tabLook}>
                  How it is made
                </Tabs.Trigger>
              </Tabs.List>
              {mayEdit && (
                <Link className="ml-auto text-[15px] font-semibold underline" to={`/pots/uses/${listed.use.id}`}>
                  {listed.own ? 'Change our version' : 'Make it our own'}
                </Link>
              )}
            </div>
            <Tabs.Content value="scale">
              <Batch listed={listed} lots={lots.data.lots} all={lots.data.all} house={house} />
            </Tabs.Content>
            <Tabs.Content value="how">
              <HowMade listed={listed} ways={[]} />
            </Tabs.Content>
          </Tabs.Root>
        )}
      </div>
    </div>
  );
}
