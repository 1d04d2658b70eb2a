import type { House, ListedRecipe } from '@zabrik/contract';
import {
  asksForCure,
  asMadeHere,
  baseForWant,
  type Cure,
  curingKinds,
  floorM2,
  outsideRange,
  type Recipe,
  Refusal,
  readDecimal,
  type ScaledRecipe,
  scaleRecipe,
  unitName,
  type Want,
  waysOf,
  withCure,
  withWays,
} from '@zabrik/core';
import { useMemo, useState } from 'react';
import { useCatalogue } from '../../app/queries.ts';
import { litresIn } from '../../kit/litresIn.ts';
import { massIn } from '../../kit/readers.ts';
import { isOffered, offerOf, type PotLot, preselected } from './offers.ts';

/** Lots that go into one batch: more, the contract does not take. */
export const MOST_LOTS = 200;

export interface Wish {
  readonly kind: 'all' | Want['kind'];
  readonly amount: string;
}

/** What is wanted as the core takes it; undefined while it cannot be read, or when all there is is meant. */
const wantOf = (wish: Wish, recipe: Recipe): Want | undefined => {
  if (wish.kind === 'all' || wish.amount.trim() === '') return undefined;
  if (wish.kind === 'mass') {
    const read = recipe.output.measure === 'litres' ? litresIn(wish.amount) : undefined;
    const bare = /^\s*[\d.,]+\s*$/.test(wish.amount);
    const massMg = read === undefined ? massIn(bare ? `${wish.amount} ${unitName('kg')}` : wish.amount) : read * 1e6;
    return massMg === undefined || massMg <= 0 ? undefined : { kind: 'mass', massMg: Math.round(massMg) };
  }
  const count = Number(wish.amount);
  return Number.isInteger(count) && count > 0 ? { kind: wish.kind, count } : undefined;
};

/** The curing salt at hand: its kind, its share of nitrite as the label says, and what is aimed at. */
export interface Tin {
  readonly kind: (typeof curingKinds)[number]['id'] | '';
  readonly percent: string;
  readonly ppm: string;
}
const noTin: Tin = { kind: '', percent: '', ppm: '' };

/** What a tin says, when it says enough. */
export function cureOf(tin: Tin): Cure | undefined {
  const kind = curingKinds.find((k) => k.id === tin.kind);
  const nitriteShare = readDecimal(tin.percent) / 100;
  const ppm = readDecimal(tin.ppm);
  const fits = kind !== undefined && nitriteShare >= kind.low - 1e-9 && nitriteShare <= kind.high + 1e-9;
  return fits && ppm > 0 && ppm <= 200 ? { nitriteShare, ppm } : undefined;
}

/** The batch that a recipe scales to with the lots, ways, shares and wishes of the moment. */
export function useScaling(listed: ListedRecipe, lots: readonly PotLot[], house: House | undefined) {
  /** What somebody said of a lot, in or out: it stands, whatever the usual choice becomes when another screen takes something. */
  const [said, setSaid] = useState<ReadonlyMap<string, boolean>>(new Map());
  /** Only what was said is in: what comes into the larder meanwhile is not. */
  const [only, setOnly] = useState(false);
  const [ways, setWays] = useState<readonly string[]>([]);
  const [vesselId, setVesselId] = useState('');
  const [onHand, setOnHand] = useState<Readonly<Record<string, string>>>({});
  const [shares, setShares] = useState<Readonly<Record<string, number>>>({});
  const [wish, setWish] = useState<Wish>({ kind: 'all', amount: '' });

  const [tin, setTin] = useState<Tin>(noTin);
  const asks = asksForCure(listed.recipe, ways);
  const cure = useMemo(() => (asks ? cureOf(tin) : undefined), [asks, tin]);

  const recipe = useMemo(() => {
    const standing = waysOf(listed.recipe, ways).map((w) => w.id);
    const made = withWays(listed.recipe, ways, shares);
    return asMadeHere(cure === undefined ? made : withCure(made, cure), standing, listed.batches);
  }, [listed, ways, shares, cure]);
  const shown = useMemo(
    () =>
      lots
        .filter((lot) => isOffered(recipe, lot))
        .sort((a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code)),
    [lots, recipe],
  );
  const { data: catalogue } = useCatalogue();
  const usual = useMemo(() => preselected(recipe, shown, catalogue?.species ?? []), [recipe, shown, catalogue]);
  const isIn = (lot: PotLot): boolean => said.get(lot.id) ?? (!only && usual.has(lot.id));
  const chosen = shown.filter(isIn).slice(0, MOST_LOTS);
  const vessel = house?.vessels.find((v) => v.id === vesselId);
  const onHandMg = Object.fromEntries(
    Object.entries(onHand).flatMap(([id, text]) => {
      const mg = text.trim() === '' ? undefined : massIn(text);
      return mg === undefined ? [] : [[id, mg]];
    }),
  );
  const want = wantOf(wish, recipe);
  const offered = useMemo(() => chosen.map(offerOf), [chosen]);
  const wantedBaseMg = want === undefined ? undefined : baseForWant(recipe, want);
  let scaled: ScaledRecipe | undefined;
  try {
    scaled = scaleRecipe(recipe, offered, {
      onHandMg,
      vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
      ...(vessel?.shape === undefined ? {} : { panFloorM2: floorM2(vessel.shape) }),
      ...(wantedBaseMg === undefined ? {} : { wantedBaseMg }),
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
  }
  return {
    recipe,
    shown,
    chosen,
    isIn,
    turn: (lot: PotLot): void => setSaid((before) => new Map(before).set(lot.id, !isIn(lot))),
    /** These and no others. */
    only: (lotIds: ReadonlySet<string>): void => {
      setOnly(true);
      setSaid(new Map(shown.map((lot) => [lot.id, lotIds.has(lot.id)])));
    },
    ways: waysOf(listed.recipe, ways).map((w) => w.id),
    choose: (of: readonly string[], id: string): void =>
      setWays((before) => [...before.filter((w) => !of.includes(w)), id]),
    vessel,
    vesselId,
    setVesselId,
    onHand,
    setOnHand: (id: string, text: string): void => setOnHand((before) => ({ ...before, [id]: text })),
    onHandMg,
    shares,
    setShare: (id: string, share: number | undefined): void =>
      setShares((before) => {
        const { [id]: _, ...rest } = before;
        return share === undefined ? rest : { ...rest, [id]: share };
      }),
    outside: outsideRange(listed.recipe, shares),
    asksForCure: asks,
    cure,
    tin,
    setTin,
    wish,
    setWish,
    want,
    wantedBaseMg,
    scaled,
  };
}
export type Scaling = ReturnType<typeof useScaling>;
