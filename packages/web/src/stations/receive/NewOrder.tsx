import type { Ask } from '@zabrik/contract';
import { addDays, formatMass, parseMass } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { useCommand } from '../../app/command.ts';
import { todayIn } from '../../app/dates.ts';
import { useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import { useCatalogue } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { useSuppliers } from './useSuppliers.ts';

type OrderLine = Ask<typeof api.receive.order>['body']['lines'][number];

/** A line as it was added: two may be alike. */
interface Added extends OrderLine {
  readonly key: string;
}

/** What the draft of an order is called. */
export const NEW_ORDER = 'order';
interface Typed {
  readonly supplierId: string;
  readonly dueOn: string;
  readonly what: string;
  readonly mass: string;
  readonly lines: readonly Added[];
}

/** Writes down what was ordered: a supplier, a day, and its lines one by one. */
export function NewOrder({ done }: { readonly done: () => void }) {
  const { data: catalogue } = useCatalogue();
  const suppliers = useSuppliers();
  const draft = useDraft<Typed>(NEW_ORDER, {
    supplierId: '',
    dueOn: addDays(todayIn(), 1),
    what: '',
    mass: '',
    lines: [],
  });
  const { supplierId, dueOn, what, mass, lines } = draft.value;
  const order = useCommand(api.receive.order, {
    onDone: () => {
      draft.clear();
      done();
    },
  });
  const items = [
    ...(catalogue?.species ?? []).flatMap((s) =>
      s.forms.filter((f) => f.purchase).map((f) => ({ value: `${s.id}/${f.id}`, name: `${s.name}, ${f.name}` })),
    ),
    ...(catalogue?.goods ?? []).map((g) => ({ value: `goods/${g.id}`, name: g.name })),
  ].sort((a, b) => a.name.localeCompare(b.name));
  let massMg: number | undefined;
  try {
    massMg = parseMass(mass);
  } catch {
    massMg = undefined;
  }
  const add = (): void => {
    const [first = '', second = ''] = what.split('/');
    if (massMg === undefined || massMg <= 0 || second === '') return;
    const goods = first === 'goods';
    draft.put({
      what: '',
      mass: '',
      lines: [
        ...lines,
        {
          key: uuidv7(),
          species: goods ? null : first,
          form: goods ? null : second,
          goods: goods ? second : null,
          count: null,
          massMg,
          minorPerKg: null,
        },
      ],
    });
  };
  const nameOf = (l: OrderLine): string =>
    items.find((i) => i.value === (l.goods === null ? `${l.species}/${l.form}` : `goods/${l.goods}`))?.name ?? '';
  return (
    <form
      className="mb-3 grid gap-2 rounded-plate border-[1.5px] border-ink bg-white p-3"
      aria-label="Order"
      onSubmit={(event) => {
        event.preventDefault();
        order.send({ body: { supplierId, dueOn, note: null, lines: lines.map(({ key: _, ...line }) => line) } });
      }}
    >
      <StillHere draft={draft} />
      <Select
        aria-label="Of which supplier"
        value={supplierId}
        onValue={(value) => draft.put({ supplierId: value })}
        none="of which supplier"
        options={named(suppliers.data?.suppliers)}
      />
      <Field
        label="Expected on"
        type="date"
        value={dueOn}
        onChange={(event) => draft.put({ dueOn: event.target.value })}
      />
      <ul className="text-[15px]">
        {lines.map((l) => (
          <li key={l.key} className="flex items-center justify-between gap-2">
            <span className="truncate">{nameOf(l)}</span>
            <span className="figure">{formatMass(l.massMg)}</span>
            <button
              type="button"
              className="min-h-9 underline"
              onClick={() => draft.put({ lines: lines.filter((x) => x.key !== l.key) })}
            >
              take out
            </button>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-[minmax(0,1fr)_84px_auto] gap-2">
        <Select
          aria-label="What"
          value={what}
          onValue={(value) => draft.put({ what: value })}
          none="what"
          options={items.map((i) => ({ value: i.value, name: i.name }))}
        />
        <Field
          aria-label="How much"
          placeholder="5 kg"
          value={mass}
          onChange={(event) => draft.put({ mass: event.target.value })}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
        />
        <Button disabled={what === '' || massMg === undefined || massMg <= 0} onClick={add}>
          Add
        </Button>
      </div>
      {order.error !== null && <Notice tone="alarm">{order.error.message}</Notice>}
      <Button
        type="submit"
        look="strong"
        disabled={supplierId === '' || dueOn === '' || lines.length === 0 || order.pending}
      >
        Write the order down
      </Button>
    </form>
  );
}
