/** What a lot's label says. How it is laid out on paper is the printer's matter; what must stand on it is decided here. */
import { carryAllergens } from './allergens.ts';

export interface LabelledLot {
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
  readonly pieces: number;
  readonly madeOn: string;
  readonly useBy: string | null;
  readonly state: 'fresh' | 'frozen' | 'thawed';
  readonly frozenOn: string | null;
  readonly thawedOn: string | null;
  readonly placeName: string;
  readonly ready: boolean;
  readonly allergens: readonly string[];
  readonly supplierName: string | null;
  readonly origin: string | null;
}

export interface LabelContent {
  readonly code: string;
  /** What the square code says: the lot as company-internal data of GS1, application identifier 91. */
  readonly element: string;
  readonly name: string;
  readonly massMg: number;
  readonly pieces: number;
  readonly dates: readonly { readonly kind: 'made' | 'frozen' | 'thawed' | 'use-by'; readonly day: string }[];
  readonly allergens: readonly string[];
  readonly ready: boolean;
  readonly place: string;
  readonly from: string | null;
  readonly by: string;
  readonly reprint: boolean;
}

/** Application identifier for data of a company's own: needs no company prefix, and nobody else gives it a meaning. */
export const OWN_LABEL_AI = '91';

/**
 * What stands on a label. Frozen and thawed days only where they are so; the use-by last, where the eye goes.
 *
 * Keeps   every allergen of the lot stands on it, known by the list or not.
 */
export function labelOf(lot: LabelledLot, by: string, printedBefore: number): LabelContent {
  return {
    code: lot.code,
    element: `${OWN_LABEL_AI}${lot.code}`,
    name: lot.name,
    massMg: lot.massMg,
    pieces: lot.pieces,
    dates: [
      { kind: 'made', day: lot.madeOn },
      ...(lot.frozenOn === null ? [] : [{ kind: 'frozen' as const, day: lot.frozenOn }]),
      ...(lot.state !== 'thawed' || lot.thawedOn === null ? [] : [{ kind: 'thawed' as const, day: lot.thawedOn }]),
      ...(lot.useBy === null ? [] : [{ kind: 'use-by' as const, day: lot.useBy }]),
    ],
    allergens: carryAllergens(lot.allergens),
    ready: lot.ready,
    place: lot.placeName,
    from:
      lot.supplierName === null
        ? lot.origin
        : lot.origin === null
          ? lot.supplierName
          : `${lot.supplierName}, ${lot.origin}`,
    by,
    reprint: printedBefore > 0,
  };
}
