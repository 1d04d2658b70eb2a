import { filled, key, table, text, when } from '../table.ts';

/** A step of the database’s shape that was taken. */
export const MigrationTable = table(
  'migration',
  {
    name: key(text()),
    at: filled(when),
  },
  { notInFile: 'the shape of the database' },
);
