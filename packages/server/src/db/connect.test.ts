import pg from 'pg';
import { expect, inject, it } from 'vitest';
import { connect } from './connect.ts';

it('a line that is lost before anyone listens to it ends no server', async () => {
  const db = connect(inject('databaseUrl'), 1);
  const { Client } = (db.connectionManager as unknown as { lib: typeof pg }).lib;
  const lost = new Error('terminating connection due to unexpected postmaster exit');
  // an error that nobody listens to is thrown, and what is thrown in an event ends the process
  expect(() => new pg.Client().emit('error', lost)).toThrow(lost);
  expect(() => new Client().emit('error', lost)).not.toThrow();
  await db.close();
});
