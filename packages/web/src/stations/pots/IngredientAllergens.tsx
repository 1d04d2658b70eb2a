import { allergenWords, sayableAllergens, type UseIngredient } from '@zabrik/core';
import { useId, useState } from 'react';
import { Button } from '../../kit/Button.tsx';

interface Props {
  readonly ingredient: UseIngredient;
  readonly onSay: (allergens: readonly string[]) => void;
}

/** What an ingredient has of the listed allergens: said by touch, by the cereal and the nut; "none" has to be said as well. */
export function IngredientAllergens({ ingredient, onSay }: Props) {
  const [open, setOpen] = useState(ingredient.unsaid === true);
  const id = useId();
  const has = ingredient.allergens;
  const words =
    ingredient.unsaid === true
      ? 'allergens not said yet'
      : has.length === 0
        ? 'none of the listed allergens'
        : allergenWords(has).join(', ');
  const toggle = (allergen: string): void =>
    onSay(has.includes(allergen) ? has.filter((a) => a !== allergen) : [...has, allergen]);
  return (
    <div className="min-w-0">
      <button
        type="button"
        aria-expanded={open}
        aria-controls={id}
        className={`min-h-11 text-left text-[14px] underline ${ingredient.unsaid === true ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
        onClick={() => setOpen(!open)}
      >
        {words}
      </button>
      {open && (
        <fieldset id={id} className="min-w-0 border-0 p-0">
          <legend className="sr-only">Allergens of {ingredient.name}</legend>
          <div className="flex flex-wrap gap-1.5">
            {sayableAllergens.map((allergen) => (
              <button
                key={allergen}
                type="button"
                aria-pressed={has.includes(allergen)}
                className={`min-h-11 rounded-md border-[1.5px] border-line-strong bg-white px-2.5 text-[14px] aria-pressed:border-ink aria-pressed:bg-flow aria-pressed:text-white ${allergen.includes('/') ? 'border-dashed' : ''}`}
                onClick={() => toggle(allergen)}
              >
                {allergen.includes('/') ? allergen.split('/')[1]?.replaceAll('-', ' ') : allergen}
              </button>
            ))}
            <Button className="h-11" onClick={() => onSay([])}>
              None of them
            </Button>
          </div>
        </fieldset>
      )}
    </div>
  );
}
