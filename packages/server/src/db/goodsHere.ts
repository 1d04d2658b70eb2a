/** Vegetables, dairy, dry and bought goods: those of the catalogue, and those a house has added to its own. */
import { allGoods, type Goods, goodsById } from '@zabrik/catalogue';

let ownNow: () => readonly Goods[] = () => [];

/** Where a house's own are read: of the house that is worked for, each time. */
export const goodsComeFrom = (own: () => readonly Goods[]): void => {
  ownNow = own;
};

/** All that can be bought as goods in the house that is worked for. */
export const goodsHere = (): readonly Goods[] => [...allGoods, ...ownNow()];

/** The goods of that id; undefined where neither the catalogue nor the house has them. */
export const goodsOf = (id: string): Goods | undefined => goodsById.get(id) ?? ownNow().find((g) => g.id === id);
