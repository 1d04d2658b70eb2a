import { big, filled, json, key, orNull, type RowOf, table, text, uuid, when } from '../table.ts';

/** What was done to how a lot is kept, with what was before and after. Never changed. */
export const LotEventTable = table(
  'lot_event',
  {
    id: key(uuid),
    seq: filled(big),
    houseId: key(uuid),
    lotId: uuid,
    kind: text<'move' | 'freeze' | 'thaw' | 'open' | 'date' | 'reserve' | 'hold' | 'reading' | 'label' | 'undo'>(),
    before: json<Readonly<Record<string, string | number | boolean | null>>>(),
    after: json<Readonly<Record<string, string | number | boolean | null>>>(),
    note: orNull(text()),
    undoes: orNull(uuid),
    personId: uuid,
    at: key(when),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);

export type LotEventRow = RowOf<typeof LotEventTable>;
