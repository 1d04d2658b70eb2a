import { useQueryClient } from '@tanstack/react-query';
import type { PlanListed } from '@zabrik/contract';
import type { CutPlan } from '@zabrik/core';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useCommand } from '../../../app/command.ts';
import { hasDraft } from '../../../app/draft.ts';
import { api } from '../../../app/endpoints.ts';
import { useCatalogue, useMay, useMe } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../../kit/Notice.tsx';
import { BodyMap } from '../../../parts/BodyMap.tsx';
import { NEW_SPECIES, NewSpecies } from './NewSpecies.tsx';

const nothing = new Set<string>();

/** Reads a plan from a JSON file the way one was exported; the server judges what is in it. */
async function planFrom(file: File): Promise<CutPlan> {
  if (file.size > 2_000_000) throw new Error('A cut plan is never that large. Is this the right file?');
  let read: unknown;
  try {
    read = JSON.parse(await file.text());
  } catch {
    throw new Error('This file is not JSON.');
  }
  if (typeof read !== 'object' || read === null || !('stages' in read) || !('id' in read))
    throw new Error('This JSON is not a cut plan: it has no stages.');
  return read as CutPlan;
}

function Import() {
  const field = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const client = useQueryClient();
  const bring = useCommand(api.bench.savePlan, {
    onDone: async ({ plan }) => {
      await client.invalidateQueries({ queryKey: ['catalogue'] });
      void navigate(`/bench/plans/${plan.id}`);
    },
  });
  return (
    <>
      <input
        ref={field}
        type="file"
        accept="application/json,.json"
        className="sr-only"
        aria-label="Cut plan file"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file !== undefined) bring.send(planFrom(file).then((plan) => ({ body: { plan, basedOn: 0 } })));
          event.target.value = '';
        }}
      />
      <Button disabled={bring.pending} onClick={() => field.current?.click()}>
        Bring in a plan file
      </Button>
      {bring.error !== null && (
        <div className="basis-full">
          <Notice tone="alarm">{bring.error.message}</Notice>
        </div>
      )}
    </>
  );
}

function PlanCard({ plan, names }: { readonly plan: PlanListed; readonly names: ReadonlyMap<string, string> }) {
  return (
    <Link
      to={`/bench/plans/${plan.id}`}
      className={`grid h-full grid-cols-[112px_1fr] items-center gap-3 rounded-plate border-[1.5px] border-line-strong bg-white p-3 hover:border-ink ${plan.retired ? 'opacity-60' : ''}`}
    >
      <BodyMap body={plan.body} lit={nothing} className="w-28" />
      <span className="min-w-0">
        <span className="block font-head text-[17px] leading-tight font-semibold">{plan.title}</span>
        <span className="block truncate text-[14px] text-ink-soft">
          {[...new Set(plan.starts.map((s) => names.get(s.species) ?? s.species))].join(', ')}
        </span>
        <span className="block text-[14px] text-ink-soft">
          {plan.stages.length === 1 ? 'one stage' : `${plan.stages.length} stages`}
          {plan.own && ` · your own, version ${plan.version}`}
          {plan.retired && ' · retired'}
        </span>
      </span>
    </Link>
  );
}

/** Every cut plan of the house: the handbook's, and what the house has made of them. */
export default function Plans() {
  const catalogue = useCatalogue();
  const may = useMay('bench.savePlan');
  const [search, setSearch] = useState('');
  const { data: me } = useMe();
  const [adding, setAdding] = useState(() => hasDraft(me?.person.id, NEW_SPECIES));
  if (catalogue.isPending) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  const names = new Map(catalogue.data.species.map((s) => [s.id, s.name]));
  const words = search.trim().toLowerCase();
  const found = catalogue.data.plans.filter((p) =>
    `${p.title} ${p.starts.map((s) => names.get(s.species)).join(' ')} ${p.own ? 'own' : ''}`
      .toLowerCase()
      .includes(words),
  );
  return (
    <section className="flex-1 bg-sheet p-5" aria-label="Cut plans">
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <h1 className="text-2xl font-bold">Cut plans</h1>
        <p className="text-ink-soft">
          {found.length} of {catalogue.data.plans.length}
        </p>
        <div className="ml-auto w-64">
          <Field
            type="search"
            aria-label="Search plans"
            placeholder="plan or animal"
            dense
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        {may && (
          <>
            <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
              Add a species
            </Button>
            <Import />
          </>
        )}
      </div>
      {adding && <NewSpecies done={() => setAdding(false)} />}
      {found.length === 0 ? (
        <Empty title="No such plan">Another word may find it. A plan can be made by copying one that is near.</Empty>
      ) : (
        <ul className="grid grid-cols-3 gap-3 max-[1100px]:grid-cols-2 max-sm:grid-cols-[minmax(0,1fr)]">
          {found.map((plan) => (
            <li key={plan.id}>
              <PlanCard plan={plan} names={names} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
