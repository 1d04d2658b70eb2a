/** The cutting list on paper. */
import type { Lot } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { table } from '../../paper/letter.ts';
import { dueOnPaper, heading, nothing, what } from '../../paper/sheet.ts';

export interface OnTheBench {
  readonly what: string;
  readonly code: string;
  readonly plan: string;
  readonly who: string;
  readonly massMg: number;
}

/** The cutting list: what is under way, what waits between two stages, and what is whole. */
export function cuttingSheet(
  open: readonly OnTheBench[],
  waiting: readonly {
    readonly what: string;
    readonly codes: string;
    readonly massMg: number;
    readonly useBy: string | null;
  }[],
  toCut: readonly Lot[],
  today: string,
): Content[] {
  return [
    heading('On the bench now'),
    open.length === 0
      ? nothing('The bench is clear.')
      : table(
          [
            { head: 'Code', width: 52 },
            { head: 'What' },
            { head: 'Plan' },
            { head: 'Who' },
            { head: 'Weight', figures: true },
          ],
          open.map((b) => [b.code, b.what, b.plan, b.who, formatMass(b.massMg)]),
        ),
    heading('Waiting to go on'),
    waiting.length === 0
      ? nothing('Nothing waits.')
      : table(
          [{ head: 'What' }, { head: 'Lots' }, { head: 'Use by', width: 64 }, { head: 'Weight', figures: true }],
          waiting.map((w) => [w.what, w.codes, dueOnPaper(w.useBy, today), formatMass(w.massMg)]),
        ),
    heading('To be cut, earliest date first'),
    toCut.length === 0
      ? nothing('Nothing whole to cut.')
      : table(
          [
            { head: 'Code', width: 52 },
            { head: 'What' },
            { head: 'Use by', width: 64 },
            { head: 'How many', figures: true },
            { head: 'Weight', figures: true },
            { head: 'Into what', width: 96 },
          ],
          toCut.map((l) => [
            l.code,
            what({ ...l, allergens: [] }),
            dueOnPaper(l.useBy, today),
            String(l.freePieces),
            formatMass(l.freeMg),
            '______________',
          ]),
        ),
  ];
}
