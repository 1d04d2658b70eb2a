import type { SupplierTerms } from '@zabrik/contract';
import { filled, json, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** Whom it buys from. */
export const SupplierTable = table(
  'supplier',
  {
    id: key(uuid),
    houseId: uuid,
    name: text(),
    /** What is agreed with them; what is left out nobody has said. */
    terms: filled(json<Partial<SupplierTerms>>()),
    version: filled(whole),
    /** Bought from no more: keeps its name in the books. */
    retiredAt: orNull(when),
  },
  { inFile: { order: 'name' } },
);
