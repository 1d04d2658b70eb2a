/** What goes to one of the base: how much, with which allergens, what becomes of it, and what of our own can stand in for it. */
import { carryAllergens, type RecipeIngredient } from '@zabrik/core';
import { Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Select } from '../../../kit/Select.tsx';
import { AllergensSaid } from '../../../parts/AllergensSaid.tsx';
import { changed, without } from '../../../parts/rows.ts';
import { useRecipes } from '../potQueries.ts';
import { AmountField } from './AmountField.tsx';
import { type Edit, freeId } from './edit.ts';
import { Section } from './Section.tsx';

const becomes = [
  { value: 'strained', name: 'strained out' },
  { value: 'poured', name: 'poured away' },
] as const;

/** What can be an ingredient beside what is bought for it: kinds of pieces, batches of our own. */
function StandsIn({
  ingredient,
  onChange,
}: {
  readonly ingredient: RecipeIngredient;
  readonly onChange: (next: RecipeIngredient) => void;
}) {
  const { data: catalogue } = useCatalogue();
  const recipes = useRecipes().data?.recipes ?? [];
  const { accepts = [], acceptsUses = [], acceptsGoods = [] } = ingredient;
  const set = (change: Pick<RecipeIngredient, 'accepts' | 'acceptsUses' | 'acceptsGoods'>): void => {
    const { accepts: _, acceptsUses: __, acceptsGoods: ___, ...rest } = ingredient;
    const next = { accepts, acceptsUses, acceptsGoods, ...change };
    onChange({
      ...rest,
      ...(next.acceptsGoods.length === 0 ? {} : { acceptsGoods: next.acceptsGoods }),
      ...(next.accepts.length === 0 ? {} : { accepts: next.accepts }),
      ...(next.acceptsUses.length === 0 ? {} : { acceptsUses: next.acceptsUses }),
    });
  };
  const kinds = (catalogue?.categories ?? []).filter((c) => c.useWithinHours > 0);
  return (
    <div className="flex flex-wrap items-center gap-x-4">
      {accepts.map((id) => (
        <Check
          key={id}
          checked
          label={kinds.find((k) => k.id === id)?.label ?? id}
          onChange={() => set({ accepts: accepts.filter((x) => x !== id) })}
        />
      ))}
      {acceptsUses.map((id) => (
        <Check
          key={id}
          checked
          label={recipes.find((r) => r.recipe.id === id)?.recipe.title ?? id}
          onChange={() => set({ acceptsUses: acceptsUses.filter((x) => x !== id) })}
        />
      ))}
      {acceptsGoods.map((id) => (
        <Check
          key={id}
          checked
          label={catalogue?.goods.find((g) => g.id === id)?.name ?? id}
          onChange={() => set({ acceptsGoods: acceptsGoods.filter((x) => x !== id) })}
        />
      ))}
      <Select
        aria-label={`Our own that is ${ingredient.name}`}
        fit
        value=""
        none="our own that can be it"
        onValue={(chosen) => {
          const [of, id = ''] = chosen.split('/');
          if (of === 'kind') set({ accepts: [...accepts, id] });
          if (of === 'batch') set({ acceptsUses: [...acceptsUses, id] });
          if (of === 'goods') set({ acceptsGoods: [...acceptsGoods, id] });
        }}
        options={[
          ...recipes
            .filter((r) => !acceptsUses.includes(r.recipe.id))
            .map((r) => ({ value: `batch/${r.recipe.id}`, name: r.recipe.title })),
          ...(catalogue?.goods ?? [])
            .filter((g) => !acceptsGoods.includes(g.id))
            .map((g) => ({ value: `goods/${g.id}`, name: `${g.name}, bought in` })),
          ...kinds.filter((k) => !accepts.includes(k.id)).map((k) => ({ value: `kind/${k.id}`, name: k.label })),
        ]}
      />
    </div>
  );
}

/** An ingredient by its name: what the house buys under it brings its allergens along, of all else somebody has to say them. */
function Another({ recipe, put }: Pick<Edit, 'recipe' | 'put'>) {
  const { data: catalogue } = useCatalogue();
  const [name, setName] = useState('');
  const list = useId();
  const said = name.trim();
  const add = (): void => {
    if (said === '') return;
    const goods = catalogue?.goods.find((g) => g.name.toLowerCase() === said.toLowerCase());
    const taken = recipe.ingredients.map((i) => i.id);
    const own = goods?.ingredient ?? goods?.id;
    const id = own !== undefined && !taken.includes(own) ? own : freeId(said, taken);
    put({
      ingredients: [
        ...recipe.ingredients,
        {
          id,
          name: goods === undefined ? said : said.toLowerCase(),
          perBase: 0.1,
          low: 0.05,
          high: 0.2,
          ...(goods === undefined
            ? { allergens: [], unsaid: true as const }
            : { allergens: carryAllergens(goods.allergens) }),
        },
      ],
    });
    setName('');
  };
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Field
        label="Another ingredient"
        className="w-80"
        value={name}
        maxLength={60}
        list={list}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          add();
        }}
      />
      <datalist id={list}>
        {catalogue?.goods.map((g) => (
          <option key={g.id} value={g.name} />
        ))}
      </datalist>
      <Button className="h-11" onClick={add}>
        Add it
      </Button>
    </div>
  );
}

export function Ingredients({ recipe, put }: Edit) {
  const { ingredients } = recipe;
  return (
    <Section
      name={`To a kilo of ${recipe.baseName.trim() || 'it'}`}
      says="As it is written in your book: 250 g, 25 %, 150 ppm, 1:4, a third. A litre counts as a kilogram."
    >
      {ingredients.map((i, n) => {
        const to = (next: RecipeIngredient): void => put({ ingredients: changed(ingredients, n, next) });
        return (
          <div key={i.id} className="grid gap-1 border-b border-line pb-2">
            <div className="grid grid-cols-[minmax(0,1fr)_repeat(3,112px)_150px_auto] items-end gap-2 max-md:grid-cols-2">
              <Field
                label="Ingredient"
                value={i.name}
                maxLength={60}
                onChange={(event) => to({ ...i, name: event.target.value })}
              />
              {(['low', 'perBase', 'high'] as const).map((f) => (
                <AmountField
                  key={f}
                  label={f === 'perBase' ? 'usual' : f === 'low' ? 'from' : 'to'}
                  value={i[f]}
                  onValue={(value) =>
                    // a usual amount outside its range takes the range along
                    to(
                      f === 'perBase'
                        ? { ...i, perBase: value, low: Math.min(i.low, value), high: Math.max(i.high, value) }
                        : { ...i, [f]: value },
                    )
                  }
                />
              ))}
              <Select
                label="Then"
                value={i.becomes ?? ''}
                none="it stays in it"
                onValue={(value) => {
                  const { becomes: _, ...rest } = i;
                  const found = becomes.find((b) => b.value === value);
                  to(found === undefined ? rest : { ...rest, becomes: found.value });
                }}
                options={becomes}
              />
              <Button
                className="h-11"
                aria-label={`Without ${i.name}`}
                onClick={() => put({ ingredients: without(ingredients, n) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <div className="grid items-start gap-x-4 md:grid-cols-[minmax(0,1fr)_auto]">
              <AllergensSaid
                name={i.name}
                has={i.allergens}
                unsaid={i.unsaid === true}
                onSay={(said) => {
                  const { unsaid: _, ...rest } = i;
                  to({ ...rest, allergens: carryAllergens(said) });
                }}
              />
              <StandsIn ingredient={i} onChange={to} />
            </div>
          </div>
        );
      })}
      <Another recipe={recipe} put={put} />
    </Section>
  );
}
