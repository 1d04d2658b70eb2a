/** A house's movements as EPCIS 2.0 events in JSON-LD (GS1 EPCIS and CBV 2.0; structure by the published JSON schema). */
import type { TracedMovement } from './lineage.ts';

export interface EpcisLot {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly useBy: string | null;
  readonly supplierName: string | null;
  readonly allergens: readonly string[];
}

interface Quantity {
  readonly epcClass: string;
  readonly quantity: number;
  readonly uom: 'KGM';
}

export interface EpcisEvent {
  readonly type: 'ObjectEvent' | 'TransformationEvent';
  readonly eventID: string;
  readonly eventTime: string;
  readonly eventTimeZoneOffset: string;
  readonly bizStep: string;
  readonly disposition?: string;
  readonly readPoint: { readonly id: string };
  readonly bizLocation: { readonly id: string };
  readonly action?: 'ADD' | 'OBSERVE' | 'DELETE';
  readonly quantityList?: readonly Quantity[];
  readonly inputQuantityList?: readonly Quantity[];
  readonly outputQuantityList?: readonly Quantity[];
  readonly 'zabrik:lots': readonly Readonly<Record<string, unknown>>[];
  readonly 'zabrik:movement': string;
}

export interface EpcisDocument {
  readonly '@context': readonly (string | Readonly<Record<string, string>>)[];
  readonly type: 'EPCISDocument';
  readonly schemaVersion: '2.0';
  readonly creationDate: string;
  readonly epcisBody: { readonly eventList: readonly EpcisEvent[] };
}

const STANDARD = 'https://ref.gs1.org/standards/epcis/2.0.0/epcis-context.jsonld';
/** Names of our own; the address is reserved and answers to nobody (RFC 2606). */
const OURS = 'https://zabrik.invalid/epcis/';

const kilograms = (mg: number): number => mg / 1_000_000;

/** Steps and states of the Core Business Vocabulary for mass that leaves the house. */
const waysOut: Readonly<Record<string, { readonly bizStep: string; readonly disposition: string }>> = {
  served: { bizStep: 'retail_selling', disposition: 'retail_sold' },
  staff: { bizStep: 'dispensing', disposition: 'dispensed' },
  waste: { bizStep: 'destroying', disposition: 'destroyed' },
  count: { bizStep: 'cycle_counting', disposition: 'in_progress' },
};

/**
 * Writes the movements that stand as events: what was received is observed, what was cut, cooked, split, merged or put into a tub is
 * transformed, what was served, eaten or thrown away ends. Waste and drip of a transformation are the difference between its lists.
 *
 * Shapes  movements: without those taken back and their counter-entries. `root`: an address of the house's own, without a slash at the
 *         end; lots stand under it by their code, since a kitchen rarely has a company prefix of its own.
 * Units   milligrams in; kilograms (KGM) out, exact to the milligram.
 * Source  EPCIS 2.0, CBV 2.0. Its JSON schema is in test/epcis.
 */
export function epcisDocument(
  movements: readonly TracedMovement[],
  lots: ReadonlyMap<string, EpcisLot>,
  { root, offset, at }: { readonly root: string; readonly offset: (at: string) => string; readonly at: string },
): EpcisDocument {
  const epcOf = (lotId: string): string => `${root}/lot/${lots.get(lotId)?.code ?? lotId}`;
  const told = (lotId: string): Record<string, unknown> => {
    const lot = lots.get(lotId);
    return {
      'zabrik:lot': epcOf(lotId),
      ...(lot === undefined
        ? {}
        : {
            'zabrik:name': lot.name,
            ...(lot.useBy === null ? {} : { 'zabrik:useBy': lot.useBy }),
            ...(lot.supplierName === null ? {} : { 'zabrik:supplier': lot.supplierName }),
            'zabrik:allergens': [...lot.allergens],
          }),
    };
  };
  const eventList = movements.flatMap((movement): EpcisEvent[] => {
    const sign = (n: 1 | -1): { lotId: string; massMg: number }[] =>
      movement.postings.flatMap((p) =>
        p.lotId !== null && p.massMg * n > 0 ? [{ lotId: p.lotId, massMg: p.massMg * n }] : [],
      );
    const inputs = sign(-1);
    const outputs = sign(1);
    const quantities = (list: readonly { lotId: string; massMg: number }[]): Quantity[] =>
      list.map((l) => ({ epcClass: epcOf(l.lotId), quantity: kilograms(l.massMg), uom: 'KGM' }));
    const common = {
      eventID: `urn:uuid:${movement.id}`,
      eventTime: movement.at,
      eventTimeZoneOffset: offset(movement.at),
      readPoint: { id: `${root}/place/kitchen` },
      bizLocation: { id: `${root}/place/kitchen` },
      'zabrik:lots': [...inputs, ...outputs].map((l) => told(l.lotId)),
      'zabrik:movement': movement.kind,
    };
    // a stock-take observes what was short and what was over; nothing went from one into the other
    const counted = movement.kind === 'count';
    if (inputs.length > 0 && outputs.length > 0 && !counted)
      return [
        {
          type: 'TransformationEvent',
          ...common,
          bizStep: 'creating_class_instance',
          disposition: 'in_progress',
          inputQuantityList: quantities(inputs),
          outputQuantityList: quantities(outputs),
        },
      ];
    const came: EpcisEvent[] =
      outputs.length === 0
        ? []
        : [
            {
              type: 'ObjectEvent',
              ...common,
              ...(inputs.length === 0
                ? {}
                : { eventID: `${common.eventID}#over`, 'zabrik:lots': outputs.map((l) => told(l.lotId)) }),
              action: counted ? 'OBSERVE' : 'ADD',
              bizStep: counted ? 'cycle_counting' : 'receiving',
              disposition: 'in_progress',
              quantityList: quantities(outputs),
            },
          ];
    if (inputs.length === 0) return came;
    const sink = movement.postings.find((p) => p.sink !== null && p.massMg > 0)?.sink ?? '';
    const way = waysOut[sink];
    return [
      {
        type: 'ObjectEvent',
        ...common,
        ...(came.length === 0 ? {} : { 'zabrik:lots': inputs.map((l) => told(l.lotId)) }),
        action: counted ? 'OBSERVE' : 'DELETE',
        bizStep: way?.bizStep ?? 'decommissioning',
        disposition: way?.disposition ?? 'inactive',
        quantityList: quantities(inputs),
      },
      ...came,
    ];
  });
  return {
    '@context': [STANDARD, { zabrik: OURS }],
    type: 'EPCISDocument',
    schemaVersion: '2.0',
    creationDate: at,
    epcisBody: { eventList },
  };
}
