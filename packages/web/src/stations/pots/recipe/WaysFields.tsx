/** Where cooks disagree: a question, its ways, and what each of them changes. */
import type { RecipeQuestion, RecipeVariant } from '@zabrik/core';
import { Trash2 } from 'lucide-react';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { changed, without } from '../../../parts/rows.ts';
import { AmountField } from './AmountField.tsx';
import { type Edit, freeId } from './edit.ts';
import { Section } from './Section.tsx';

function WayFields({
  way,
  recipe,
  onWay,
  onGone,
}: {
  readonly way: RecipeVariant;
  readonly recipe: Edit['recipe'];
  readonly onWay: (next: RecipeVariant) => void;
  readonly onGone: (() => void) | undefined;
}) {
  const { perBase = {}, minutes: _m, outputFactor: _o, perBase: _p, ...rest } = way;
  const set = (change: Partial<Pick<RecipeVariant, 'perBase' | 'minutes' | 'outputFactor'>>): void => {
    const next = { perBase, minutes: way.minutes, outputFactor: way.outputFactor, ...change };
    onWay({
      ...rest,
      ...(Object.keys(next.perBase).length === 0 ? {} : { perBase: next.perBase }),
      ...(next.minutes === undefined ? {} : { minutes: next.minutes }),
      ...(next.outputFactor === undefined ? {} : { outputFactor: next.outputFactor }),
    });
  };
  return (
    <div className="grid gap-2 border-l-4 border-line pl-3">
      <div className="grid grid-cols-[1fr_2fr_110px_110px_auto] items-end gap-2 max-md:grid-cols-2">
        <Field
          label="Way"
          value={way.name}
          maxLength={60}
          onChange={(event) => onWay({ ...way, name: event.target.value })}
        />
        <Field
          label="What it gives"
          value={way.gives}
          maxLength={400}
          onChange={(event) => onWay({ ...way, gives: event.target.value })}
        />
        <NumField
          label="Minutes"
          unit="min"
          value={way.minutes ?? null}
          min={0.1}
          max={10_000}
          onNone={() => set({ minutes: undefined as never })}
          onValue={(minutes) => set({ minutes })}
        />
        <NumField
          label="Gives, times"
          value={way.outputFactor ?? null}
          min={0.01}
          max={20}
          decimals={2}
          onNone={() => set({ outputFactor: undefined as never })}
          onValue={(outputFactor) => set({ outputFactor })}
        />
        <Button className="h-11" aria-label={`Without ${way.name}`} disabled={onGone === undefined} onClick={onGone}>
          <Trash2 size={18} aria-hidden="true" />
        </Button>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        {Object.entries(perBase).map(([id, value]) => (
          <span key={id} className="flex items-end gap-1">
            <span className="w-32">
              <AmountField
                label={recipe.ingredients.find((i) => i.id === id)?.name ?? id}
                value={value}
                onValue={(v) => set({ perBase: { ...perBase, [id]: v } })}
              />
            </span>
            <Button
              className="h-11"
              aria-label={`${way.name} leaves ${id} as it is`}
              onClick={() => set({ perBase: Object.fromEntries(Object.entries(perBase).filter(([x]) => x !== id)) })}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </span>
        ))}
        <Select
          aria-label={`${way.name || 'It'} changes`}
          fit
          value=""
          none="it changes an ingredient"
          onValue={(id) => {
            const of = recipe.ingredients.find((i) => i.id === id);
            if (of !== undefined) set({ perBase: { ...perBase, [of.id]: of.perBase } });
          }}
          options={recipe.ingredients.filter((i) => !(i.id in perBase)).map((i) => ({ value: i.id, name: i.name }))}
        />
      </div>
    </div>
  );
}

export function WaysFields({ recipe, put }: Edit) {
  const { questions } = recipe;
  const taken = questions.flatMap((q) => [q.id, ...q.ways.map((w) => w.id)]);
  const blank = (name: string): RecipeVariant => ({ id: freeId(name, taken), name: '', gives: '' });
  const to = (n: number, next: RecipeQuestion): void => put({ questions: changed(questions, n, next) });
  return (
    <Section
      name="Where cooks disagree"
      says="A question with its ways; the first one is yours unless another is chosen."
    >
      {questions.map((q, n) => (
        <div key={q.id} className="grid gap-2">
          <div className="flex items-end gap-2">
            <Field
              label="Question"
              className="flex-1"
              value={q.question}
              maxLength={400}
              onChange={(event) => to(n, { ...q, question: event.target.value })}
            />
            <Button
              className="h-11"
              aria-label={`Without the question ${q.question}`}
              onClick={() => {
                const gone = q.ways.map((w) => w.id);
                put({
                  questions: without(questions, n),
                  // a step of ways that are gone is everybody's again
                  steps: recipe.steps.map((s) => {
                    const { ways, ...step } = s;
                    const left = ways?.filter((w) => !gone.includes(w)) ?? [];
                    return left.length === 0 ? step : { ...step, ways: left };
                  }),
                });
              }}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </div>
          {q.ways.map((way, w) => (
            <WayFields
              key={way.id}
              way={way}
              recipe={recipe}
              onWay={(next) => to(n, { ...q, ways: changed(q.ways, w, next) })}
              onGone={q.ways.length > 2 ? () => to(n, { ...q, ways: without(q.ways, w) }) : undefined}
            />
          ))}
          <Button className="justify-self-start" onClick={() => to(n, { ...q, ways: [...q.ways, blank('way')] })}>
            One more way
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() => {
          const first = blank('way');
          const second = { ...first, id: freeId('way', [...taken, first.id]) };
          put({ questions: [...questions, { id: freeId('question', taken), question: '', ways: [first, second] }] });
        }}
      >
        A question
      </Button>
    </Section>
  );
}
