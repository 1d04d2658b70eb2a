import type { ListedPlate } from '@zabrik/contract';
import { Trash2 } from 'lucide-react';
import { useCommand } from '../../../app/command.ts';
import { api } from '../../../app/endpoints.ts';
import { useKeptDocument } from '../../../app/keptForm.ts';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { named, Select } from '../../../kit/Select.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import { useRows } from '../../../parts/useRows.ts';
import { useRecipes } from '../potQueries.ts';
import { freeId } from '../recipe/edit.ts';

type Plate = ListedPlate['plate'];
type Component = Plate['components'][number];
type Kind = Component['of']['kind'];

const kinds: readonly { readonly value: Kind; readonly name: string }[] = [
  { value: 'pieces', name: 'pieces' },
  { value: 'batch', name: 'made here' },
  { value: 'goods', name: 'bought in' },
];
const blank: Component = {
  name: '',
  of: { kind: 'pieces', category: '', species: null },
  count: 1,
  grams: 150,
};
export const blankPlate: Plate = { id: 'new-plate', version: 1, title: '', components: [blank] };

const idOf = (of: Component['of']): string =>
  of.kind === 'pieces' ? of.category : of.kind === 'batch' ? of.recipeId : of.goods;

/** What keeps a plate from being saved, in words. */
const faultsOf = ({ title, components }: Plate): readonly string[] => [
  ...(title.trim() === '' ? ['A plate has a name.'] : []),
  ...(components.length === 0 ? ['Nothing is on it yet.'] : []),
  ...components.flatMap((c, i) => [
    ...(idOf(c.of) === '' ? [`Say what ${c.name.trim() || `component ${i + 1}`} is.`] : []),
    ...(c.name.trim() === '' ? [`Component ${i + 1} has no name.`] : []),
  ]),
];

function ComponentFields({
  component: c,
  no,
  onChange,
  onLeaveOut,
}: {
  readonly component: Component;
  readonly no: number;
  readonly onChange: (next: Component) => void;
  readonly onLeaveOut: () => void;
}) {
  const { data: catalogue } = useCatalogue();
  const recipes = useRecipes().data?.recipes ?? [];
  const choices =
    c.of.kind === 'pieces'
      ? (catalogue?.categories ?? []).filter((k) => k.useWithinHours > 0).map((k) => ({ value: k.id, name: k.label }))
      : c.of.kind === 'batch'
        ? recipes.filter((r) => !r.retired).map((r) => ({ value: r.recipe.id, name: r.recipe.title }))
        : (catalogue?.goods ?? []).map((g) => ({ value: g.id, name: g.name }));
  const source = (kind: Kind, id: string): Component['of'] =>
    kind === 'pieces'
      ? { kind, category: id, species: c.of.kind === 'pieces' ? c.of.species : null }
      : kind === 'batch'
        ? { kind, recipeId: id }
        : { kind, goods: id };
  const choose = (id: string): void => {
    const name = choices.find((x) => x.value === id)?.name ?? '';
    // called after what it is, until somebody calls it otherwise
    const before = choices.find((x) => x.value === idOf(c.of))?.name.toLowerCase() ?? '';
    onChange({
      ...c,
      of: source(c.of.kind, id),
      name: c.name === '' || c.name === before ? name.toLowerCase() : c.name,
    });
  };
  return (
    <div className="grid grid-cols-[130px_minmax(0,1.3fr)_minmax(0,1fr)_minmax(0,1fr)_96px_112px_auto] items-end gap-2 border-b border-line pb-3 max-lg:grid-cols-2">
      <Select
        label={`Component ${no}`}
        value={c.of.kind}
        onValue={(kind) => onChange({ ...c, of: source(kind, ''), count: kind === 'pieces' ? 1 : null })}
        options={kinds}
      />
      <Select label="What" value={idOf(c.of)} none="choose" onValue={choose} options={choices} />
      {c.of.kind === 'pieces' ? (
        <Select
          label="Of"
          value={c.of.species ?? ''}
          none="any animal"
          onValue={(id) =>
            c.of.kind === 'pieces' && onChange({ ...c, of: { ...c.of, species: id === '' ? null : id } })
          }
          options={named(catalogue?.species)}
        />
      ) : (
        <span className="max-lg:hidden" />
      )}
      <Field
        label="Called"
        value={c.name}
        maxLength={60}
        onChange={(event) => onChange({ ...c, name: event.target.value })}
      />
      <NumField
        label="How many"
        value={c.count}
        min={1}
        max={200}
        decimals={0}
        onNone={() => onChange({ ...c, count: null })}
        onValue={(count) => onChange({ ...c, count })}
      />
      <NumField
        label={c.count === null ? 'g or ml' : 'g each'}
        value={c.grams}
        min={0.1}
        max={10_000}
        onValue={(grams) => onChange({ ...c, grams })}
      />
      <Button className="h-11" aria-label={`Without component ${no}`} onClick={onLeaveOut}>
        <Trash2 size={18} aria-hidden="true" />
      </Button>
    </div>
  );
}

/** The name under which a plate that is being written is kept. */
export const draftOfPlate = ({ id }: Plate, from: number): string => `plate/${from === 0 ? 'new' : id}/${from}`;

interface Props {
  /** The version it was read as; 0 for a new one. */
  readonly from: number;
  readonly plate: Plate;
  readonly taken: readonly string[];
  readonly onDone: () => void;
}

/** A plate as it is written: its components, how many of each or how much. Saved as a version of its own. */
export function PlateEditor({ from, plate: saved, taken, onDone }: Props) {
  const form = useKeptDocument<Plate>(draftOfPlate(saved, from), saved, faultsOf);
  const { doc: plate, put, wrong } = form;
  const list = useRows<Component>(plate.components, (components) => put({ components }));
  const store = useCommand(api.pots.savePlate, {
    onDone: () => {
      form.clear();
      onDone();
    },
  });
  const save = (written: Plate, retired: boolean): void => {
    const body = { ...written, title: written.title.trim() };
    store.send({ body: { plate: from === 0 ? { ...body, id: freeId(body.title, taken) } : body, from, retired } });
  };
  return (
    <form
      aria-label={from === 0 ? 'A new plate' : saved.title}
      className="grid gap-3 rounded-plate border-2 border-ink bg-white p-4"
      onSubmit={(event) => {
        event.preventDefault();
        form.send((written) => save(written, false));
      }}
    >
      <StillHere draft={form.kept} />
      <Field
        label="The plate"
        placeholder="hake, brown butter, capers"
        className="md:w-120"
        value={plate.title}
        maxLength={120}
        onChange={(event) => put({ title: event.target.value })}
      />
      {list.rows.map(({ row, i, id }) => (
        <ComponentFields
          key={id}
          component={row}
          no={i + 1}
          onChange={(next) => list.change(i, next)}
          onLeaveOut={() => list.leaveOut(i)}
        />
      ))}
      <Button className="justify-self-start" disabled={list.rows.length >= 20} onClick={() => list.add(blank)}>
        One more component
      </Button>
      {wrong.length > 0 && (
        <ul role="alert" className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5">
          {wrong.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {store.error !== null && (
        <p role="alert" className="text-alarm">
          {store.error.message}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" variant="strong" size="bench" disabled={store.pending}>
          {from === 0 ? 'Save the plate' : `Save as version ${from + 1}`}
        </Button>
        <Button size="bench" onClick={onDone}>
          Not now
        </Button>
        {from > 0 && (
          <Button variant="alarm" size="bench" disabled={store.pending} onClick={() => save(saved, true)}>
            Not served any more
          </Button>
        )}
      </div>
    </form>
  );
}
