/** The sheets a kitchen hangs on a wall or takes to the cold room: every list whole. */
import type { Delivery, Lot } from '@zabrik/contract';
import { refusalNames } from '@zabrik/contract/claim-words';
import { formatDegrees, formatDegreesRange, formatMass, formatMoney, formatPerMass, type Recipe } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { placesOf } from '../../db/house.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { dayOnPaper, shortDayOnPaper } from '../../paper/dateWords.ts';
import { type Column, table, words } from '../../paper/letter.ts';
import type { BatchRow } from '../pots/queries.ts';

const heading = (text: string): Content => ({ text: words(text), bold: true, fontSize: 13, margin: [0, 8, 0, 0] });
const line = (text: string): Content => ({ text: words(text), margin: [0, 0, 0, 4] });
const nothing = (text: string): Content => ({ text: words(text), italics: false, margin: [0, 6, 0, 6] });

/** How far a use-by is, in words that stand out on paper. */
const dueOnPaper = (useBy: string | null, today: string): string =>
  useBy === null
    ? 'no date'
    : `${shortDayOnPaper(useBy)}${useBy < today ? '\nPAST' : useBy === today ? '\nLAST DAY' : ''}`;

const stateOf = (lot: Lot): string =>
  [
    lot.state === 'fresh' ? '' : lot.state,
    lot.held === null ? '' : `ON HOLD: ${lot.held}`,
    lot.reservedFor === null ? '' : `for ${lot.reservedFor}`,
    lot.freeMg < lot.massMg ? `${formatMass(lot.massMg - lot.freeMg)} on a bench or promised to a pot` : '',
    lot.allergens.length === 0 ? '' : `allergens: ${lot.allergens.join(', ')}`,
  ]
    .filter((t) => t !== '')
    .join('; ');

const what = (lot: Lot): string =>
  [lot.name, [lot.supplierName ?? '', stateOf(lot)].filter((t) => t !== '').join('; ')]
    .filter((t) => t !== '')
    .join('\n');

const pieces = (lot: Lot): string => (lot.pieces > 1 ? String(lot.pieces) : '');

const lotColumns: readonly Column[] = [
  { head: 'Code', width: 52 },
  { head: 'What' },
  { head: 'Use by', width: 64 },
  { head: 'Pieces', figures: true },
  { head: 'Weight', figures: true },
];

/** Lots in the order they come in, each group under its own heading; a sum under each. `groupOf`: undefined where all are one. */
export function larderSheet(
  lots: readonly Lot[],
  today: string,
  groupOf: ((lot: Lot) => string) | undefined,
  asked: string,
): Content[] {
  if (lots.length === 0) return [line(asked), nothing('Nothing is on hand.')];
  const groups = new Map<string, Lot[]>();
  for (const lot of lots) {
    const group = groupOf?.(lot) ?? '';
    groups.set(group, [...(groups.get(group) ?? []), lot]);
  }
  const sum = (some: readonly Lot[]): string =>
    `${some.length} ${some.length === 1 ? 'lot' : 'lots'}, ${formatMass(some.reduce((mg, l) => mg + l.massMg, 0))}`;
  return [
    line([asked, sum(lots)].filter((t) => t !== '').join(' · ')),
    ...[...groups].flatMap(([group, some]): Content[] => [
      ...(group === '' ? [] : [heading(`${group}: ${sum(some)}`)]),
      table(
        lotColumns,
        some.map((l) => [l.code, what(l), dueOnPaper(l.useBy, today), pieces(l), formatMass(l.massMg)]),
      ),
    ]),
  ];
}

/** The name a lot's place has in the house. */
export const placeIn =
  (house: HouseRow) =>
  (lot: Pick<Lot, 'placeId'>): string =>
    placesOf(house).find((p) => p.id === lot.placeId)?.name ?? lot.placeId;

/** What should lie in each place, with room for what is counted and why it differs. */
export function stockTakeSheet(lots: readonly Lot[], today: string, placeOf: (lot: Lot) => string): Content[] {
  if (lots.length === 0) return [nothing('Nothing lies there.')];
  const places = new Map<string, Lot[]>();
  for (const lot of lots) places.set(placeOf(lot), [...(places.get(placeOf(lot)) ?? []), lot]);
  return [
    line('Counted by ________________________   from ________   to ________'),
    ...[...places].flatMap(([place, some]): Content[] => [
      heading(`${place}: ${some.length} ${some.length === 1 ? 'lot' : 'lots'}`),
      table(
        [
          { head: 'Code', width: 52 },
          { head: 'What' },
          { head: 'Use by', width: 64 },
          { head: 'Should be', figures: true },
          { head: 'Counted', width: 70 },
          { head: 'Why it differs', width: 80 },
        ],
        some.map((l) => [
          l.code,
          l.pieces > 1 ? `${l.name}\n${l.pieces} pieces` : l.name,
          dueOnPaper(l.useBy, today),
          formatMass(l.massMg),
          '\n__________',
          '\n____________',
        ]),
      ),
      line('On no list: ______________________________________________________________________'),
    ]),
  ];
}

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

export interface PriceLine {
  readonly item: string;
  readonly supplierName: string;
  readonly minorPerKg: number;
  readonly unit: string;
  readonly validFrom: string;
  readonly beforeMinor: number | null;
}

/** Every price that counts today, each supplier under its own heading. */
export function priceSheet(prices: readonly PriceLine[], currency: string): Content[] {
  if (prices.length === 0) return [nothing('No list counts yet.')];
  const suppliers = new Map<string, PriceLine[]>();
  for (const p of prices) suppliers.set(p.supplierName, [...(suppliers.get(p.supplierName) ?? []), p]);
  return [...suppliers]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([supplier, some]): Content[] => [
      heading(supplier),
      table(
        [
          { head: 'Item' },
          { head: 'Sold by', width: 84 },
          { head: 'Since', width: 96 },
          { head: 'Before', figures: true },
          { head: 'Price', figures: true },
        ],
        some.map((p) => [
          p.item,
          p.unit,
          dayOnPaper(p.validFrom),
          p.beforeMinor === null ? '' : formatPerMass(p.beforeMinor, currency),
          formatPerMass(p.minorPerKg, currency),
        ]),
      ),
    ]);
}

/** What a supplier brought: each line as it was weighed, measured and decided. */
export function deliverySheet(delivery: Delivery, currency: string, showsCosts: boolean): Content[] {
  const decided = (l: Delivery['lines'][number]): string =>
    l.verdict === 'accepted'
      ? 'accepted'
      : `${l.verdict === 'part' ? `${formatMass(l.refusedMg)} went back` : 'refused'}: ${refusalNames[l.refusedReason ?? ''] ?? 'no reason said'}`;
  return [
    line(
      [
        `Received by ${delivery.by}`,
        delivery.invoice === null ? '' : `invoice ${delivery.invoice}`,
        delivery.closedAt === null ? 'not closed yet' : '',
      ]
        .filter((t) => t !== '')
        .join(' · '),
    ),
    table(
      [
        { head: 'Code', width: 52 },
        { head: 'What' },
        { head: 'Invoiced', figures: true },
        { head: 'Weighed', figures: true },
        { head: 'At', figures: true },
        ...(showsCosts ? [{ head: 'Paid', figures: true }] : []),
        { head: 'Decided', width: 92 },
      ],
      delivery.lines.map((l) => [
        l.code ?? '',
        [
          `${l.speciesName}${l.formName === '' ? '' : `, ${l.formName}`}`,
          [
            l.origin ?? '',
            l.useBy === null ? '' : `use by ${dayOnPaper(l.useBy)}`,
            l.note ?? '',
            l.reversed ? 'TAKEN BACK' : '',
          ]
            .filter((t) => t !== '')
            .join('; '),
        ]
          .filter((t) => t !== '')
          .join('\n'),
        l.invoiceMg === null ? 'not said' : formatMass(l.invoiceMg),
        l.grossMg === null ? 'not weighed' : formatMass(l.netMg),
        l.temperatureCentiC === null ? 'not measured' : formatDegrees(l.temperatureCentiC / 100),
        ...(showsCosts ? [formatMoney(l.paidMinor, currency)] : []),
        decided(l),
      ]),
    ),
    line('Received by ________________________   Driver ________________________'),
  ];
}

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
