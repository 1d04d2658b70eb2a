import pg from 'pg';
import { expect, inject, it } from 'vitest';
import { connect } from '../db/connect.ts';
import { select } from '../db/select.ts';
import { asProblem } from './problem.ts';

it('a database that has no line left is away for the moment, not broken: what was asked is asked again', async () => {
  const admin = new pg.Client({ connectionString: inject('databaseUrl') });
  await admin.connect();
  const role = `crowded_${process.pid}`;
  await admin.query(`create role ${role} login password 'x' connection limit 0`);
  const url = new URL(inject('databaseUrl'));
  url.username = role;
  url.password = 'x';
  try {
    const bare = new pg.Client({ connectionString: url.toString() });
    const ofDriver: unknown = await bare.connect().catch((error: unknown) => error);
    expect((ofDriver as { code?: string }).code).toBe('53300');
    expect(asProblem(ofDriver).code).toBe('database_away');
    const db = connect(url.toString(), 1);
    const ofSequelize: unknown = await select(db, 'select 1', []).catch((error: unknown) => error);
    expect(asProblem(ofSequelize).code).toBe('database_away');
    await db.close();
  } finally {
    await admin.query(`drop role ${role}`);
    await admin.end();
  }
});
