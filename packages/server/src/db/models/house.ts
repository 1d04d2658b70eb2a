import type { HouseSettings } from '../houseSettings.ts';
import { filled, json, key, orNull, type RowOf, table, text, uuid, when, whole } from '../table.ts';

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
    version: filled(whole),
    /** Of the code that lets the head chef in who has forgotten the password. */
    recoveryHash: orNull(text()),
  },
  { notInFile: 'stands at the head of the file' },
);

export type HouseRow = RowOf<typeof HouseTable>;
