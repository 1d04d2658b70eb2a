import type { Answer, Asked, api } from '@zabrik/contract';
import { imageSize } from 'image-size';
import { v7 as uuidv7 } from 'uuid';
import { select, selectOne } from '../../db/select.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen, Who } from '../../kitchen.ts';

const MOST_BYTES = 3_000_000;
/** A picture says how large it is before it is drawn: one that says more than this would fill a tablet's memory. */
const MOST_PIXELS = 40_000_000;
const MOST_ON_A_LINE = 12;
const types = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' } as const;

const starts = (bytes: Uint8Array, ...signature: number[]): boolean => signature.every((b, i) => bytes[i] === b);
/** What it really is, by its first bytes; what it calls itself does not count. */
function typeOf(bytes: Uint8Array): keyof typeof types | undefined {
  if (starts(bytes, 0xff, 0xd8, 0xff)) return 'jpg';
  if (starts(bytes, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'png';
  const text = (from: number): string => String.fromCharCode(...bytes.subarray(from, from + 4));
  return text(0) === 'RIFF' && text(8) === 'WEBP' ? 'webp' : undefined;
}

/** Checks and keeps a photograph. Errors: `not_a_picture`, `too_large`, each in words; nothing is kept then. */
export async function addPhotograph(
  kitchen: Kitchen,
  { who, at, transaction }: InCommand,
  { params, body }: Asked<typeof api.receive.photograph>,
): Promise<Answer<typeof api.receive.photograph>> {
  const line = await selectOne<{ photographs: number }>(
    kitchen.db,
    `select (select count(*)::int from photograph f where f.line_id = d.id) as photographs from delivery_line d where d.id = $1 and d.house_id = $2 for update`,
    [params.lineId, who.houseId],
    transaction,
  );
  if (line === undefined) throw new Problem('not_found');
  if (line.photographs >= MOST_ON_A_LINE)
    throw new Problem('too_large', `A line keeps ${MOST_ON_A_LINE} photographs at most.`);
  const bytes = Buffer.from(body.base64, 'base64');
  if (bytes.length > MOST_BYTES) throw new Problem('too_large', 'A photograph is 3 MB at most. Take it smaller.');
  const type = typeOf(bytes);
  if (type === undefined)
    throw new Problem('not_a_picture', 'This is no JPEG, PNG or WebP photograph. Nothing was kept.');
  let size: { width: number; height: number };
  try {
    size = imageSize(bytes);
  } catch {
    throw new Problem('not_a_picture', 'This photograph is cut short or broken. Nothing was kept.');
  }
  if (!(size.width > 0 && size.height > 0))
    throw new Problem('not_a_picture', 'This photograph is empty. Nothing was kept.');
  if (size.width * size.height > MOST_PIXELS)
    throw new Problem(
      'not_a_picture',
      `This picture says it is ${size.width} by ${size.height}: more than a tablet can show. Nothing was kept.`,
    );
  const id = uuidv7();
  await kitchen.db.query(
    'insert into photograph (id, house_id, line_id, type, width, height, bytes, person_id, at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
    {
      bind: [id, who.houseId, params.lineId, types[type], size.width, size.height, bytes, who.personId, at],
      transaction,
    },
  );
  return { id };
}

export async function listPhotographs(
  kitchen: Kitchen,
  who: Who,
  lineId: string,
): Promise<Answer<typeof api.receive.photographs>> {
  const line = await selectOne<{ id: string }>(
    kitchen.db,
    'select id from delivery_line where id = $1 and house_id = $2',
    [lineId, who.houseId],
  );
  if (line === undefined) throw new Problem('not_found');
  const rows = await select<{ id: string; width: number; height: number; by: string; at: Date }>(
    kitchen.db,
    `select f.id, f.width, f.height, p.name as by, f.at from photograph f join person p on p.id = f.person_id
     where f.line_id = $1 and f.house_id = $2 order by f.at, f.id`,
    [lineId, who.houseId],
  );
  return { photographs: rows.map((r) => ({ ...r, at: r.at.toISOString() })) };
}

export async function showPhotograph(kitchen: Kitchen, who: Who, id: string): Promise<GivenFile> {
  const row = await selectOne<{ type: 'image/jpeg' | 'image/png' | 'image/webp'; bytes: Buffer }>(
    kitchen.db,
    'select type, bytes from photograph where id = $1 and house_id = $2',
    [id, who.houseId],
  );
  if (row === undefined) throw new Problem('not_found');
  return { type: row.type, name: `photograph-${id}.${row.type.slice(6)}`, inline: true, body: row.bytes };
}
