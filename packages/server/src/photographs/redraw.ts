/** Photographs: drawn anew when they come, and kept. */
import sharp from 'sharp';
import { PhotographTable } from '../db/models/photograph.ts';
import { rowsOf } from '../db/rows.ts';
import { Problem } from '../http/problem.ts';
import type { InCommand, Services } from '../services.ts';

const MOST_BYTES = 3_000_000;
/** A picture says how large it is before it is drawn: one that says more than this would fill a tablet's memory. */
const MOST_PIXELS = 40_000_000;

// only these three are read, whatever else the library knows; and one picture at a time leaves the benches their core
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
});
sharp.cache(false);
sharp.concurrency(1);

export interface Redrawn {
  readonly type: 'image/jpeg' | 'image/png' | 'image/webp';
  readonly width: number;
  readonly height: number;
  readonly bytes: Buffer;
}

/**
 * Draws a photograph anew, the right way up: only what is seen is kept. Where it was taken, by whose camera, and whatever else lay in the file
 * are gone, and a picture that was something else as well is only a picture.
 *
 * Errors  `not_a_picture`, `too_large`, each in words; nothing is kept then.
 */
export async function redraw(base64: string): Promise<Redrawn> {
  const given = Buffer.from(base64, 'base64');
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

/** Keeps a photograph: of a line of a delivery, or of the house, to show how a step should look. */
export async function keepPhotograph(
  { db }: Services,
  command: InCommand,
  lineId: string | null,
  { type, width, height, bytes }: Redrawn,
): Promise<{ id: string }> {
  const id = command.newId();
  const { personId } = command.actor;
  await rowsOf(db, PhotographTable, command).add({ id, lineId, type, width, height, bytes, personId, at: command.at });
  return { id };
}

/** Errors: `invalid` when one of these photographs is not this house's, as in a file from elsewhere. */
export async function photographsAreHere(
  db: Services['db'],
  command: InCommand,
  photos: readonly (string | undefined)[],
): Promise<void> {
  const ids = [...new Set(photos.filter((p) => p !== undefined))];
  if (ids.length === 0) return;
  const here = await rowsOf(db, PhotographTable, command).count({ id: ids });
  if (here < ids.length)
    throw new Problem('invalid', 'One of its photographs is not in this house. Take it away, or take another.', [
      { path: 'photo', message: 'is not in this house' },
    ]);
}
