import { execFile } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { promisify } from 'node:util';

const ROOT = '/usr/lib/postgresql';

/** The path of a program of the newest PostgreSQL that is installed; Debian keeps them out of PATH. Errors: there is none. */
export function postgresProgram(name: string): string {
  const versions = existsSync(ROOT) ? readdirSync(ROOT).sort((a, b) => Number(b) - Number(a)) : [];
  const found = versions.map((v) => `${ROOT}/${v}/bin/${name}`).find((path) => existsSync(path));
  if (found === undefined) throw new Error(`no ${name}: apt-get install postgresql`);
  return found;
}

const run = promisify(execFile);

/**
 * Runs one of them on a database. The password goes by the environment: a command line can be read by everybody on the machine, and stands in
 * what is said of a command that failed.
 *
 * Errors  a sentence: what the program said last.
 */
export async function runOn(databaseUrl: string, name: string, args: readonly string[]): Promise<void> {
  const url = new URL(databaseUrl);
  const env = { ...process.env, PGPASSWORD: decodeURIComponent(url.password) };
  url.password = '';
  try {
    await run(postgresProgram(name), [...args, `--dbname=${url}`], { env, maxBuffer: 10_000_000 });
  } catch (error) {
    const said = (error as { readonly stderr?: string }).stderr?.trim().split('\n').at(-1);
    throw new Error(said === undefined || said === '' ? `${name} failed` : said);
  }
}
