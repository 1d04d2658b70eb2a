/** The card of a batch on paper. */
import { formatDegreesRange, formatMass, formatMoney, type Recipe } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { table } from '../../paper/letter.ts';
import { heading, line } from '../../paper/sheet.ts';
import type { BatchRow } from './queries.ts';

const minutesOf = ({ minutes }: Recipe['steps'][number]): string =>
  minutes === undefined
    ? ''
    : minutes.low === minutes.high
      ? `${minutes.low} min`
      : `${minutes.low} to ${minutes.high} min`;

/** What a batch is made by at the stove: what goes in, the steps, and room for what is read. */
export function batchSheet(batch: BatchRow, currency: string, showsCosts: boolean): Content[] {
  const { recipe } = batch;
  const names = new Map(recipe.ingredients.map((i) => [i.id, i.name]));
  const steps = recipe.steps.filter((s) => s.ways === undefined || s.ways.some((w) => batch.ways.includes(w)));
  return [
    line(
      `${formatMass(batch.baseMg)} ${recipe.baseName}; expected ${formatMass(batch.expectedMg.low)} to ${formatMass(batch.expectedMg.high)} of ${recipe.output.name}. Planned by ${batch.by}.`,
    ),
    heading('What goes in'),
    table(
      [{ head: 'Lot', width: 56 }, { head: 'What' }, { head: 'Weight', figures: true }, { head: 'In', width: 40 }],
      [
        ...batch.inputs.map((i) => [i.code, i.name, formatMass(i.massMg), '____']),
        ...batch.ingredients
          .filter((i) => i.massMg > i.fromLotsMg)
          .map((i) => ['', names.get(i.id) ?? i.id, formatMass(i.massMg - i.fromLotsMg), '____']),
      ],
    ),
    heading('Steps'),
    table(
      [
        { head: '', width: 16 },
        { head: 'What to do' },
        { head: 'Time', width: 70 },
        { head: 'Read', width: 62 },
        { head: 'Who, when', width: 74 },
      ],
      steps.map((s, i) => [
        String(i + 1),
        [s.text, s.watch ?? ''].filter((t) => t !== '').join('\n'),
        minutesOf(s),
        s.tempC === undefined ? '' : `${formatDegreesRange(s.tempC.low, s.tempC.high)}\n________`,
        '\n__________',
      ]),
    ),
    line('Came out: ______________   into: ______________   date on it: ______________'),
    ...(batch.outputLot !== null && showsCosts
      ? [line(`Done: ${batch.outputLot.code}, ${formatMoney(batch.outputLot.costMinor, currency)}.`)]
      : []),
    line('Usual times and temperatures: the local code and a trained person decide.'),
  ];
}
