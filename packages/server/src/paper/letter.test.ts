import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { onA4, table, words } from './letter.ts';

describe('words', () => {
  it('are set in the face that has them, letter by letter, and lines stay lines', () => {
    expect(words('Crab\nfrom Łódź')).toEqual([
      { text: 'Crab\nfrom ', font: 'Western' },
      { text: 'Ł', font: 'European' },
      { text: 'ód', font: 'Western' },
      { text: 'ź', font: 'European' },
    ]);
  });

  it('no face has are seen as question marks, not lost', () => {
    expect(words('魚 pie')).toEqual([{ text: '? pie', font: 'Western' }]);
  });
});

describe('a letter on A4', () => {
  const rows = (n: number): string[][] => Array.from({ length: n }, (_, i) => [`Hake ${i}`, '£1.00']);
  const pagesOf = async (n: number): Promise<PDFDocument> =>
    PDFDocument.load(
      await onA4({
        title: 'Claim to Bram & Żagiel',
        content: [table([{ head: 'What' }, { head: 'Claimed', figures: true }], rows(n))],
      }),
      { updateMetadata: false },
    );

  it('is one page of its size, with its title and who made it', async () => {
    const letter = await pagesOf(3);
    expect(letter.getPageCount()).toBe(1);
    const { width, height } = letter.getPage(0).getSize();
    expect([Math.round(width), Math.round(height)]).toEqual([595, 842]);
    expect([letter.getTitle(), letter.getCreator(), letter.getProducer()]).toEqual([
      'Claim to Bram & Żagiel',
      'Zabrik',
      'Zabrik',
    ]);
  });

  it('goes on to as many pages as its table needs', async () => {
    const [some, many] = [await pagesOf(40), await pagesOf(120)].map((letter) => letter.getPageCount());
    expect(some).toBe(2);
    expect(many).toBe(5);
  });
});
