/** The typefaces of what we print: they ship with the app and go into every file, so that a name looks the same on any machine. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, type PDFFont, type PDFPage, rgb } from 'pdf-lib';
import { sfntOf } from './sfnt.ts';

const require = createRequire(import.meta.url);
/** Western letters and, in a file of their own, all others of Europe; each regular and bold. */
export const faces = (
  ['latin-400-normal', 'latin-ext-400-normal', 'latin-700-normal', 'latin-ext-700-normal'] as const
).map((file) =>
  sfntOf(
    readFileSync(
      require.resolve(`@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${file}.woff`),
    ),
  ),
) as [Buffer, Buffer, Buffer, Buffer];

export interface Type {
  readonly document: PDFDocument;
  /** Width in points. */
  readonly width: (text: string, size: number, bold: boolean) => number;
  readonly write: (
    page: PDFPage,
    text: string,
    at: { readonly x: number; readonly y: number; readonly size: number; readonly bold?: boolean },
  ) => void;
}

/** A letter neither face has, as a question mark: better seen than lost. */
const UNKNOWN = '?';

/** A text in runs of one face each: the first of the faces that has a letter sets it. */
export function inFaces<F>(
  text: string,
  faces: readonly [F, ...F[]],
  has: (face: F, code: number) => boolean,
): { face: F; text: string }[] {
  const out: { face: F; text: string }[] = [];
  for (const letter of text.normalize('NFC')) {
    const code = letter.codePointAt(0) ?? 0;
    const face = faces.find((f) => has(f, code));
    const last = out.at(-1);
    if (last !== undefined && last.face === (face ?? faces[0])) last.text += face === undefined ? UNKNOWN : letter;
    else out.push({ face: face ?? faces[0], text: face === undefined ? UNKNOWN : letter });
  }
  return out;
}

/** A new document with our typefaces in it. */
export async function newDocument(title: string): Promise<Type> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit);
  document.setTitle(title);
  document.setProducer('Zabrik');
  document.setCreator('Zabrik');
  const embedded = await Promise.all(faces.map((bytes) => document.embedFont(bytes, { subset: true })));
  const [latin, latinExt, boldLatin, boldExt] = embedded as [PDFFont, PDFFont, PDFFont, PDFFont];
  const sets = new Map([latin, latinExt, boldLatin, boldExt].map((f) => [f, new Set(f.getCharacterSet())]));
  const runs = (text: string, bold: boolean) =>
    inFaces(text, bold ? [boldLatin, boldExt] : [latin, latinExt], (font, code) => sets.get(font)?.has(code) === true);
  return {
    document,
    width: (text, size, bold) => runs(text, bold).reduce((sum, r) => sum + r.face.widthOfTextAtSize(r.text, size), 0),
    write: (page, text, { x, y, size, bold = false }) => {
      let at = x;
      for (const run of runs(text, bold)) {
        page.drawText(run.text, { x: at, y, size, font: run.face, color: rgb(0.08, 0.13, 0.12) });
        at += run.face.widthOfTextAtSize(run.text, size);
      }
    },
  };
}
