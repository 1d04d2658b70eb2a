import type { DeliveryLine } from '@zabrik/contract';
import { big, day, filled, json, key, orNull, table, text, texts, uuid, when, whole } from '../table.ts';

/** A line of a delivery: accepted it is a lot and a movement, refused it is neither. */
export const DeliveryLineTable = table(
  'delivery_line',
  {
    lotId: orNull(uuid),
    houseId: uuid,
    grossMg: orNull(big),
    tareMg: big,
    invoiceMg: orNull(big),
    paidMinor: big,
    temperatureCentiC: orNull(whole),
    origin: orNull(text()),
    landedOn: orNull(day),
    note: orNull(text()),
    personId: uuid,
    at: when,
    movementId: orNull(uuid),
    id: key(uuid),
    deliveryId: uuid,
    species: orNull(text()),
    form: orNull(text()),
    goods: orNull(text()),
    animals: orNull(whole),
    useBy: orNull(day),
    verdict: filled(text<'accepted' | 'part' | 'refused'>()),
    refusedMg: filled(big),
    refusedReason: orNull(text()),
    inspection: filled(json<DeliveryLine['inspection']>()),
    details: filled(json<DeliveryLine['details'] & { readonly came?: DeliveryLine['came'] }>()),
    boxes: filled(json<DeliveryLine['boxes']>()),
    codes: filled(texts),
    orderPosition: orNull(whole),
  },
  { inFile: { order: 'at, id' } },
);
