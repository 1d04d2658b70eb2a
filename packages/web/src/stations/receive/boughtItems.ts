import type { Catalogue } from '../../app/queries.ts';

/** Everything that can be bought, as a choice: an animal in one of its forms, or goods. */
export const boughtItems = (catalogue: Catalogue | undefined): { readonly value: string; readonly name: string }[] =>
  [
    ...(catalogue?.species ?? []).flatMap((s) =>
      s.forms.filter((f) => f.purchase).map((f) => ({ value: `${s.id}/${f.id}`, name: `${s.name}, ${f.name}` })),
    ),
    ...(catalogue?.goods ?? []).map((g) => ({ value: `goods/${g.id}`, name: g.name })),
  ].sort((a, b) => a.name.localeCompare(b.name));

/** What such a choice is called in an order or in a supplier's terms. */
export const itemId = (of: {
  readonly species: string | null;
  readonly form: string | null;
  readonly goods: string | null;
}): string => (of.goods === null ? `${of.species}/${of.form}` : `goods/${of.goods}`);
