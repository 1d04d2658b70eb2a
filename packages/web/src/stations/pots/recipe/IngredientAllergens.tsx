import { allergenWords, type RecipeIngredient, sayableAllergens } from '@zabrik/core';
import { useId, useState } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';

interface Props {
  readonly ingredient: RecipeIngredient;
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
              <Toggle
                key={allergen}
                on={has.includes(allergen)}
                className={`${allergen.includes('/') ? 'border-dashed' : ''}`}
                onPress={() => toggle(allergen)}
              >
                {allergen.includes('/') ? allergen.split('/')[1]?.replaceAll('-', ' ') : allergen}
              </Toggle>
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
