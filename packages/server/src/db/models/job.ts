import type { AskedJob } from '@zabrik/contract';
import { big, filled, json, key, orNull, real, table, text, uuid, when, whole } from '../table.ts';

/** What takes longer than one waits for: what was asked, how far it is and what came of it. */
export const JobTable = table(
  'job',
  {
    id: key(uuid),
    houseId: uuid,
    asked: json<AskedJob>(),
    state: text<'waiting' | 'working' | 'done' | 'failed' | 'called-off'>(),
    personId: uuid,
    at: when,
    tries: filled(whole),
    seenAt: orNull(when),
    endedAt: orNull(when),
    doneRatio: orNull(real),
    bytes: filled(big),
    why: orNull(text()),
    fileName: orNull(text()),
    fileType: orNull(text()),
    parts: orNull(whole),
  },
  { notInFile: 'files asked for here and now' },
);
