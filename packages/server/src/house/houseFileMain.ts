/** Writes a house into a file, or reads one: node houseFile.js export SLUG FILE | import FILE PIN. */
import { createWriteStream } from 'node:fs';
import { readFile, rename } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { selectOne } from '../db/select.ts';
import { HouseFileRefused, readHouseFile, writeHouseFile } from './houseFile.ts';

const [what, ...args] = process.argv.slice(2);
const db = connect(process.env['DATABASE_URL'] ?? '');
const say = (text: string): void => void process.stdout.write(`${text}\n`);
try {
  await migrate(db);
  if (what === 'export') {
    const [slug = '', file = ''] = args;
    const house = await selectOne<{ id: string; name: string }>(db, 'select id, name from house where slug = $1', [
      slug,
    ]);
    if (house === undefined) throw new HouseFileRefused(`There is no house ${slug} here.`);
    await pipeline(
      Readable.from(writeHouseFile(db, house.id, new Date())),
      createWriteStream(`${file}.part`, { mode: 0o600 }),
    );
    await rename(`${file}.part`, file);
    say(`${house.name} is in ${file}`);
  } else {
    const [file = '', pin = ''] = args;
    const { name, rows } = await readHouseFile(db, await readFile(file, 'utf8'), pin);
    say(`${name} is here now, ${rows} rows. Everyone's PIN is ${pin}: change it.`);
  }
} catch (error) {
  if (!(error instanceof HouseFileRefused)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
} finally {
  await db.close();
}
