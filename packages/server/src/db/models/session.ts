import { json, key, table, text, when } from '../table.ts';

/** Who is signed in, where. */
export const SessionTable = table(
  'session',
  {
    sid: key(text()),
    sess: json<unknown>(),
    expire: when,
  },
  { notInFile: 'who is signed in here and now' },
);
