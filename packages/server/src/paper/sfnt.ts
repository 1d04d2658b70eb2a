/** A typeface out of its WOFF wrapping, once and by zlib: what lays out a page would unwrap it anew for every sheet, in JavaScript. */
import { inflateSync } from 'node:zlib';

/** Lengths in bytes of what a WOFF 1.0 and an sfnt begin with, and of an entry of their directories. */
const WOFF_HEAD = 44;
const WOFF_ENTRY = 20;
const SFNT_HEAD = 12;
const SFNT_ENTRY = 16;
const SIGNATURE = 0x774f4646; // wOFF

/**
 * The same typeface as an sfnt (TrueType or OpenType).
 *
 * Errors  Error when the bytes are no WOFF 1.0 or one of its tables is not as long as it says.
 * Source  W3C, WOFF File Format 1.0 (Recommendation, 13 December 2012), sections 3 to 5; ISO/IEC 14496-22 for the head of an sfnt.
 */
export function sfntOf(woff: Buffer): Buffer {
  if (woff.length < WOFF_HEAD || woff.readUInt32BE(0) !== SIGNATURE) throw new Error('not a WOFF 1.0');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF_HEAD + i * WOFF_ENTRY;
    const offset = woff.readUInt32BE(at + 4);
    const packed = woff.subarray(offset, offset + woff.readUInt32BE(at + 8));
    const length = woff.readUInt32BE(at + 12);
    const bytes = packed.length < length ? inflateSync(packed, { maxOutputLength: length }) : packed;
    if (bytes.length !== length) throw new Error(`table ${i} is ${bytes.length} bytes, not ${length}`);
    return { tag: woff.subarray(at, at + 4), checksum: woff.readUInt32BE(at + 16), bytes };
  });
  const power = Math.floor(Math.log2(count));
  const head = Buffer.alloc(SFNT_HEAD + count * SFNT_ENTRY);
  woff.copy(head, 0, 4, 8); // flavour
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(2 ** power * SFNT_ENTRY, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE((count - 2 ** power) * SFNT_ENTRY, 10);
  const parts: Buffer[] = [head];
  let at = head.length;
  for (const [i, { tag, checksum, bytes }] of tables.entries()) {
    const entry = SFNT_HEAD + i * SFNT_ENTRY;
    tag.copy(head, entry);
    head.writeUInt32BE(checksum, entry + 4);
    head.writeUInt32BE(at, entry + 8);
    head.writeUInt32BE(bytes.length, entry + 12);
    const padding = (4 - (bytes.length % 4)) % 4; // every table begins on four bytes
    parts.push(bytes, Buffer.alloc(padding));
    at += bytes.length + padding;
  }
  return Buffer.concat(parts);
}
