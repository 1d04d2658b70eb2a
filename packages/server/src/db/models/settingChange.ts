import { json, key, orNull, table, text, uuid, when } from '../table.ts';

/** What somebody changed of the house: a setting, a person. Written once. */
export const SettingChangeTable = table(
  'setting_change',
  {
    id: key(uuid),
    houseId: key(uuid),
    at: key(when),
    personId: uuid,
    what: text(),
    about: orNull(text()),
    before: orNull(json<unknown>()),
    after: orNull(json<unknown>()),
  },
  { inFile: { order: 'at, id' } },
);
