/** What a recipe is built on: kinds of pieces and batches of other recipes; what is refused, what is held to a share, in which state. */
import type { Destination, Recipe, TakesState } from '@zabrik/core';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { trays } from '../../../parts/destinations.ts';
import { changed, without } from '../../../parts/rows.ts';
import { useRecipes } from '../potQueries.ts';
import type { Edit } from './edit.ts';
import { Section } from './Section.tsx';

const states: readonly { readonly value: TakesState; readonly name: string }[] = [
  { value: 'raw', name: 'raw pieces only' },
  { value: 'cooked', name: 'cooked pieces only' },
  { value: 'any', name: 'raw or cooked, cooked through together' },
];

const toggled = <T,>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];

/** Kinds of piece by their group; those chosen stand first, the others open by a touch or a word. */
function Kinds({ recipe, put }: Edit) {
  const { data: catalogue } = useCatalogue();
  const [search, setSearch] = useState('');
  const may = (catalogue?.categories ?? []).filter((c) => c.useWithinHours > 0);
  const words = search.trim().toLowerCase();
  const shown = may.filter(
    (c) => !recipe.accepts.includes(c.id) && words !== '' && `${c.label} ${c.group}`.toLowerCase().includes(words),
  );
  const take = (id: string): void =>
    put({ accepts: toggled(recipe.accepts, id), refuses: recipe.refuses.filter((r) => r.category !== id) });
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap gap-x-4">
        {recipe.accepts.length === 0 && <p className="text-ink-soft">No kind of piece yet: look for one below.</p>}
        {may
          .filter((c) => recipe.accepts.includes(c.id))
          .map((c) => (
            <Check key={c.id} label={c.label} checked onChange={() => take(c.id)} />
          ))}
      </div>
      <Field
        label="Look for kinds of pieces"
        placeholder="bones, pork, trim"
        className="md:w-96"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      {words !== '' && (
        <div className="flex flex-wrap gap-x-4" aria-live="polite">
          {shown.length === 0 && <p className="text-ink-soft">No other kind is called so.</p>}
          {shown.map((c) => (
            <Check key={c.id} label={c.label} checked={false} onChange={() => take(c.id)} />
          ))}
        </div>
      )}
    </div>
  );
}

/** Batches of other recipes that it can be built on: a stock for a sauce. */
function Batches({ recipe, put }: Edit) {
  const recipes = (useRecipes().data?.recipes ?? []).map((r) => r.recipe).filter((r) => r.id !== recipe.id);
  const open = recipes.filter((r) => !recipe.acceptsUses.includes(r.id));
  return (
    <div className="flex flex-wrap items-end gap-3">
      {recipe.acceptsUses.map((id) => (
        <Check
          key={id}
          label={recipes.find((r) => r.id === id)?.title ?? id}
          checked
          onChange={() => put({ acceptsUses: recipe.acceptsUses.filter((x) => x !== id) })}
        />
      ))}
      <Select
        label="Or batches of"
        className="w-72"
        value=""
        none="choose a recipe"
        onValue={(id) => {
          if (id !== '') put({ acceptsUses: [...recipe.acceptsUses, id] });
        }}
        options={open.map((r) => ({ value: r.id, name: r.title }))}
      />
    </div>
  );
}

/** Vegetables, dairy and dry goods that it can be built on: leeks for a soup, cream for a butter. */
function Goods({ recipe, put, drop }: Edit) {
  const { data: catalogue } = useCatalogue();
  const goods = catalogue?.goods ?? [];
  const { acceptsGoods = [] } = recipe;
  const to = (next: readonly string[]): void =>
    next.length === 0 ? drop('acceptsGoods') : put({ acceptsGoods: next });
  return (
    <div className="flex flex-wrap items-end gap-3">
      {acceptsGoods.map((id) => (
        <Check
          key={id}
          label={goods.find((g) => g.id === id)?.name ?? id}
          checked
          onChange={() => to(acceptsGoods.filter((x) => x !== id))}
        />
      ))}
      <Select
        label="Or bought-in goods"
        className="w-72"
        value=""
        none="choose goods"
        onValue={(id) => {
          if (id !== '') to([...acceptsGoods, id]);
        }}
        options={goods.filter((g) => !acceptsGoods.includes(g.id)).map((g) => ({ value: g.id, name: g.name }))}
      />
    </div>
  );
}

interface Ruled {
  readonly category: string;
  readonly reason: string;
}

/** Rows of a kind, a reason and what else is said of it. */
function Rules<R extends Ruled>({
  rows,
  kinds,
  add,
  onRows,
  blank,
  share,
}: {
  readonly rows: readonly R[];
  readonly kinds: readonly { readonly id: string; readonly label: string }[];
  readonly add: string;
  readonly onRows: (rows: R[]) => void;
  readonly blank: (category: string) => R;
  readonly share?: { readonly of: (row: R) => number; readonly put: (row: R, share: number) => R };
}) {
  const { data: catalogue } = useCatalogue();
  return (
    <>
      {rows.map((row, i) => {
        const label = catalogue?.categories.find((c) => c.id === row.category)?.label ?? row.category;
        return (
          <div key={row.category} className="flex flex-wrap items-end gap-2">
            <span className="w-56 self-center leading-tight font-semibold">{label}</span>
            {share !== undefined && (
              <NumField
                label={`At most, ${label}`}
                unit="%"
                className="w-32 [&_label]:sr-only"
                value={share.of(row) * 100}
                min={1}
                max={99}
                decimals={0}
                onValue={(v) => onRows(changed(rows, i, share.put(row, v / 100)))}
              />
            )}
            <Field
              aria-label={`Because, ${label}`}
              placeholder={share === undefined ? 'never, because' : 'at most so much, because'}
              maxLength={400}
              className="min-w-60 flex-1"
              value={row.reason}
              onChange={(event) => onRows(changed(rows, i, { ...row, reason: event.target.value }))}
            />
            <Button className="h-11" aria-label={`Not ${label}`} onClick={() => onRows(without(rows, i))}>
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </div>
        );
      })}
      <Select
        label={add}
        className="w-72"
        value=""
        none="choose a kind"
        onValue={(id) => {
          if (id !== '') onRows([...rows, blank(id)]);
        }}
        options={kinds
          .filter((k) => !rows.some((r) => r.category === k.id))
          .map((k) => ({ value: k.id, name: k.label }))}
      />
    </>
  );
}

export function BuiltOn({ recipe, put, drop }: Edit) {
  const { data: catalogue } = useCatalogue();
  const kinds = (catalogue?.categories ?? []).filter((c) => c.useWithinHours > 0);
  const never = new Set((catalogue?.categories ?? []).filter((c) => c.useWithinHours === 0).map((c) => c.id));
  return (
    <Section
      name="What it is built on"
      says="Everything else is weighed against it. What goes in nothing (gills, gall, glands) is refused by itself."
    >
      <div className="grid gap-3 md:grid-cols-3">
        <Field
          label="Called"
          placeholder="bones, trim, fish"
          value={recipe.baseName}
          maxLength={40}
          onChange={(event) => put({ baseName: event.target.value })}
        />
        <Select label="In which state" value={recipe.takes} onValue={(takes) => put({ takes })} options={states} />
        <Check
          label="It is strained out (bones)"
          checked={recipe.baseStrained === true}
          labelClass="self-end min-h-11"
          onChange={(event) => (event.target.checked ? put({ baseStrained: true }) : drop('baseStrained'))}
        />
      </div>
      <Kinds recipe={recipe} put={put} drop={drop} />
      <Batches recipe={recipe} put={put} drop={drop} />
      <Goods recipe={recipe} put={put} drop={drop} />
      <div>
        <p className="mb-1 text-[15px] font-semibold">Empties these trays unasked</p>
        <div className="flex flex-wrap gap-2">
          {trays.map((t) => (
            <Toggle
              key={t.id}
              on={recipe.trays.includes(t.id)}
              onPress={() => put({ trays: toggled<Destination>(recipe.trays, t.id) })}
            >
              {t.name}
            </Toggle>
          ))}
        </div>
      </div>
      <Rules<Recipe['caps'][number]>
        rows={recipe.caps}
        kinds={kinds.filter((k) => recipe.accepts.includes(k.id))}
        add="Hold a kind to a share"
        blank={(category) => ({ category, maxShare: 0.2, reason: '' })}
        onRows={(caps) => put({ caps })}
        share={{ of: (row) => row.maxShare, put: (row, maxShare) => ({ ...row, maxShare }) }}
      />
      <Rules<Recipe['refuses'][number]>
        rows={recipe.refuses.filter((r) => !never.has(r.category))}
        kinds={kinds.filter((k) => !recipe.accepts.includes(k.id))}
        add="Refuse a kind"
        blank={(category) => ({ category, reason: '' })}
        onRows={(refuses) => put({ refuses: [...refuses, ...recipe.refuses.filter((r) => never.has(r.category))] })}
      />
    </Section>
  );
}
