import type { Asked, api } from '@zabrik/contract';
import { type LabelContent, type LabelWords, layLabel } from '@zabrik/core';
import bwip from 'bwip-js/node';
import { newDocument } from './type.ts';

export type LabelSize = Asked<typeof api.larder.labelPdf>['query']['size'];

const MM = 72 / 25.4;

interface Paper {
  readonly page: readonly [width: number, height: number];
  readonly label: readonly [width: number, height: number];
  readonly columns: number;
  readonly rows: number;
  readonly left: number;
  readonly top: number;
  readonly stepX: number;
  readonly stepY: number;
}

const roll = (width: number, height: number): Paper => ({
  page: [width, height],
  label: [width, height],
  columns: 1,
  rows: 1,
  left: 0,
  top: 0,
  stepX: width,
  stepY: height,
});

/** Millimetres. Rolls by their own size; A4 sheets of 24 (70 x 36) and 65 (38.1 x 21.2), common ones. */
export const papers: Readonly<Record<LabelSize, Paper>> = {
  '57x32': roll(57, 32),
  '62x40': roll(62, 40),
  '100x50': roll(100, 50),
  'a4-24': { page: [210, 297], label: [70, 36], columns: 3, rows: 8, left: 0, top: 4.5, stepX: 70, stepY: 36 },
  'a4-65': {
    page: [210, 297],
    label: [38.1, 21.2],
    columns: 5,
    rows: 13,
    left: 4.75,
    top: 10.7,
    stepX: 40.6,
    stepY: 21.2,
  },
};

/**
 * Labels as a PDF, in the order given: a page each on a roll, side by side on a sheet. `drawn` is told after each how many there are by now.
 *
 * Errors  `label_too_small` of the core.
 */
export async function labelSheet(
  contents: readonly LabelContent[],
  size: LabelSize,
  words: LabelWords,
  drawn: (labels: number) => void = () => undefined,
): Promise<Uint8Array> {
  const paper = papers[size];
  const { document, width, write } = await newDocument(
    contents.length === 1 ? `Label ${contents[0]?.code}` : `${contents.length} labels`,
  );
  const [pageWidth, pageHeight] = paper.page.map((mm) => mm * MM) as [number, number];
  const [labelWidth, labelHeight] = paper.label.map((mm) => mm * MM) as [number, number];
  const perPage = paper.columns * paper.rows;
  const squares = new Map<string, Awaited<ReturnType<typeof document.embedPng>>>();
  const squareOf = async ({ element }: LabelContent) => {
    const before = squares.get(element);
    if (before !== undefined) return before;
    const png = await bwip.toBuffer({
      bcid: 'gs1datamatrix',
      text: `(${element.slice(0, 2)})${element.slice(2)}`,
      scale: 6,
      paddingwidth: 0,
      paddingheight: 0,
    });
    const embedded = await document.embedPng(png);
    squares.set(element, embedded);
    return embedded;
  };
  const laid = new Map<LabelContent, ReturnType<typeof layLabel>>();
  let page = document.addPage([pageWidth, pageHeight]);
  for (const [i, content] of contents.entries()) {
    if (i > 0 && i % perPage === 0) page = document.addPage([pageWidth, pageHeight]);
    const at = i % perPage;
    const left = (paper.left + (at % paper.columns) * paper.stepX) * MM;
    const top = pageHeight - (paper.top + Math.floor(at / paper.columns) * paper.stepY) * MM;
    // copies of one label are one content, laid out once
    const { lines, square } = laid.get(content) ?? layLabel(content, labelWidth, labelHeight, words, width);
    laid.set(content, { lines, square });
    for (const line of lines)
      write(page, line.text, { x: left + line.x, y: top - line.y, size: line.size, bold: line.bold });
    page.drawImage(await squareOf(content), {
      x: left + square.x,
      y: top - square.y - square.side,
      width: square.side,
      height: square.side,
    });
    drawn(i + 1);
  }
  return document.save();
}
