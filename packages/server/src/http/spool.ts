import { randomUUID } from 'node:crypto';
import { open, unlink } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';

/**
 * Writes the parts of a long answer to a file of this machine's and gives it back from its beginning. The database is done with it before the
 * first byte goes out: whoever reads slowly, or stops, keeps a file open and no transaction. The file has no name while it is read, so that
 * nothing of it is left whatever happens.
 */
export async function spool(parts: AsyncIterable<string | Uint8Array>): Promise<Readable> {
  const path = join(tmpdir(), `zabrik-${randomUUID()}`);
  const file = await open(path, 'wx+', 0o600);
  try {
    await unlink(path);
    for await (const part of parts) await file.appendFile(part);
    return file.createReadStream({ start: 0 });
  } catch (error) {
    await file.close();
    throw error;
  }
}
