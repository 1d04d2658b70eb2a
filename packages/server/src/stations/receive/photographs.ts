import type { Answer, Asked, api } from '@zabrik/contract';
import sharp from 'sharp';
import { DeliveryLineTable } from '../../db/models/deliveryLine.ts';
import { PhotographTable } from '../../db/models/photograph.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Kitchen } from '../../kitchen.ts';

const MOST_BYTES = 3_000_000;
/** A picture says how large it is before it is drawn: one that says more than this would fill a tablet's memory. */
const MOST_PIXELS = 40_000_000;
const MOST_ON_A_LINE = 12;

// only these three are read, whatever else the library knows; and one picture at a time leaves the benches their core
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
});
sharp.cache(false);
sharp.concurrency(1);

/** Errors: `not_found`. */
async function lineOf(kitchen: Kitchen, actor: Actor, lineId: string): Promise<void> {
  if ((await rowsOf(kitchen.db, DeliveryLineTable, actor).one({ id: lineId })) === undefined)
    throw new Problem('not_found');
}

interface Redrawn {
  readonly type: 'image/jpeg' | 'image/png' | 'image/webp';
  readonly width: number;
  readonly height: number;
  readonly bytes: Buffer;
}

/**
 * Draws a photograph anew, the right way up: only what is seen is kept. Where it was taken, by whose camera, and whatever else lay in the file
 * are gone, and a picture that was something else as well is only a picture.
 *
 * Errors  `not_found`, `not_a_picture`, `too_large`, each in words; nothing is kept then.
 */
export async function redraw(
  kitchen: Kitchen,
  actor: Actor,
  { params, body }: Asked<typeof api.receive.photograph>,
): Promise<Redrawn> {
  await lineOf(kitchen, actor, params.lineId);
  const given = Buffer.from(body.base64, 'base64');
  if (given.length > MOST_BYTES) throw new Problem('too_large', 'A photograph is 3 MB at most. Take it smaller.');
  const says = await sharp(given, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  if (says === undefined)
    throw new Problem(
      'not_a_picture',
      'This is no JPEG, PNG or WebP photograph, or it is cut short. Nothing was kept.',
    );
  if (says.width * says.height > MOST_PIXELS)
    throw new Problem(
      'not_a_picture',
      `This picture says it is ${says.width} by ${says.height}: more than a tablet can show. Nothing was kept.`,
    );
  try {
    const { data, info } = await sharp(given, { failOn: 'error' }).autoOrient().toBuffer({ resolveWithObject: true });
    return {
      type: `image/${info.format as 'jpeg' | 'png' | 'webp'}`,
      width: info.width,
      height: info.height,
      bytes: data,
    };
  } catch {
    throw new Problem('not_a_picture', 'This photograph is cut short or broken. Nothing was kept.');
  }
}

/** Keeps a photograph of a line. Errors: `not_found`, `too_large`. */
export async function addPhotograph(
  kitchen: Kitchen,
  command: InCommand,
  { params: { lineId } }: Asked<typeof api.receive.photograph>,
  { type, width, height, bytes }: Redrawn,
): Promise<Answer<typeof api.receive.photograph>> {
  const { db } = kitchen;
  const line = await rowsOf(db, DeliveryLineTable, command).one({ id: lineId }, { lock: 'update' });
  if (line === undefined) throw new Problem('not_found');
  const photographs = rowsOf(db, PhotographTable, command);
  if ((await photographs.count({ lineId })) >= MOST_ON_A_LINE)
    throw new Problem('too_large', `A line keeps ${MOST_ON_A_LINE} photographs at most.`);
  const id = command.newId();
  const { personId } = command.actor;
  await photographs.add({ id, lineId, type, width, height, bytes, personId, at: command.at });
  return { id };
}

export async function listPhotographs(
  kitchen: Kitchen,
  actor: Actor,
  lineId: string,
): Promise<Answer<typeof api.receive.photographs>> {
  await lineOf(kitchen, actor, lineId);
  const rows = await select<{ id: string; width: number; height: number; by: string; at: Date }>(
    kitchen.db,
    `select f.id, f.width, f.height, p.name as by, f.at from photograph f join person p on p.id = f.person_id
     where f.line_id = $1 and f.house_id = $2 order by f.at, f.id`,
    [lineId, actor.houseId],
  );
  return { photographs: rows.map((r) => ({ ...r, at: r.at.toISOString() })) };
}

export async function showPhotograph(kitchen: Kitchen, actor: Actor, id: string): Promise<GivenFile> {
  const row = await rowsOf(kitchen.db, PhotographTable, actor).one({ id });
  if (row === undefined) throw new Problem('not_found');
  return { type: row.type, name: `photograph-${id}.${row.type.slice(6)}`, inline: true, body: row.bytes };
}
