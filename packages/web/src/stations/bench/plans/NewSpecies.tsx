import { useQueryClient } from '@tanstack/react-query';
import { formsHistamine, readDecimal } from '@zabrik/core';
import { useCommand } from '../../../app/command.ts';
import { useDraft } from '../../../app/draft.ts';
import { api } from '../../../app/endpoints.ts';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
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
interface Typed {
  readonly name: string;
  readonly scientific: string;
  readonly group: string;
  readonly allergen: (typeof allergens)[number];
  readonly form: string;
  readonly typical: string;
  readonly said: boolean | null;
}
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
  const draft = useDraft<Typed>(NEW_SPECIES, nothingTyped);
  const { name, scientific, group, allergen, form, typical, said } = draft.value;
  const isFish = /fish|pelagic/.test(group);
  // known by its genus or its name until somebody says otherwise
  const histamine = said ?? formsHistamine({ name, scientific, group });
  const id = idFrom(name);
  const taken = name !== '' && (catalogue.data?.species.some((s) => s.id === id) ?? false);
  const typicalG = readDecimal(typical);
  const save = useCommand(api.bench.saveSpecies, {
    onDone: async () => {
      await client.invalidateQueries({ queryKey: ['catalogue'] });
      draft.clear();
      done();
    },
  });
  return (
    <form
      className="mb-5 grid grid-cols-4 items-end gap-4 rounded-plate border-[1.5px] border-line-strong bg-white p-4"
      aria-label="Add a species"
      onSubmit={(event) => {
        event.preventDefault();
        save.send({
          body: {
            species: {
              id,
              name: name.trim(),
              scientific: scientific.trim() === '' ? 'not given' : scientific.trim(),
              group,
              allergen,
              ...(isFish ? { histamine } : {}),
              forms: [
                {
                  id: idFrom(form),
                  name: form.trim(),
                  purchase: true,
                  whole: true,
                  ...(typicalG > 0 ? { typicalG } : {}),
                },
              ],
              yields: [],
              inspection: [],
            },
          },
        });
      }}
    >
      <StillHere draft={draft} className="col-span-4" />
      <Field
        label="Name"
        value={name}
        autoFocus
        maxLength={80}
        error={taken ? 'There is one by that name' : undefined}
        onChange={(event) => draft.put({ name: event.target.value })}
      />
      <Field
        label="Scientific name"
        value={scientific}
        maxLength={80}
        onChange={(event) => draft.put({ scientific: event.target.value })}
      />
      <Select
        label="Kind"
        value={group}
        onValue={(value) => draft.put({ group: value })}
        options={groups.map(([value, says]) => ({ value, name: says }))}
      />
      <Select
        label="Allergen"
        value={allergen}
        onValue={(value) => draft.put({ allergen: value })}
        options={allergens.map((a) => ({ value: a, name: a }))}
      />
      <Field
        label="Comes as"
        value={form}
        maxLength={60}
        onChange={(event) => draft.put({ form: event.target.value })}
      />
      <Field
        label="Weighs usually"
        unit="g"
        inputMode="decimal"
        value={typical}
        onChange={(e) => draft.put({ typical: e.target.value })}
      />
      {isFish && (
        <Check
          labelClass="col-span-2 min-h-11 text-[15px]"
          checked={histamine}
          onChange={(event) => draft.put({ said: event.target.checked })}
          label={
            <span>
              <strong>Histamine forms in it when it warms up</strong>, as in tuna, mackerel, sardine, anchovy,
              mahi-mahi. Not sure: leave it ticked.
            </span>
          }
        />
      )}
      <div className="col-span-2 flex gap-3">
        <Button
          type="submit"
          look="strong"
          disabled={name.trim() === '' || form.trim() === '' || taken || save.pending}
        >
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
