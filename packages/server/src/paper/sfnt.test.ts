import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { inflateSync } from 'node:zlib';
import fontkit from '@pdf-lib/fontkit';
import { describe, expect, it } from 'vitest';
import { sfntOf } from './sfnt.ts';

const require = createRequire(import.meta.url);
const woff = readFileSync(
  require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff'),
);

describe('a typeface out of its wrapping', () => {
  it('is the same to a library that reads both: letters, widths, outlines', () => {
    const [wrapped, plain] = [fontkit.create(woff), fontkit.create(sfntOf(woff))];
    expect(plain.characterSet).toEqual(wrapped.characterSet);
    expect(plain.characterSet.length).toBeGreaterThan(200);
    for (const text of ['Hake fillet 1,234 g', 'Éclair & “jus”']) {
      const [a, b] = [wrapped.layout(text), plain.layout(text)];
      expect(b.advanceWidth).toBe(a.advanceWidth);
      expect(b.glyphs.map((g) => g.path.toSVG())).toEqual(a.glyphs.map((g) => g.path.toSVG()));
    }
  });

  // ISO/IEC 14496-22: a table's checksum is the sum of its 32-bit words; in `head` the adjustment counts as nothing
  it('has every table at four bytes, with the checksum its directory says', () => {
    const sfnt = sfntOf(woff);
    const count = sfnt.readUInt16BE(4);
    const power = 2 ** Math.floor(Math.log2(count));
    expect([sfnt.readUInt16BE(6), sfnt.readUInt16BE(8), sfnt.readUInt16BE(10)]).toEqual([
      power * 16,
      Math.log2(power),
      (count - power) * 16,
    ]);
    for (let i = 0; i < count; i += 1) {
      const entry = 12 + i * 16;
      const tag = sfnt.toString('latin1', entry, entry + 4);
      const at = sfnt.readUInt32BE(entry + 8);
      expect(at % 4).toBe(0);
      let sum = 0;
      for (let w = 0; w < sfnt.readUInt32BE(entry + 12); w += 4)
        if (tag !== 'head' || w !== 8) sum = (sum + sfnt.readUInt32BE(at + w)) >>> 0;
      expect([tag, sum]).toEqual([tag, sfnt.readUInt32BE(entry + 4)]);
    }
  });

  it('is refused where it is none, or a table is not whole', () => {
    expect(() => sfntOf(Buffer.from('wOFF'))).toThrow('not a WOFF 1.0');
    expect(() => sfntOf(sfntOf(woff))).toThrow('not a WOFF 1.0');
    const short = Buffer.from(woff);
    const first = 44;
    const offset = woff.readUInt32BE(first + 4);
    const length = inflateSync(woff.subarray(offset, offset + woff.readUInt32BE(first + 8))).length;
    short.writeUInt32BE(length + 4, first + 12);
    expect(() => sfntOf(short)).toThrow(`table 0 is ${length} bytes, not ${length + 4}`);
  });
});
