/**
 * A kitchen's own machine, by the commands its keeper types: a release packed, installed, set up, looked at, another version put in, and one that
 * does not come up taken back with every record. Everything under a folder of its own, without systemd and without a user: those are the machine's.
 *   tsx e2e/running.ts
 */
import { strict as assert } from 'node:assert';
import { execFileSync, spawnSync } from 'node:child_process';
import { appendFileSync, existsSync, mkdtempSync, readFileSync, readlinkSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';

const ROOT = new URL('..', import.meta.url).pathname;
const away = mkdtempSync(join(tmpdir(), 'zabrik-running-'));
execFileSync('chmod', ['711', away]);
const prefix = join(away, 'machine');
const state = join(prefix, 'var/lib/zabrik');
// ./zabrik test says where its own things are: these are others
const env: NodeJS.ProcessEnv = { ...process.env, ZABRIK_PREFIX: prefix, ZABRIK_BORROW_LIBRARIES: '1' };
for (const name of ['ZABRIK_STATE', 'DB_HOME', 'ZABRIK_BACKUPS', 'ZABRIK_BACKUPS_SECOND', 'ZABRIK_SIMULATED'])
  delete env[name];

const began = Date.now();
const say = (line: string): void =>
  void process.stdout.write(`${((Date.now() - began) / 1_000).toFixed(0).padStart(3)}s  ${line}\n`);
const zabrik = (from: string, ...args: string[]) => {
  const done = spawnSync(join(from, 'zabrik'), args, { cwd: away, env, encoding: 'utf8' });
  return { ok: done.status === 0, said: done.stdout + done.stderr };
};
const must = (from: string, ...args: string[]): string => {
  const { ok, said } = zabrik(from, ...args);
  assert.ok(ok, `./zabrik ${args.join(' ')}: ${said}`);
  return said;
};
const app = join(prefix, 'opt/zabrik');
const versionNow = (): string => basename(readlinkSync(join(app, 'now')));
const base = (): string => `http://127.0.0.1:${readFileSync(join(state, 'port'), 'utf8')}`;
const houses = async (): Promise<string[]> => {
  const answer = (await (await fetch(`${base()}/api/v1/houses`, { headers: { connection: 'close' } })).json()) as {
    readonly houses: readonly { readonly name: string }[];
  };
  return answer.houses.map((h) => h.name);
};

/** A release as another version of this one: its files, told apart by what they say they are. */
function another(from: string, version: string, change?: (folder: string) => void): string {
  const folder = mkdtempSync(join(away, 'release-'));
  execFileSync('tar', ['-C', folder, '-xzf', from]);
  writeFileSync(join(folder, 'zabrik/RELEASE'), `${version}\n`);
  change?.(join(folder, 'zabrik'));
  const file = join(away, `zabrik-${version}.tar.gz`);
  execFileSync('tar', ['-C', folder, '-czf', file, 'zabrik']);
  return file;
}

try {
  must(ROOT, 'pack', 'first.tar.gz');
  const first = join(away, 'first.tar.gz');
  execFileSync('tar', ['-C', away, '-xzf', first]);
  const unpacked = join(away, 'zabrik');
  assert.ok(!existsSync(join(unpacked, 'packages/web/src')), 'a release has no sources in it');
  say('packed: what runs, and no more');

  const said = must(unpacked, 'install');
  const [, code] = /by this code: (\S+)/.exec(said) ?? [];
  assert.match(code ?? '', /^[A-Z2-9]{4}-[A-Z2-9]{4}$/);
  assert.match(
    readFileSync(join(prefix, 'etc/systemd/system/zabrik.service'), 'utf8'),
    /ExecStart=.*now\/zabrik serve/,
  );
  assert.match(zabrik(unpacked, 'install').said, /is installed already/);
  say('installed, and it answers');

  const setUp = await fetch(`${base()}/api/v1/set-up`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base(), connection: 'close' },
    body: JSON.stringify({
      code,
      name: 'The Long Table',
      currency: 'GBP',
      timezone: 'Europe/London',
      profileId: 'uk',
      headChef: { name: 'Hale Morrow', pin: '5083', password: 'an apple and 7 pears' },
    }),
  });
  assert.equal(setUp.status, 200, await setUp.text());
  assert.deepEqual(await houses(), ['The Long Table']);
  const looked = zabrik(join(app, 'now'), 'doctor').said;
  assert.match(looked, /fine {2}Records +1 house/);
  // a folder on the same disk is no second place: it says so, and is no greener than that
  assert.match(looked, /LOOK {2}Second place/);
  assert.match(looked, /should be looked at\.\n$/);
  say('set up; the doctor finds the house, and what is still to be seen to');

  // what is no release, and the same version again, change nothing
  const nonsense = join(away, 'nonsense.tar.gz');
  writeFileSync(nonsense, 'no archive');
  assert.match(zabrik(unpacked, 'upgrade', nonsense).said, /no release of Zabrik; nothing was changed/);
  assert.match(zabrik(unpacked, 'upgrade', first).said, /runs already/);

  must(unpacked, 'upgrade', another(first, '0.2.0'));
  assert.equal(versionNow(), '0.2.0');
  assert.deepEqual(await houses(), ['The Long Table']);
  say('another version, the same records');

  const broken = another(first, '0.3.0', (folder) =>
    writeFileSync(join(folder, 'packages/server/dist/main.js'), 'throw new Error("a version that does not come up");'),
  );
  // and it spoils the records before it falls
  const spoils = another(broken, '0.3.1', (folder) =>
    appendFileSync(
      join(folder, 'scripts/db.sh'),
      `\n[ "\${1:-}" != start ] || psql_ -d "$NAME" -c "update house set name = 'spoiled'" >/dev/null\n`,
    ),
  );
  const back = zabrik(unpacked, 'upgrade', spoils);
  assert.ok(!back.ok, back.said);
  assert.match(back.said, /0\.2\.0 runs again, with every record/);
  assert.equal(versionNow(), '0.2.0');
  assert.deepEqual(await houses(), ['The Long Table']);
  say('a version that spoils the records and does not come up: the one before runs again, with all of them');
  process.stdout.write('a machine is kept as its keeper is told it is\n');
} finally {
  const pid = Number(existsSync(join(state, 'service.pid')) ? readFileSync(join(state, 'service.pid'), 'utf8') : 0);
  if (pid > 0) {
    try {
      process.kill(pid, 'SIGTERM');
    } catch {
      // ended already
    }
    for (let i = 0; i < 100 && existsSync(`/proc/${pid}`); i += 1)
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 200);
  }
  const db = join(ROOT, 'scripts/db.sh');
  spawnSync(db, ['remove'], { env: { ...process.env, DB_HOME: join(state, 'pg') } });
  rmSync(away, { recursive: true, force: true });
}
