import type { HouseSettings } from '../houseSettings.ts';
import { filled, json, key, type RowOf, table, text, uuid, when } from '../table.ts';

/** A kitchen and its settings. */
export const HouseTable = table(
  'house',
  {
    id: key(uuid),
    slug: text(),
    name: text(),
    currency: text(),
    timezone: text(),
    settings: json<HouseSettings>(),
    createdAt: filled(when),
  },
  { notInFile: 'stands at the head of the file' },
);

export type HouseRow = RowOf<typeof HouseTable>;
