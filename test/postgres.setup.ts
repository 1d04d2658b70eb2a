import { execFileSync } from 'node:child_process';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
  }
}

const ROOT = new URL('..', import.meta.url).pathname;
const env = { ...process.env, DB_HOME: `${ROOT}.zabrik/pg-test`, DB_FSYNC: 'off' };
const db = (...args: string[]): string =>
  execFileSync('scripts/db.sh', args, {
    cwd: ROOT,
    env,
    encoding: 'utf8',
    stdio: ['ignore', args[0] === 'url' ? 'pipe' : 'ignore', 'inherit'],
  });

/** A throw-away cluster beside the real one; each test file makes a database of its own in it. */
export default function setup(project: TestProject): () => void {
  db('start');
  project.provide('databaseUrl', db('url').trim());
  return () => {
    db('stop');
  };
}
