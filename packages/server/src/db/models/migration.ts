import { filled, key, type RowOf, table, text, when } from '../table.ts';

/** A step of the database’s shape that was taken. */
export const MigrationTable = table('migration', {
  name: key(text()),
  at: filled(when),
});

export type MigrationRow = RowOf<typeof MigrationTable>;
