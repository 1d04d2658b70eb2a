/**
 * Backups as the house has them, by the commands it types: kept from another folder, twice brought back, damaged, on a second place that is
 * not there, rehearsed, and the records as they stood at a moment between two backups.
 *   tsx e2e/keeping.ts
 */
import { strict as assert } from 'node:assert';
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import {
  appendFileSync,
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';

const ROOT = new URL('..', import.meta.url).pathname;
const away = mkdtempSync(join(tmpdir(), 'zabrik-keeping-'));
const second = join(away, 'second');
const state = join(away, 'state');
// ./zabrik test says where its own things are: these are others
const env = {
  ...process.env,
  ZABRIK_STATE: state,
  ZABRIK_BACKUPS: join(state, 'backups'),
  ZABRIK_BACKUPS_SECOND: second,
  ZABRIK_BACKUP_HOUR: '3',
  DB_HOME: join(state, 'pg'),
};
execFileSync('chmod', ['711', away]);

const zabrik = (...args: string[]) => {
  const done = spawnSync(join(ROOT, 'zabrik'), args, { cwd: away, env, encoding: 'utf8' });
  return { ok: done.status === 0, said: done.stdout + done.stderr };
};
const must = (...args: string[]): string => {
  const { ok, said } = zabrik(...args);
  assert.ok(ok, `./zabrik ${args.join(' ')}: ${said}`);
  return said;
};
const db = (...args: string[]): string =>
  execFileSync(join(ROOT, 'scripts/db.sh'), args, {
    env: { ...env, DB_ARCHIVE: join(state, 'backups/log') },
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
  }).trim();
const sql = (text: string, database = 'zabrik'): string => db('psql', '-d', database, '-Atc', text);
const began = Date.now();
const say = (line: string): void =>
  void process.stdout.write(`${((Date.now() - began) / 1_000).toFixed(0).padStart(3)}s  ${line}\n`);
const suppliers = (): string =>
  sql(`select string_agg(name, ',' order by name) from supplier where name like 'Mark %'`);
const mark = (name: string): string =>
  sql(`insert into supplier (id, house_id, name) select gen_random_uuid(), id, 'Mark ${name}' from house limit 1`);

/** Lets the night's work run until it has said this. */
const nightUntil = (wanted: RegExp, databaseUrl: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const night = spawn('node', ['packages/server/dist/backup.js', 'nightly'], {
      cwd: ROOT,
      env: { ...env, DATABASE_URL: databaseUrl, ZABRIK_BACKUPS: join(state, 'backups'), ZABRIK_ROOT: ROOT },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let said = '';
    night.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      if (wanted.test(said)) night.kill('SIGTERM');
    });
    night.once('exit', () => (wanted.test(said) ? resolve(said) : reject(new Error(said))));
  });

/** The process whose command line has this, of this state and no other. */
function pidOf(part: string): number | undefined {
  const found = readdirSync('/proc').find((pid) => {
    if (!/^\d+$/.test(pid)) return false;
    try {
      return (
        readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(part) &&
        readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`ZABRIK_STATE=${state}`)
      );
    } catch {
      return false; // it has ended meanwhile
    }
  });
  return found === undefined ? undefined : Number(found);
}

/** What a shell may have in it that the demo was started from. */
const demos = { ZABRIK_SIMULATED: '1', ZABRIK_DEMO_PIN: '2468' };

/** Under serve the door says no PIN, and nobody loads a simulated pan, whatever the shell has in it. */
async function nothingOfTheDemo(api: string): Promise<void> {
  const get = async (path: string): Promise<Record<string, unknown>> =>
    (await (await fetch(`${api}${path}`)).json()) as Record<string, unknown>;
  const [house] = (await get('/houses'))['houses'] as { slug: string }[];
  const signInOptions = await get(`/houses/${house?.slug}/sign-in`);
  assert.equal(signInOptions['demoPin'], null);
  const people = signInOptions['people'] as { id: string; role: string }[];
  const headers = { 'content-type': 'application/json', origin: new URL(api).origin };
  const signIn = await fetch(`${api}/session`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ personId: people.find((p) => p.role === 'butcher')?.id, pin: demos.ZABRIK_DEMO_PIN }),
  });
  assert.equal(signIn.status, 200, 'a house that was the demo keeps its people and their PINs');
  const pan = await fetch(`${api}/simulation/pan`, {
    method: 'POST',
    headers: {
      ...headers,
      cookie: signIn.headers
        .getSetCookie()
        .map((c) => c.split(';')[0])
        .join('; '),
    },
    body: JSON.stringify({ what: 'load', massMg: 1_000 }),
  });
  assert.equal(pan.status, 404);
  say('serve: no PIN at the door, no simulated pan');
}

/** serve with an environment of its own, until it has said that it runs: what it said, and the way to end it with its database. */
async function serving(own: NodeJS.ProcessEnv): Promise<{ readonly said: string; stop(): Promise<void> }> {
  const served = spawn(join(ROOT, 'zabrik'), ['serve'], { cwd: away, env: own, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  for (const out of [served.stdout, served.stderr])
    out.on('data', (chunk: Buffer) => {
      said += chunk.toString();
    });
  const over = new Promise((resolve) => served.once('exit', resolve));
  while (!/\(Ctrl-C stops\)/.test(said) && served.exitCode === null) await wait(200);
  return {
    said,
    stop: async () => {
      served.kill('SIGTERM');
      await over;
      spawnSync('scripts/db.sh', ['remove'], { cwd: ROOT, env: own });
    },
  };
}

/** On a machine that has nothing yet, serve makes nothing: it prints a code, and whoever knows it sets the kitchen up. The code is none afterwards. */
async function setUp(): Promise<void> {
  const bare = join(away, 'bare');
  const own = {
    ...env,
    ...demos,
    ZABRIK_STATE: bare,
    ZABRIK_BACKUPS: join(bare, 'backups'),
    DB_HOME: join(bare, 'pg'),
  };
  const { said, stop } = await serving(own);
  try {
    const [, base = '', code = ''] = /Open (http:\S+) and set yours up by this code: (\S+)/.exec(said) ?? [];
    assert.match(code, /^[A-Z2-9]{4}-[A-Z2-9]{4}$/, said);
    const asked = async (path: string, body?: unknown) =>
      (await (
        await fetch(`${base}/api/v1${path}`, {
          method: body === undefined ? 'GET' : 'POST',
          headers: { 'content-type': 'application/json', origin: base },
          ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        })
      ).json()) as { houses?: unknown[]; open?: boolean; code?: string; recoveryCode?: string };
    assert.deepEqual((await asked('/houses')).houses, [], 'nothing invented stands there');
    const kitchen = {
      code,
      name: 'Harbour Table',
      currency: 'EUR',
      timezone: 'Europe/Lisbon',
      profileId: 'eu',
      headChef: { name: 'Alda Fonte', pin: '7302', password: 'salt and smoke' },
    };
    assert.equal((await asked('/set-up', { ...kitchen, code: 'AAAA-AAAA' })).code, 'wrong_code');
    assert.match((await asked('/set-up', kitchen)).recoveryCode ?? '', /^([A-Z2-9]{4}-){5}[A-Z2-9]{4}$/);
    assert.equal((await asked('/set-up', kitchen)).code, 'no_set_up');
    assert.equal((await asked('/set-up')).open, false);
    say('serve on an empty database: nothing made; a kitchen is set up by the code it printed, once');
  } finally {
    await stop();
  }
}

/** The machine is gone: on one that has nothing, the backup alone brings the kitchen back, its people with their PINs, every gram of its books. */
async function bareMachine(file: string): Promise<void> {
  const bare = join(away, 'another-machine');
  const own = { ...env, ZABRIK_STATE: bare, ZABRIK_BACKUPS: join(bare, 'backups'), DB_HOME: join(bare, 'pg') };
  const there = (text: string, of: NodeJS.ProcessEnv): string =>
    execFileSync(join(ROOT, 'scripts/db.sh'), ['psql', '-d', 'zabrik', '-Atc', text], {
      env: of,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    }).trim();
  const BOOKS = `select (select count(*) from posting) || ' ' || (select sum(mass_mg) from lot_balance) || ' ' || (select count(*) from weighing)
    || ' ' || (select string_agg(name, ',' order by name) from supplier where name like 'Mark %')`;
  db('start');
  const before = there(BOOKS, env);
  db('stop');
  // carried over on a stick: the file and what says what it should be
  for (const part of ['', '.json'])
    copyFileSync(`${join(away, file)}${part}`, `${join(second, 'carried.dump')}${part}`);
  const done = spawnSync(join(ROOT, 'zabrik'), ['restore', join(second, 'carried.dump')], {
    cwd: away,
    env: own,
    encoding: 'utf8',
  });
  assert.equal(done.status, 0, done.stdout + done.stderr);
  const { said, stop } = await serving(own);
  try {
    assert.doesNotMatch(said, /no kitchen stands here/, 'it is the kitchen it was, not one to be set up');
    assert.equal(there(BOOKS, own), before, 'every gram of the books');
    await nothingOfTheDemo(`http://127.0.0.1:${readFileSync(join(bare, 'port'), 'utf8')}/api/v1`);
    say(
      `on a machine with nothing: ${done.stdout.trim().split('\n').at(-1)?.slice(0, 60)}; people sign in, the books are whole (${before})`,
    );
  } finally {
    await stop();
  }
}

/** serve, and what comes back by itself when the server or the database is killed; then nothing is left of it. */
async function supervised(): Promise<void> {
  const serve = spawn(join(ROOT, 'zabrik'), ['serve'], {
    cwd: away,
    env: { ...env, ...demos },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let told = '';
  for (const out of [serve.stdout, serve.stderr]) out.on('data', (chunk: Buffer) => (told += chunk.toString()));
  const ready = async (): Promise<boolean> => {
    try {
      const port = readFileSync(join(state, 'port'), 'utf8');
      return (await fetch(`http://127.0.0.1:${port}/readyz`, { signal: AbortSignal.timeout(2_000) })).ok;
    } catch {
      return false;
    }
  };
  const until = async (what: string, holds: () => Promise<boolean> | boolean): Promise<number> => {
    const from = Date.now();
    while (!(await holds())) {
      assert.ok(Date.now() - from < 120_000, `${what}: ${told}`);
      await wait(50);
    }
    return Date.now() - from;
  };
  try {
    await until('ready', ready);
    await until('it says where', () => told.includes('on this machine'));
    await nothingOfTheDemo(`http://127.0.0.1:${readFileSync(join(state, 'port'), 'utf8')}/api/v1`);
    const server = pidOf('dist/main.js');
    assert.ok(server !== undefined, 'a server runs');
    process.kill(server, 'SIGKILL');
    await until('another server', () => ![undefined, server].includes(pidOf('dist/main.js')));
    const serverMs = await until('ready again', ready);
    await wait(10_000);
    process.kill(Number(readFileSync(join(state, 'pg/data/postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL');
    await until('away', async () => !(await ready()));
    const databaseMs = await until('the database again', ready);
    say(`serve: back ${serverMs} ms after its server was killed, ${databaseMs} ms after its database was`);
  } finally {
    const ended = new Promise((resolve) => serve.once('exit', resolve));
    serve.kill('SIGTERM');
    await ended;
  }
  assert.equal(pidOf('dist/main.js'), undefined, 'nothing of it runs on');
  assert.throws(() => db('status'));
}

try {
  mkdirSync(join(state, 'backups'), { recursive: true });
  db('start');
  execFileSync('node', ['packages/server/dist/seed.js'], {
    cwd: ROOT,
    env: {
      ...env,
      DATABASE_URL: db('url'),
      SESSION_SECRET: 'k'.repeat(48),
      ZABRIK_DEMO_BREAKDOWNS: '0',
      ZABRIK_SIMULATED: '1',
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });

  mark('one');
  must('backup', 'first.dump');
  assert.ok(readdirSync(away).includes('first.dump'), 'a relative FILE is from where one stands');
  db('status');
  say('a backup from another folder; the database it found running runs on');

  mark('two');
  sql(`insert into session (sid, sess, expire) values ('someone', '{}', now() + interval '1 day')`);
  must('restore', 'first.dump');
  db('start');
  assert.equal(suppliers(), 'Mark one');
  assert.equal(sql('select count(*) from session'), '0', 'nobody is signed in after a restore');
  assert.equal(sql('select count(*) from restored'), '1');
  mark('three');
  must('restore', 'first.dump');
  db('start');
  assert.equal(suppliers(), 'Mark one');
  const aside = sql(
    `select string_agg(datname, ' ' order by datname) from pg_database where datname like 'zabrik_before_%'`,
  ).split(' ');
  const held = aside.map((name) =>
    sql(`select string_agg(name, ',' order by name) from supplier where name like 'Mark %'`, name),
  );
  assert.deepEqual(held, ['Mark one,Mark two', 'Mark one,Mark three'], 'two restores keep both states of before');
  say(`two restores; kept beside: ${aside.join(', ')}`);

  appendFileSync(join(away, 'first.dump'), 'x');
  const damaged = zabrik('restore', 'first.dump');
  assert.ok(!damaged.ok && /cut short or changed/.test(damaged.said), damaged.said);
  db('start');
  assert.equal(suppliers(), 'Mark one');
  say('a damaged file is refused, and nothing changed');

  const unplugged = zabrik('backup');
  assert.ok(!unplugged.ok && /not in the second place/.test(unplugged.said), unplugged.said);
  await wait(1_100); // its name is the second
  mkdirSync(second);
  must('backup');
  assert.equal(readdirSync(second).filter((name) => name.endsWith('.dump')).length, 1);
  say('a second place that is not there is said, and the first is kept; one that is there has the backup');

  say(must('rehearse').trim());
  assert.equal(sql('select count(*) from backup where tried_at is not null and tried_why is null'), '1');

  // a moment between two backups
  const url = db('url');
  const nightly = spawnSync('node', ['packages/server/dist/backup.js', 'base', '2000-01-01T00:00:00Z'], {
    cwd: ROOT,
    env: { ...env, DATABASE_URL: url },
    encoding: 'utf8',
  });
  assert.match(nightly.stderr, /no base backup of before/);
  rmSync(join(state, 'backups'), { recursive: true });
  db('stop');
  db('start');
  sql('update backup set tried_at = null');
  const night = await nightUntil(/kept base-/, url);
  assert.match(night, /brought back for a rehearsal: all of it is there/);
  say('the night makes a backup, rehearses it and makes a base');
  mark('before');
  await wait(1_500);
  const moment = sql('select now()');
  await wait(1_500);
  mark('after');
  assert.equal(suppliers(), 'Mark after,Mark before,Mark one');
  const back = must('restore', '--at', moment.replace(' ', 'T').replace(/\+00$/, 'Z'));
  db('start');
  assert.equal(suppliers(), 'Mark before,Mark one');
  say(`as it stood at ${moment}: ${back.trim().split('\n').at(-1)}`);
  const tooLate = zabrik('restore', '--at', '2098-01-01T00:00:00Z');
  assert.ok(!tooLate.ok && /everything is as it was/.test(tooLate.said), tooLate.said);
  db('start');
  assert.equal(suppliers(), 'Mark before,Mark one');
  say('a moment that the log does not reach is refused, and nothing changed');
  db('stop');
  must('backup', 'last.dump');
  assert.throws(() => db('status'), 'a database found stopped is left stopped');
  say('a database found stopped is left stopped');
  await bareMachine('last.dump');
  await supervised();
  await setUp();
  writeFileSync(join(away, 'empty.dump'), '');
  assert.ok(!zabrik('restore', 'empty.dump').ok);
} finally {
  try {
    db('remove');
  } finally {
    rmSync(away, { recursive: true, force: true });
  }
}
