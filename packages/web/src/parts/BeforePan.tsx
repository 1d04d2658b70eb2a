import { outBeforePan } from '@zabrik/catalogue/portioning';

interface Props {
  /** What kinds of raw pieces, with the word for each; those that go into the pan cold are passed over. */
  readonly of: readonly { readonly category: string | null; readonly name?: string }[];
}

/** How long meat stands out of the chiller before the pan. Says nothing of what goes in from the cold. */
export function BeforePan({ of }: Props) {
  const out = of.filter(({ category }) => outBeforePan(category) !== undefined);
  const minutes = outBeforePan(out[0]?.category ?? null);
  if (minutes === undefined) return null;
  const names = out.flatMap(({ name }) => name ?? []).join(', ');
  return (
    <p className="text-[15px]" data-testid="before-pan">
      {names === '' ? 'Out' : `${names}: out`} of the chiller{' '}
      <strong className="figure">
        {minutes.low} to {minutes.high} min
      </strong>{' '}
      before the pan, and straight into it.{' '}
      <span className="text-ink-soft">Your own limit on time out of the chiller comes first.</span>
    </p>
  );
}
