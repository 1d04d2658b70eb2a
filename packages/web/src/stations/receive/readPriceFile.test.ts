import { describe, expect, it } from 'vitest';
import { MOST_BYTES, readPriceFile, readWith } from './readPriceFile.ts';

const bytes = (text: string): ArrayBuffer => {
  const { buffer, byteOffset, byteLength } = new TextEncoder().encode(text);
  return buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer;
};
const list = (text: string, currency = 'GBP') => {
  const file = readPriceFile('week.csv', bytes(text));
  if (typeof file === 'string') throw new Error(file);
  const { item, price, unit } = file.guess;
  return readWith(file, { item: item ?? 0, price: price ?? 1, unit }, currency);
};

describe('a price list', () => {
  it('is read by its headings, whatever parts its columns and whatever unit it has', () => {
    expect(
      list('Product;Unit;Price\r\n"Hake; gutted";kg;11,00\r\nPlaice;lb;£3.50\r\nSquid;100g;0.99\r\n').rows,
    ).toEqual([
      { line: 2, item: 'Hake; gutted', minorPerKg: 1_100, unit: 'kg' },
      { line: 3, item: 'Plaice', minorPerKg: 772, unit: 'lb' },
      { line: 4, item: 'Squid', minorPerKg: 990, unit: '100g' },
    ]);
    expect(list('\uFEFFItem,Price\nBrill,19.5\n').rows).toEqual([
      { line: 2, item: 'Brill', minorPerKg: 1_950, unit: 'kg' },
    ]);
  });

  it('tells of every row it leaves out, by its line', () => {
    const read = list(
      'item,price\nHake,11\n=cmd|calc,9\nBrill\n,4\nTurbot,free\nPlaice,\nhake,12\n-2+3,1\n+44,2\n@SUM(A1),3\n',
    );
    expect(read.rows.map((r) => r.item)).toEqual(['Hake']);
    expect(read.faults.map((f) => [f.line, f.fault])).toEqual([
      [3, 'formula'],
      [4, 'ragged'],
      [5, 'no-item'],
      [6, 'not-a-price'],
      [7, 'no-price'],
      [8, 'twice'],
      [9, 'formula'],
      [10, 'formula'],
      [11, 'formula'],
    ]);
  });

  it.each([
    ['50 MB', new ArrayBuffer(50_000_000), /50 MB.*5 MB at most/],
    [
      'another encoding',
      new Uint8Array([105, 116, 101, 109, 44, 112, 10, 80, 252, 114, 44, 49]).buffer,
      /not written in UTF-8/,
    ],
    ['a spreadsheet’s own format', new Uint8Array([80, 75, 3, 4, 0, 0, 0]).buffer, /no text file/],
    ['nothing', bytes(''), /is empty/],
    ['a heading only', bytes('item,price\n'), /is empty/],
    ['one column', bytes('item\nHake\n'), /one column only/],
    ['an open quotation mark', bytes('item,price\n"Hake,11\nBrill,12\n'), /not closed/],
  ] as const)('of %s is refused in words', (_, file, says) => {
    expect(readPriceFile('week.csv', file as ArrayBuffer)).toMatch(says);
  });

  it('of a house that pays in yen has no hundredths', () => {
    const read = list('item,price,unit\nTuna,1250,100g\nBrill,12.50,kg\n', 'JPY');
    expect(read.rows).toEqual([{ line: 2, item: 'Tuna', minorPerKg: 12_500, unit: '100g' }]);
    expect(read.faults).toMatchObject([{ line: 3, fault: 'not-a-price' }]);
  });

  it('of ten thousand rows is read in well under a second', () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `Item ${i},${((i % 4_000) / 100 + 1).toFixed(2)},kg`);
    const read = list(`item,price,unit\n${rows.join('\n')}\n`);
    expect(read.rows).toHaveLength(10_000);
    expect(MOST_BYTES).toBeGreaterThan(rows.join('\n').length);
  });
});
