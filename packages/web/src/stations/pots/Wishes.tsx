import type { ListedRecipe } from '@zabrik/contract';
import { figureTyped, formatMass, inKilograms, type Recipe, SWELLS, stuffingFor, unitName } from '@zabrik/core';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { unitWord } from '../../parts/amountIn.ts';
import { useBoned } from './potQueries.ts';
import type { Scaling } from './useScaling.ts';

const unitOf = (recipe: Recipe): 'l' | 'kg' => (recipe.output.measure === 'litres' ? 'l' : 'kg');

/** What is wanted of a recipe: how much, for what it fills, and by which school. */
export function Wishes({ recipe, s }: { readonly recipe: Recipe; readonly s: Scaling }) {
  const kinds = [
    { id: 'all' as const, name: 'All there is' },
    {
      id: 'mass' as const,
      name: recipe.output.measure === 'litres' ? `So many ${unitWord('l').toLowerCase()}` : 'So much',
    },
    ...(recipe.gramsPerPlate === undefined ? [] : [{ id: 'plates' as const, name: 'So many plates' }]),
    ...(recipe.piece === undefined ? [] : [{ id: 'pieces' as const, name: `So many ${recipe.piece.name}` }]),
  ];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <fieldset
        className="flex flex-wrap overflow-hidden rounded-md border-[1.5px] border-line-strong p-0"
        aria-label="What is wanted"
      >
        {kinds.map((k) => (
          <Toggle
            key={k.id}
            on={s.wish.kind === k.id}
            shape="part"
            className="font-head font-semibold"
            onPress={() => s.setWish({ kind: k.id, amount: s.wish.amount })}
          >
            {k.name}
          </Toggle>
        ))}
      </fieldset>
      {s.wish.kind !== 'all' && (
        <span className="flex items-center gap-1.5">
          <Field
            aria-label={s.wish.kind === 'mass' ? unitWord(unitOf(recipe)) : 'How many'}
            className="figure w-24! text-lg"
            inputMode="decimal"
            value={s.wish.amount}
            onChange={(event) => s.setWish({ kind: s.wish.kind, amount: event.target.value })}
          />
          {s.wish.kind === 'mass' ? unitName(unitOf(recipe)) : ''}
        </span>
      )}
    </div>
  );
}

/** What lies boned out and waits for this: how much of it fills each, by what came out. A touch makes that the wish. */
export function ToFill({ s }: { readonly s: Scaling }) {
  const { data } = useBoned();
  const boned = s.recipe.fills === true ? (data?.boned ?? []) : [];
  return boned.length === 0 ? null : (
    <ul className="flex flex-wrap gap-2" aria-label="To fill">
      {boned.slice(0, 6).map((b) => {
        const { massMg, usualLowMg, usualHighMg } = stuffingFor({ ...b, swell: SWELLS.bread });
        return (
          <li key={b.lotId}>
            <Button
              className="h-auto! min-h-13 max-w-full py-1 text-left leading-tight"
              onClick={() => s.setWish({ kind: 'mass', amount: figureTyped('kg', inKilograms(massMg), 3) })}
            >
              <span className="min-w-0">
                <span className="block truncate">
                  Fill {b.code} {b.name}: <span className="figure">{formatMass(massMg)}</span>
                </span>
                <span className="block text-[13px] font-normal text-ink-soft">
                  for {formatMass(b.bonesMg + b.fleshOutMg)} that came out; cooks take {formatMass(usualLowMg)} to{' '}
                  {formatMass(usualHighMg)}
                </span>
              </span>
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

export function Questions({ listed, s }: { readonly listed: ListedRecipe; readonly s: Scaling }) {
  return (
    <>
      {listed.recipe.questions.map((q) => {
        const chosen = q.ways.find((w) => s.ways.includes(w.id));
        return (
          <div key={q.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="w-40 text-[15px] font-semibold">{q.question}</span>
            <fieldset
              className="flex flex-wrap overflow-hidden rounded-md border-[1.5px] border-line-strong p-0"
              aria-label={q.question}
            >
              {q.ways.map((w) => (
                <Toggle
                  key={w.id}
                  on={s.ways.includes(w.id)}
                  shape="part"
                  className="text-left"
                  onPress={() =>
                    s.choose(
                      q.ways.map((other) => other.id),
                      w.id,
                    )
                  }
                >
                  {w.name}
                </Toggle>
              ))}
            </fieldset>
            <span className="min-w-40 flex-1 text-[14px] leading-snug text-ink-soft">{chosen?.gives}</span>
          </div>
        );
      })}
    </>
  );
}
