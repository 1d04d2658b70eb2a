import { big, key, orNull, table, text, when } from '../table.ts';

/** A backup that was made or tried. */
export const BackupTable = table(
  'backup',
  {
    name: key(text()),
    kind: text<'dump' | 'base'>(),
    at: when,
    bytes: big,
    sha256: orNull(text()),
    second: orNull(text<'kept' | 'failed'>()),
    secondWhy: orNull(text()),
    triedAt: orNull(when),
    triedWhy: orNull(text()),
  },
  { notInFile: 'what this machine has kept of all its houses' },
);
