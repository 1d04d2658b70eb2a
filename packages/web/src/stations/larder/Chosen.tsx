import type { Lot } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Select } from '../../kit/Select.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { PrintLabels } from './PrintLabels.tsx';

const tubForm = z.object({ recipeId: z.string(), name: z.string().trim() });

/** What can be done with several lots at once: put together, start a tub, print labels. */
export function Chosen({ lots, clear }: { readonly lots: readonly Lot[]; readonly clear: () => void }) {
  const navigate = useNavigate();
  const { data: catalogue } = useCatalogue();
  const { data: house } = useHouse();
  const [doing, setDoing] = useState<'tub' | 'labels' | undefined>(undefined);
  const recipes = (catalogue?.tubPurposes ?? []).filter((u) => lots.every((l) => u.accepts.includes(l.category ?? '')));
  const form = useKeptForm('tub', tubForm, { recipeId: '', name: '' });
  const { typed, setValue } = form;
  const recipe = recipes.find((u) => u.id === typed.recipeId) ?? recipes[0];
  const coldRoom = house?.places.find((p) => p.kind === 'cold-room') ?? house?.places[0];
  const freezer = house?.places.find((p) => p.kind === 'freezer');
  const frozen = lots.some((l) => l.state === 'frozen');
  const all = `${lots.length} lots, ${formatMass(lots.reduce((sum, l) => sum + l.massMg, 0))},`;
  const merge = useCommand(api.larder.merge, {
    spoken: () => ({ says: `${all} put together` }),
    onDone: ({ lotId }) => {
      clear();
      void navigate(`/larder/${lotId}`);
    },
    onKept: clear,
  });
  const tub = useCommand(api.larder.startTub, {
    spoken: ({ body }) => ({ says: `${body.name}, a tub of ${all}` }),
    onDone: () => {
      form.clear();
      clear();
      void navigate('/larder/tubs');
    },
    onKept: () => {
      form.clear();
      clear();
    },
  });
  const putTogether = (confirmed: boolean): void => merge.send({ body: { lotIds: lots.map((l) => l.id), confirmed } });
  const startTub = (name: string, confirmed: boolean): void =>
    tub.send({
      body: {
        recipeId: recipe?.id ?? '',
        name: name === '' ? `Tub for ${recipe?.title.toLowerCase() ?? 'stock'}` : name,
        placeId: (frozen ? freezer : coldRoom)?.id ?? '',
        from: lots.map((l) => ({ lotId: l.id, massMg: null })),
        confirmed,
      },
    });
  return (
    <section className="border-t-2 border-ink bg-sheet-soft px-4 py-3" aria-label="Chosen lots">
      <div className="flex flex-wrap items-center gap-2">
        <strong className="mr-2">
          {lots.length} {lots.length === 1 ? 'lot' : 'lots'}, {formatMass(lots.reduce((sum, l) => sum + l.massMg, 0))}
        </strong>
        <Button variant="plain" disabled={lots.length < 2 || merge.pending} onClick={() => putTogether(false)}>
          Put together
        </Button>
        <Button
          variant="plain"
          disabled={recipe === undefined}
          onClick={() => setDoing(doing === 'tub' ? undefined : 'tub')}
        >
          Start a tub
        </Button>
        <Button variant="plain" onClick={() => setDoing(doing === 'labels' ? undefined : 'labels')}>
          Print labels
        </Button>
        <Button className="ml-auto" onClick={clear}>
          Choose none
        </Button>
      </div>
      {doing === 'tub' && recipe !== undefined && (
        <form
          className="mt-3 flex flex-wrap items-center gap-2"
          onSubmit={(event) => void form.handleSubmit(({ name }) => startTub(name, false))(event)}
        >
          <Select
            label="collects for"
            beside
            fit
            value={recipe.id}
            onValue={(id) => setValue('recipeId', id)}
            options={recipes.map((u) => ({ value: u.id, name: u.title }))}
          />
          <Field
            aria-label="Name of the tub"
            placeholder={`Tub for ${recipe.title.toLowerCase()}`}
            className="w-64!"
            maxLength={120}
            {...form.register('name')}
          />
          <Button type="submit" variant="strong" disabled={tub.pending}>
            Into the tub
          </Button>
        </form>
      )}
      {doing === 'labels' && <PrintLabels lots={lots} />}
      <Confirm error={merge.error} onConfirm={() => putTogether(true)} />
      <Confirm error={tub.error} onConfirm={() => startTub(typed.name.trim(), true)} />
    </section>
  );
}
