import { existsSync, readdirSync } from 'node:fs';

const ROOT = '/usr/lib/postgresql';

/** The path of a program of the newest PostgreSQL that is installed; Debian keeps them out of PATH. Errors: there is none. */
export function postgresProgram(name: string): string {
  const versions = existsSync(ROOT) ? readdirSync(ROOT).sort((a, b) => Number(b) - Number(a)) : [];
  const found = versions.map((v) => `${ROOT}/${v}/bin/${name}`).find((path) => existsSync(path));
  if (found === undefined) throw new Error(`no ${name}: apt-get install postgresql`);
  return found;
}
