import { useQuery } from '@tanstack/react-query';
import type { Tub } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { dayName, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { WaitsHereOf } from '../../parts/WaitsHere.tsx';
import { LarderHead } from './LarderHead.tsx';
import { tubsQuery } from './reads.ts';

/** Shades of one cloth, so that the kinds in a tub stay apart in grey as well. */
const shades = ['opacity-100', 'opacity-75', 'opacity-55', 'opacity-40'] as const;

function TubCard({ tub }: { readonly tub: Tub }) {
  const may = useMay('larder.fill');
  const { data: house } = useHouse();
  const [picked, setPicked] = useState<readonly string[]>([]);
  const filling = useCommand(api.larder.fill, {
    spoken: ({ body }) => ({ says: `${body.from.length} into ${tub.name}` }),
    onDone: () => setPicked([]),
    onKept: () => setPicked([]),
  });
  const fill = (confirmed: boolean): void =>
    filling.send({
      params: { lotId: tub.id },
      body: { from: picked.map((lotId) => ({ lotId, massMg: null })), confirmed },
    });
  const full = Math.max(tub.enoughMg, tub.massMg);
  const due = dueWords(tub.useBy);
  return (
    <article
      className={`rounded-plate border-2 bg-sheet p-4 ${tub.due ? 'border-attention' : 'border-line-strong'}`}
      aria-label={tub.name}
    >
      <header className="flex items-start justify-between gap-3">
        <div className="min-w-0">
          <h2 className="text-xl leading-tight font-bold break-words">{tub.name}</h2>
          <p className="text-ink-soft">
            <Link to={`/larder/${tub.id}`} className="figure underline">
              {tub.code}
            </Link>{' '}
            · {house?.places.find((p) => p.id === tub.placeId)?.name ?? tub.placeId}
            {tub.state !== 'fresh' && `, ${tub.state}`} · for {tub.recipeTitle.toLowerCase()}
          </p>
        </div>
        <p className="text-right leading-tight">
          <span className="figure block text-3xl">{formatMass(tub.massMg)}</span>
          <span className={due.tone === 'late' || due.tone === 'now' ? 'font-semibold text-alarm' : 'text-ink-soft'}>
            {due.text}
            {tub.useBy !== null && due.text !== dayName(tub.useBy) && `, ${dayName(tub.useBy)}`}
          </span>
        </p>
      </header>
      <div
        className="relative mt-3 flex h-9 overflow-hidden rounded-[5px] border border-ink bg-sheet"
        aria-hidden="true"
      >
        {tub.contents.map((c, i) => (
          <span
            key={c.category}
            className={`cloth-stock h-full border-r border-ink ${shades[Math.min(i, shades.length - 1)]}`}
            style={{ width: `${(c.massMg / full) * 100}%` }}
          />
        ))}
        <span className="cloth-open h-full flex-1" />
        {tub.massMg < tub.enoughMg * 1.02 ? null : (
          <span className="absolute inset-y-0 w-0.5 bg-attention" style={{ left: `${(tub.enoughMg / full) * 100}%` }} />
        )}
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-5 text-[15px]">
        {tub.contents.map((c) => (
          <li key={c.category}>
            {c.label} <span className="figure">{formatMass(c.massMg)}</span>
          </li>
        ))}
      </ul>
      <div className="mt-2">
        {tub.due ? (
          <Notice tone="attention">
            <strong>Enough for a pot.</strong>{' '}
            {`${formatMass(tub.usableMg)} goes into ${tub.recipeTitle.toLowerCase()}; half of your smallest pot takes ${formatMass(tub.enoughMg)}.`}{' '}
            <Link className="font-semibold underline" to={`/pots?recipe=${tub.tubRecipe}&lot=${tub.id}`}>
              Plan it
            </Link>
          </Notice>
        ) : (
          <p className="text-ink-soft">
            {formatMass(Math.max(0, tub.enoughMg - tub.usableMg))} more and there is enough for{' '}
            {tub.recipeTitle.toLowerCase()}
            {tub.usableMg < tub.massMg - 1_000 && `, of which it takes ${formatMass(tub.usableMg)} of these`}.
          </p>
        )}
      </div>
      {may && tub.offers.length > 0 && (
        <fieldset className="mt-3 min-w-0 border-0 p-0">
          <legend className="mb-1 text-[15px] font-semibold">Could go in now</legend>
          <div className="flex flex-wrap gap-2">
            {tub.offers.map((o) => (
              <Check
                key={o.id}
                labelClass="min-h-11 cursor-pointer items-center gap-2 rounded-md border-[1.5px] border-line-strong bg-white px-3 has-checked:border-ink has-checked:bg-calm-soft has-focus-visible:outline-3 has-focus-visible:outline-attention"
                checked={picked.includes(o.id)}
                onChange={() =>
                  setPicked((before) =>
                    before.includes(o.id) ? before.filter((id) => id !== o.id) : [...before, o.id],
                  )
                }
                label={
                  <span>
                    <span className="figure text-[14px]">{o.code}</span> {o.name}{' '}
                    <span className="figure">{formatMass(o.massMg)}</span>
                  </span>
                }
              />
            ))}
          </div>
          <Button
            variant="strong"
            className="mt-2"
            disabled={picked.length === 0 || filling.pending}
            onClick={() => fill(false)}
          >
            Put {picked.length === 0 ? 'them' : picked.length} in
          </Button>
          <Confirm error={filling.error} onConfirm={() => fill(true)} />
        </fieldset>
      )}
    </article>
  );
}

/** The collecting tubs: what is in each, until when, and whether a pot is due. */
export default function Tubs() {
  const tubs = useQuery(tubsQuery);
  return (
    <section aria-label="Collecting tubs" className="flex-1 bg-ground">
      <LarderHead />
      <WaitsHereOf ids={[api.larder.startTub.id, api.larder.fill.id]} className="mb-3" />
      {tubs.isPending ? (
        <Loading />
      ) : tubs.isLoadingError ? (
        <Failed error={tubs.error} again={() => void tubs.refetch()} />
      ) : tubs.data.tubs.length === 0 ? (
        <Empty title="No tub is collecting">
          Bones, herb stems, vegetable trim and fat come together here until there is enough for a pot.{' '}
          <Link className="underline" to="/larder?tray=stock">
            Choose lots in the larder
          </Link>{' '}
          and start one.
        </Empty>
      ) : (
        <div className="grid items-start gap-4 p-4 lg:grid-cols-2">
          {tubs.data.tubs.map((tub) => (
            <TubCard key={tub.id} tub={tub} />
          ))}
        </div>
      )}
    </section>
  );
}
