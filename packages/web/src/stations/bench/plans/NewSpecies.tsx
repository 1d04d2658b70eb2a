import { useQueryClient } from '@tanstack/react-query';
import { formsHistamine } from '@zabrik/core';
import { z } from 'zod';
import { useCommand } from '../../../app/command.ts';
import { api } from '../../../app/endpoints.ts';
import { useKeptForm } from '../../../app/keptForm.ts';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
import { aFigureOrNothing } from '../../../kit/fieldReaders.ts';
import { Notice } from '../../../kit/Notice.tsx';
import { Select } from '../../../kit/Select.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import { idFrom } from './planDraft.ts';

const groups = [
  ['round-fish', 'round fish'],
  ['flatfish', 'flatfish'],
  ['large-pelagic', 'large ocean fish'],
  ['crustacean', 'crustacean'],
  ['mollusc', 'mollusc'],
  ['poultry', 'poultry'],
  ['feathered-game', 'feathered game'],
  ['furred-game', 'furred game'],
  ['farmed-meat', 'meat'],
] as const;
const allergens = ['none', 'fish', 'crustaceans', 'molluscs'] as const;

/** What the draft of a species is called. */
export const NEW_SPECIES = 'species';
/** What a new animal needs; `taken`: names, as short names, that are somebody's already. */
const speciesForm = (taken: ReadonlySet<string>) =>
  z.object({
    name: z
      .string()
      .trim()
      .min(1, 'What it is called')
      .max(80)
      .refine((name) => !taken.has(idFrom(name)), 'There is one by that name'),
    scientific: z
      .string()
      .trim()
      .max(80)
      .transform((text) => (text === '' ? 'not given' : text)),
    group: z.string(),
    allergen: z.enum(allergens),
    form: z.string().trim().min(1, 'How it comes, such as whole').max(60),
    typical: aFigureOrNothing('A weight in grams, or nothing'),
    said: z.boolean().nullable(),
  });
type Typed = z.input<ReturnType<typeof speciesForm>>;
const nothingTyped: Typed = {
  name: '',
  scientific: '',
  group: 'round-fish',
  allergen: 'fish',
  form: 'whole',
  typical: '',
  said: null,
};

/** A species the handbook does not know: enough to receive it and to make a plan for it. */
export function NewSpecies({ done }: { readonly done: () => void }) {
  const catalogue = useCatalogue();
  const client = useQueryClient();
  const taken = new Set(catalogue.data?.species.map((s) => s.id));
  const form = useKeptForm<Typed, z.output<ReturnType<typeof speciesForm>>>(
    NEW_SPECIES,
    speciesForm(taken),
    nothingTyped,
  );
  const { register, setValue, handleSubmit, kept } = form;
  const { errors } = form.formState;
  const { name, scientific, group, said } = form.typed;
  const isFish = /fish|pelagic/.test(group);
  // known by its genus or its name until somebody says otherwise
  const histamine = said ?? formsHistamine({ name, scientific, group });
  const save = useCommand(api.bench.saveSpecies, {
    onDone: async () => {
      await client.invalidateQueries({ queryKey: ['catalogue'] });
      form.clear();
      done();
    },
  });
  return (
    <form
      className="mb-5 grid grid-cols-4 items-start gap-4 rounded-plate border-[1.5px] border-line-strong bg-white p-4"
      aria-label="Add a species"
      onSubmit={(event) =>
        void handleSubmit((read) =>
          save.send({
            body: {
              species: {
                id: idFrom(read.name),
                name: read.name,
                scientific: read.scientific,
                group: read.group,
                allergen: read.allergen,
                ...(isFish ? { histamine } : {}),
                forms: [
                  {
                    id: idFrom(read.form),
                    name: read.form,
                    purchase: true,
                    whole: true,
                    ...(read.typical === undefined ? {} : { typicalG: read.typical }),
                  },
                ],
                yields: [],
                inspection: [],
              },
            },
          }),
        )(event)
      }
    >
      <StillHere draft={kept} className="col-span-4" />
      <Field label="Name" autoFocus maxLength={80} error={errors.name?.message} {...register('name')} />
      <Field label="Scientific name" maxLength={80} error={errors.scientific?.message} {...register('scientific')} />
      <Select label="Kind" options={groups.map(([value, says]) => ({ value, name: says }))} {...register('group')} />
      <Select label="Allergen" options={allergens.map((a) => ({ value: a, name: a }))} {...register('allergen')} />
      <Field label="Comes as" maxLength={60} error={errors.form?.message} {...register('form')} />
      <Field
        label="Weighs usually"
        unit="g"
        inputMode="decimal"
        error={errors.typical?.message}
        {...register('typical')}
      />
      {isFish && (
        <Check
          labelClass="col-span-2 min-h-11 self-end text-[15px]"
          checked={histamine}
          onChange={(event) => setValue('said', event.target.checked)}
          label={
            <span>
              <strong>Histamine forms in it when it warms up</strong>, as in tuna, mackerel, sardine, anchovy,
              mahi-mahi. Not sure: leave it ticked.
            </span>
          }
        />
      )}
      <div className="col-span-2 flex gap-3">
        <Button type="submit" variant="strong" disabled={save.pending}>
          Add it
        </Button>
        <Button onClick={done}>Leave it</Button>
      </div>
      {save.error !== null && (
        <div className="col-span-4">
          <Notice tone="alarm">{save.error.message}</Notice>
        </div>
      )}
    </form>
  );
}
