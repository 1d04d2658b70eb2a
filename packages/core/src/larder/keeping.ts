/** How a lot is kept, and what freezing, thawing, opening and moving it do to its date. */

import { addDays, lastDay } from '../safety/judge.ts';
import type { ShelfLife } from '../safety/limit.ts';

export const placeKinds = ['cold-room', 'fridge', 'freezer', 'blast-chiller', 'ambient'] as const;
export type PlaceKind = (typeof placeKinds)[number];

/** A place of the house. What it holds: raw and ready-to-eat food stand apart. */
export interface Place {
  readonly id: string;
  readonly name: string;
  readonly kind: PlaceKind;
  readonly holds: 'raw' | 'ready' | 'any';
}

export type LotState = 'fresh' | 'frozen' | 'thawed';

export interface Keeping {
  readonly state: LotState;
  readonly placeId: string;
  /** Ready to eat: cooked, picked, cured; what is raw never stands above it. */
  readonly ready: boolean;
  /** Last day it may be used, "YYYY-MM-DD". */
  readonly useBy: string | null;
  readonly frozenOn: string | null;
  readonly thawedOn: string | null;
  readonly openedOn: string | null;
  /** Days it had left on the day it was frozen, that day counted; null while it never was. */
  readonly daysLeft: number | null;
}

export interface KeepingRules {
  /** Days a frozen lot of this kind keeps its quality: of use, not of safety. */
  readonly frozenDays: number;
  /** Days after thawing, the day of thawing as day one: never more than it had left when it was frozen. */
  readonly thawedDays: number;
  /** How long an opened pack keeps: what the house's profile says of this food, else what kitchens do. */
  readonly opened: Pick<ShelfLife, 'value' | 'citation'> & { readonly id?: string };
  /** It keeps only in the cold: what stands in a dry store by its nature does not. */
  readonly needsCold: boolean;
  /** Fish bought in frozen, whose pack may hold no air: opened before it thaws. */
  readonly sealedFish: boolean;
}

export type KeepingChange =
  | { readonly kind: 'move'; readonly to: Place }
  | { readonly kind: 'freeze'; readonly to: Place }
  | { readonly kind: 'thaw'; readonly to: Place }
  | { readonly kind: 'open' }
  | { readonly kind: 'date'; readonly useBy: string };

/** Why a change cannot be made at all. */
export type KeepingRefusal =
  | 'already-frozen'
  | 'not-frozen'
  | 'past-date'
  | 'freezing-takes-a-freezer'
  | 'thawing-takes-a-chiller'
  | 'frozen-stays-frozen'
  | 'already-opened'
  | 'already-there';

/** What someone has to have seen before it is done. */
export type KeepingConfirmation =
  | 'refreeze'
  | 'raw-among-ready'
  | 'date-later'
  | 'ready-among-raw'
  | 'out-of-the-cold'
  | 'past-date'
  | 'opened-frozen'
  | 'thaw-in-pack';

export interface Kept {
  readonly keeping: Keeping;
  readonly confirmations: readonly KeepingConfirmation[];
}

const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);

const earliest = (a: string | null, b: string): string => (a !== null && a < b ? a : b);

const apart = (keeping: Pick<Keeping, 'ready'>, to: Place): KeepingConfirmation[] => {
  if (!keeping.ready && to.holds === 'ready') return ['raw-among-ready'];
  return keeping.ready && to.holds === 'raw' ? ['ready-among-raw'] : [];
};

/** Past its last day; without a date nobody can say. */
export const isPastDate = (useBy: string | null, today: string): boolean => useBy !== null && useBy < today;

/** What has to be seen before food is set down in a place: raw and ready apart, and nothing that needs the cold on a shelf. */
export const confirmationsToPlace = (
  keeping: Pick<Keeping, 'ready'>,
  to: Place,
  { needsCold }: Pick<KeepingRules, 'needsCold'>,
): KeepingConfirmation[] => [
  ...apart(keeping, to),
  ...(needsCold && to.kind === 'ambient' ? (['out-of-the-cold'] as const) : []),
];

/**
 * What a change makes of a lot's keeping, or why it cannot be.
 *
 * Only freezing and a date set by hand give a later date; both say so (freezing by what it is, a date by its confirmation). Thawing gives back
 * at most the days the lot had left when it was frozen, in the sense of the US Food Code's 3-501.17: freezing stops the count and
 * does not start it anew.
 *
 * Shapes  today: "YYYY-MM-DD" in the house's time zone.
 * Keeps   days fresh before freezing plus days after thawing are never more than it had at the start.
 *
 * @example frozen on its last day but one (2 days left), thawed a month later with a rule of 3 days -> use by tomorrow
 */
export function changeKeeping(
  keeping: Keeping,
  change: KeepingChange,
  today: string,
  rules: KeepingRules,
): Kept | KeepingRefusal {
  const past = isPastDate(keeping.useBy, today);
  switch (change.kind) {
    case 'move': {
      if (change.to.id === keeping.placeId) return 'already-there';
      const intoFreezer = change.to.kind === 'freezer';
      if (intoFreezer && keeping.state !== 'frozen') return 'freezing-takes-a-freezer';
      if (!intoFreezer && keeping.state === 'frozen') return 'frozen-stays-frozen';
      return {
        keeping: { ...keeping, placeId: change.to.id },
        confirmations: confirmationsToPlace(keeping, change.to, rules),
      };
    }
    case 'freeze': {
      if (keeping.state === 'frozen') return 'already-frozen';
      if (change.to.kind !== 'freezer') return 'freezing-takes-a-freezer';
      if (past) return 'past-date';
      const left = keeping.useBy === null ? null : daysBetween(today, keeping.useBy) + 1;
      return {
        keeping: {
          ...keeping,
          state: 'frozen',
          placeId: change.to.id,
          frozenOn: today,
          daysLeft: left,
          useBy: addDays(today, rules.frozenDays),
        },
        confirmations: [...(keeping.state === 'thawed' ? (['refreeze'] as const) : []), ...apart(keeping, change.to)],
      };
    }
    case 'thaw': {
      if (keeping.state !== 'frozen') return 'not-frozen';
      if (change.to.kind !== 'fridge' && change.to.kind !== 'cold-room') return 'thawing-takes-a-chiller';
      const days = Math.max(1, Math.min(rules.thawedDays, keeping.daysLeft ?? rules.thawedDays));
      return {
        keeping: {
          ...keeping,
          state: 'thawed',
          placeId: change.to.id,
          thawedOn: today,
          useBy: earliest(past ? keeping.useBy : null, addDays(today, days - 1)),
        },
        confirmations: [
          ...(rules.sealedFish && keeping.openedOn === null ? (['thaw-in-pack'] as const) : []),
          ...apart(keeping, change.to),
        ],
      };
    }
    case 'open': {
      if (keeping.openedOn !== null) return 'already-opened';
      return {
        keeping: {
          ...keeping,
          openedOn: today,
          useBy: earliest(keeping.useBy, lastDay(rules.opened, today)),
        },
        confirmations: [
          ...(past ? (['past-date'] as const) : []),
          ...(keeping.state === 'frozen' ? (['opened-frozen'] as const) : []),
        ],
      };
    }
    case 'date': {
      if (change.useBy === keeping.useBy) return 'already-there';
      const later = keeping.useBy !== null && change.useBy > keeping.useBy;
      return { keeping: { ...keeping, useBy: change.useBy }, confirmations: later ? ['date-later'] : [] };
    }
  }
}

/** What lots of one kind become when they are put together: the oldest date wins, and the worst of their states. */
export function mergeKeeping(keepings: readonly [Keeping, ...Keeping[]]): Keeping {
  const [first, ...others] = keepings;
  const lowest = <T extends string | number>(a: T | null, b: T | null): T | null =>
    a === null ? b : b === null ? a : a < b ? a : b;
  const highest = (a: string | null, b: string | null): string | null =>
    a === null ? b : b === null ? a : a > b ? a : b;
  return others.reduce<Keeping>(
    (m, k) => ({
      state: m.state === 'thawed' || k.state === 'thawed' ? 'thawed' : m.state,
      placeId: m.placeId,
      ready: m.ready && k.ready,
      useBy: lowest(m.useBy, k.useBy),
      frozenOn: lowest(m.frozenOn, k.frozenOn),
      thawedOn: highest(m.thawedOn, k.thawedOn),
      openedOn: lowest(m.openedOn, k.openedOn),
      daysLeft: lowest(m.daysLeft, k.daysLeft),
    }),
    first,
  );
}
