import { allergenWords, sayableAllergens } from '@zabrik/core';
import { useId, useState } from 'react';
import { Button } from '../kit/Button.tsx';
import { Toggle } from '../kit/Toggle.tsx';

interface Props {
  readonly name: string;
  readonly has: readonly string[];
  /** Nobody has said them yet, not even that there are none. */
  readonly unsaid: boolean;
  readonly onSay: (allergens: readonly string[]) => void;
}

/** What something has of the listed allergens: said by touch, by the cereal and the nut; "none" has to be said as well. */
export function AllergensSaid({ name, has, unsaid, onSay }: Props) {
  const [open, setOpen] = useState(unsaid);
  const id = useId();
  const words = unsaid
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
        className={`min-h-11 text-left text-[14px] underline ${unsaid ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
        onClick={() => setOpen(!open)}
      >
        {words}
      </button>
      {open && (
        <fieldset id={id} className="min-w-0 border-0 p-0">
          <legend className="sr-only">Allergens of {name}</legend>
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
