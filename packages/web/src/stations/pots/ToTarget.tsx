import { foodOfIngredient } from '@zabrik/catalogue/composition';
import { type FillingPart, formatMass, type OffTarget, toTarget } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../kit/Button.tsx';
import { NumField } from '../../kit/NumField.tsx';
import type { Scaling } from './useScaling.ts';

const why: Readonly<Record<OffTarget, string>> = {
  too_fat_already: 'The pieces are fatter than that already: leaner ones, or less fat wanted.',
  fat_too_lean: 'The fat itself is no fatter than that.',
  too_salt_already: 'What goes in is saltier than that already.',
  nobody_knows: 'Nobody knows what one of the pieces is made of: no share of the whole can be said.',
};

interface Props {
  readonly s: Scaling;
  /** All that goes in, as it is now, by the ingredient it is; without one: of the base. */
  readonly parts: readonly (FillingPart & { readonly as: string })[];
}

/** A forcemeat or a sausage to a target: so much fat and so much salt of the whole mix; the shares are set after it. */
export function ToTarget({ s, parts }: Props) {
  const { recipe, scaled } = s;
  const [fat, setFat] = useState<number>();
  const [salt, setSalt] = useState<number>();
  const fatId = recipe.ingredients.find((i) => i.accepts?.some((c) => c.endsWith('-fat')))?.id;
  const saltId = recipe.ingredients.find((i) => i.id === 'salt')?.id;
  if (scaled === undefined || (fatId === undefined && saltId === undefined)) return null;
  const mass = (id: string | undefined): number =>
    parts.reduce((sum, p) => sum + (p.as === id && id !== undefined ? p.massMg : 0), 0);
  const fatPart = parts.find((p) => p.as === fatId && p.of !== undefined);
  const found = toTarget(
    parts.filter((p) => p.as !== fatId && p.as !== saltId),
    { of: fatPart?.of ?? foodOfIngredient('fat'), massMg: mass(fatId) },
    mass(saltId),
    {
      ...(fat === undefined || fatId === undefined ? {} : { fat: fat / 100 }),
      ...(salt === undefined || saltId === undefined ? {} : { salt: salt / 100 }),
    },
  );
  const asked = fat !== undefined || salt !== undefined;
  return (
    <div className="mt-3 border-t border-line pt-3">
      <h3 className="text-[15px] font-bold">To a target</h3>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {fatId !== undefined && (
          <NumField
            label="Fat of the mix"
            unit="%"
            className="w-36"
            value={fat ?? null}
            min={0.1}
            max={80}
            onNone={() => setFat(undefined)}
            onValue={setFat}
          />
        )}
        {saltId !== undefined && (
          <NumField
            label="Salt of the mix"
            unit="%"
            className="w-36"
            value={salt ?? null}
            min={0.1}
            max={5}
            decimals={2}
            onNone={() => setSalt(undefined)}
            onValue={setSalt}
          />
        )}
        {asked && typeof found !== 'string' && (
          <Button
            variant="strong"
            className="h-11"
            onClick={() => {
              if (fat !== undefined && fatId !== undefined) s.setShare(fatId, found.fatMg / scaled.baseMg);
              if (salt !== undefined && saltId !== undefined) s.setShare(saltId, found.saltMg / scaled.baseMg);
            }}
          >
            Make it so
          </Button>
        )}
      </div>
      {asked && (
        <p className={`mt-2 ${typeof found === 'string' ? 'text-alarm' : ''}`} role="status" data-testid="to-target">
          {typeof found === 'string'
            ? why[found]
            : `${[
                ...(fat === undefined ? [] : [`${formatMass(found.fatMg)} of fat`]),
                ...(salt === undefined ? [] : [`${formatMass(found.saltMg)} of salt`]),
              ].join(', ')} to ${formatMass(scaled.baseMg)} of ${recipe.baseName}.`}
        </p>
      )}
    </div>
  );
}
