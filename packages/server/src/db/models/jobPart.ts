import { bytes, key, table, uuid, whole } from '../table.ts';

/** A piece of the file a job made. Kept for a day. */
export const JobPartTable = table(
  'job_part',
  {
    houseId: uuid,
    jobId: key(uuid),
    n: key(whole),
    bytes: bytes,
  },
  { notInFile: 'files made here and now' },
);
