/** Letters and sheets on A4: what they hold is said, the layout is pdfmake's. Labels are set to the millimetre by hand (`labelSheet.ts`). */
import fontkit from '@pdf-lib/fontkit';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { faces, inFaces } from './type.ts';

declare module 'pdfmake' {
  /** What pdfmake reads files from first; its types leave it out. */
  const virtualfs: { writeFileSync(name: string, bytes: Uint8Array): void };
}

const [latin, latinExt, boldLatin, boldExt] = faces;
const typefaces = { latin, latinExt, boldLatin, boldExt };
for (const [name, bytes] of Object.entries(typefaces)) pdfmake.virtualfs.writeFileSync(name, bytes);
pdfmake.addFonts({
  Western: { normal: 'latin', bold: 'boldLatin' },
  European: { normal: 'latinExt', bold: 'boldExt' },
});
// a letter has its typefaces and reads nothing, wherever its words come from
pdfmake.setLocalAccessPolicy(() => false);
pdfmake.setUrlAccessPolicy(() => false);

const letters = new Map(
  (
    [
      ['Western', latin],
      ['European', latinExt],
    ] as const
  ).map(([face, bytes]) => [face, new Set(fontkit.create(bytes).characterSet)]),
);

const NEW_LINE = 10;

/** Words to be set, whatever letters of Europe are in them. */
export const words = (text: string): { text: string; font: string }[] =>
  inFaces(
    text,
    ['Western', 'European'] as const,
    (face, code) => code === NEW_LINE || letters.get(face)?.has(code) === true,
  ).map((run) => ({
    text: run.text,
    font: run.face,
  }));

/** A column of a table: figures stand to the right. */
export interface Column {
  readonly head: string;
  readonly figures?: boolean;
  /** As wide as its words, or so many points; left out, its share of what is left. */
  readonly width?: 'auto' | number;
}

/** A table whose head stands on every page it goes on to. No row is broken over two. */
export const table = (columns: readonly Column[], rows: readonly (readonly string[])[]): Content => ({
  margin: [0, 4, 0, 12],
  layout: 'lightHorizontalLines',
  table: {
    headerRows: 1,
    dontBreakRows: true,
    widths: columns.map(({ figures, width }) => width ?? (figures === true ? 'auto' : '*')),
    body: [
      columns.map(({ head, figures }) => ({
        text: words(head),
        bold: true,
        fontSize: 9,
        alignment: figures === true ? 'right' : 'left',
      })),
      ...rows.map((row) =>
        row.map((cell, i) => ({
          text: words(cell),
          noWrap: columns[i]?.figures === true,
          alignment: columns[i]?.figures === true ? ('right' as const) : ('left' as const),
        })),
      ),
    ],
  },
});

export interface Letter {
  readonly title: string;
  readonly content: readonly Content[];
  /** Of a sheet that hangs on a wall, on every page: whose it is, and when it was printed. A letter has none. */
  readonly head?: readonly [left: string, right: string];
}

/** A PDF on A4, with page numbers where there is more than one. Of many pages it takes a while: `inThread('letter', ...)`. */
export function onA4({ title, content, head }: Letter): Promise<Uint8Array> {
  const document: TDocumentDefinitions = {
    info: { title, creator: 'Zabrik', producer: 'Zabrik' },
    pageSize: 'A4',
    pageMargins: head === undefined ? [64, 64, 64, 64] : [36, 52, 36, 44],
    defaultStyle: {
      font: 'Western',
      fontSize: head === undefined ? 11 : 10,
      lineHeight: head === undefined ? 1.25 : 1.1,
      color: head === undefined ? '#14211F' : '#000000',
    },
    ...(head === undefined
      ? {}
      : {
          header: {
            margin: [36, 24, 36, 0],
            fontSize: 9,
            columns: [
              { text: words(head[0]), bold: true },
              { text: words(head[1]), alignment: 'right' as const },
            ],
          },
        }),
    footer: (page, of) =>
      of > 1 || head !== undefined
        ? {
            text: `${page} of ${of}`,
            alignment: 'right',
            fontSize: 9,
            margin: head === undefined ? [64, 24, 64, 0] : [36, 14, 36, 0],
          }
        : '',
    content: [{ text: words(title), bold: true, fontSize: 16, margin: [0, 0, 0, 16] }, ...content],
  };
  return pdfmake.createPdf(document).getBuffer();
}
