import { allergenWords, hasAllergen } from '@zabrik/core';
import { useMe } from '../app/queries.ts';
import { Notice } from '../kit/Notice.tsx';

/** Said to whoever must not touch it, by what the head chef wrote down of them: before the work, and never in its way. */
export function NotForMe({ has }: { readonly has: readonly string[] }) {
  const { data: me } = useMe();
  const mine = (me?.mustNotTouch ?? []).filter((allergen) => hasAllergen(has, allergen));
  if (me == null || mine.length === 0) return null;
  return (
    <Notice tone="alarm">
      {me.person.name} must not touch {allergenWords(mine).join(', ')}: this has it. Let somebody else take it.
    </Notice>
  );
}
