/** What came out, in pieces: the pieces that went in, things put together, pieces of the recipe's own size. */
import { categoryOfForm } from '@zabrik/catalogue';
import { type Recipe, shortName } from '@zabrik/core';
import { readSpecies } from '../../db/plans.ts';
import type { HeldLot } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import type { InCommand, Services } from '../../services.ts';

type Base = readonly { readonly lot: HeldLot; readonly massMg: number }[];

/** How many pieces of these lots went in; of one that a part was taken of, its share of them. */
const piecesIn = (base: Base): number =>
  Math.round(base.reduce((sum, { lot, massMg }) => sum + (lot.pieces * massMg) / Math.max(1, lot.massMg), 0));

/** What the pieces are that stay pieces, only cooked or cured; undefined where the recipe makes something else of them, or of several kinds. */
export async function keptAsPieces(
  { db }: Services,
  { actor, transaction }: InCommand,
  { keepsPieces }: Recipe,
  base: Base,
): Promise<Pick<NewLot, 'name' | 'form' | 'category' | 'supplierId' | 'pieces'> | undefined> {
  const [first] = base;
  if (keepsPieces === undefined || first === undefined) return undefined;
  const kindOf = ({ lot }: (typeof base)[number]): string =>
    `${lot.species}/${lot.form}/${lot.pieceId}/${lot.category}`;
  if (base.some((b) => kindOf(b) !== kindOf(first))) return undefined;
  const { species: speciesId } = first.lot;
  const species = (await readSpecies(db, actor.houseId, transaction)).get(speciesId ?? '');
  const form = species?.forms.find((f) => f.id === keepsPieces.form)?.id ?? null;
  const what = first.lot.kind === 'delivery' && species !== undefined ? species.name : shortName(first.lot.name);
  const suppliers = new Set(base.map((b) => b.lot.supplierId));
  return {
    name: `${what}, ${keepsPieces.word}`,
    form,
    category: form === null || species === undefined ? null : categoryOfForm(species.id, form),
    supplierId: suppliers.size === 1 ? first.lot.supplierId : null,
    pieces: Math.max(1, piecesIn(base)),
  };
}

/** Pieces of the recipe's own size that came out: by what was weighed, not by what was expected. */
export const piecesOf = (recipe: Recipe, outputMg: number): number | undefined =>
  recipe.piece === undefined ? undefined : Math.max(1, Math.floor(outputMg / (recipe.piece.grams * 1_000) + 1e-9));

/** Things put together: a mould is one until it is cut, and so many rolls as went in are rolls still. Undefined for what is no such thing. */
export const thingsMade = (recipe: Recipe, base: Base): number | undefined =>
  recipe.kind === 'assembly' ? Math.max(1, piecesIn(base.filter(({ lot }) => lot.kind !== 'batch'))) : undefined;
