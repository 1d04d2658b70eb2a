/** House files of versions before: what each step of the database's shape means for the rows in a file. */
import { createHash } from 'node:crypto';
import { timeIn } from '../http/idsOf.ts';

type Row = Readonly<Record<string, unknown>>;
export type Tables = Readonly<Record<string, readonly Row[]>>;

interface Step {
  readonly from: string;
  readonly to: string;
  readonly change: (tables: Tables) => Tables;
}

/** What an open holder's inputs have promised to it. */
const promised = (
  tables: Tables,
  kind: string,
  inputs: string,
  holders: string,
  states: readonly string[],
): readonly Row[] => {
  const going = new Set((tables[holders] ?? []).filter((h) => states.includes(String(h['state']))).map((h) => h['id']));
  return (tables[inputs] ?? [])
    .filter((i) => going.has(i[`${kind}_id`]))
    .map((i) => ({
      house_id: i['house_id'],
      lot_id: i['lot_id'],
      holder_kind: kind,
      holder_id: i[`${kind}_id`],
      mass_mg: i['mass_mg'],
    }));
};

/** What each row carries moves to a table that keeps it once; the row names it. */
const keptOnce = (tables: Tables, of: string, column: string, version: string, kept: string): Tables => {
  const rows = tables[of] ?? [];
  const idOf = (row: Row): string => createHash('sha256').update(JSON.stringify(row[column])).digest('hex');
  const versions = new Map(
    rows.map((row) => [idOf(row), { house_id: row['house_id'], id: idOf(row), [kept]: row[column] }]),
  );
  return {
    ...tables,
    [version]: [...versions.values()],
    [of]: rows.map((row) => {
      const { [column]: _, ...rest } = row;
      return { ...rest, [version]: idOf(row) };
    }),
  };
};

/** Columns that have another name. */
const renamed = (rows: readonly Row[] = [], names: Readonly<Record<string, string>>): readonly Row[] =>
  rows.map((row) => Object.fromEntries(Object.entries(row).map(([column, value]) => [names[column] ?? column, value])));

/** A word that stands in a column has become another. */
const said = (rows: readonly Row[] = [], column: string, before: string, now: string): readonly Row[] =>
  rows.map((row) => (row[column] === before ? { ...row, [column]: now } : row));

/** A key carries its time. */
const keyed = (rows: readonly Row[] = []): readonly Row[] =>
  rows.map((row) => ({ ...row, keyed_at: timeIn(String(row['id'])).toISOString() }));

/** Nothing of the rows has changed. */
const asTheyAre = (tables: Tables): Tables => tables;

const steps: readonly Step[] = [
  {
    from: '0018-lot-serials',
    to: '0019-reservations',
    change: (tables) => ({
      ...tables,
      reservation: [
        ...promised(tables, 'breakdown', 'breakdown_input', 'breakdown', ['open']),
        ...promised(tables, 'cutting', 'cutting_input', 'cutting', ['open']),
        ...promised(tables, 'run', 'run_input', 'run', ['planned', 'on']),
      ],
    }),
  },
  { from: '0019-reservations', to: '0020-answers-thinned', change: asTheyAre },
  {
    from: '0020-answers-thinned',
    to: '0021-versions-kept',
    change: (tables) =>
      keptOnce(keptOnce(tables, 'breakdown', 'plan', 'plan_version', 'plan'), 'run', 'use', 'recipe_version', 'recipe'),
  },
  { from: '0021-versions-kept', to: '0022-jobs', change: asTheyAre },
  {
    from: '0022-jobs',
    to: '0023-recipes-and-batches',
    change: ({ run, run_input, run_event, house_use, ...tables }) => ({
      ...tables,
      batch: renamed(run, { use_id: 'recipe_id' }),
      batch_input: renamed(run_input, { run_id: 'batch_id' }),
      batch_event: renamed(run_event, { run_id: 'batch_id' }),
      house_recipe: renamed(house_use, { use_id: 'recipe_id' }),
      lot: renamed(tables['lot'], { run_id: 'batch_id', tub_use: 'tub_recipe' }),
      movement: said(tables['movement'], 'kind', 'run', 'batch'),
      reservation: said(tables['reservation'], 'holder_kind', 'run', 'batch'),
    }),
  },
  {
    from: '0023-recipes-and-batches',
    to: '0024-by-house-and-time',
    change: (tables) => {
      const at = new Map((tables['movement'] ?? []).map((m) => [m['id'], m['at']]));
      return { ...tables, posting: (tables['posting'] ?? []).map((p) => ({ ...p, at: at.get(p['movement_id']) })) };
    },
  },
  { from: '0024-by-house-and-time', to: '0025-tries-counted', change: asTheyAre },
  {
    from: '0025-tries-counted',
    to: '0026-as-found',
    change: (tables) => ({
      ...tables,
      breakdown: (tables['breakdown'] ?? []).map((b) => ({ ...b, found: { others: [], cameWithout: {} } })),
      breakdown_input: (tables['breakdown_input'] ?? []).map((i) => ({ ...i, brought: false })),
      breakdown_piece: (tables['breakdown_piece'] ?? []).map((p) => ({ ...p, brought_mg: 0 })),
    }),
  },
  {
    from: '0026-as-found',
    to: '0027-while-it-is-on',
    change: (tables) => ({
      ...tables,
      house_plate: [],
      cooling: (tables['cooling'] ?? []).map((c) => ({ ...c, batch_id: null })),
    }),
  },
  {
    from: '0027-while-it-is-on',
    to: '0028-keys-with-their-time',
    change: (tables) => ({ ...tables, command: keyed(tables['command']), weighing: keyed(tables['weighing']) }),
  },
  { from: '0028-keys-with-their-time', to: '0029-lot-genealogy', change: asTheyAre },
  { from: '0029-lot-genealogy', to: '0030-time-in-at-once', change: asTheyAre },
  {
    from: '0030-time-in-at-once',
    to: '0031-a-house-moves-in',
    change: (tables) => ({
      ...tables,
      person: (tables['person'] ?? []).map((p) => ({ ...p, left_at: null, hourly_minor: null, version: 1 })),
      setting_change: [],
    }),
  },
  {
    from: '0031-a-house-moves-in',
    to: '0032-devices-of-the-house',
    change: (tables) => ({ ...tables, scale_check: [] }),
  },
  {
    from: '0032-devices-of-the-house',
    to: '0033-pieces-reserved',
    change: (tables) => ({
      ...tables,
      reservation: (tables['reservation'] ?? []).map((r) => ({ ...r, pieces: null })),
    }),
  },
  {
    from: '0033-pieces-reserved',
    to: '0034-what-suppliers-say',
    change: (tables) => ({
      ...tables,
      supplier: (tables['supplier'] ?? []).map((s) => ({ ...s, terms: {}, version: 1, retired_at: null })),
      batch: (tables['batch'] ?? []).map((b) => ({ ...b, unpriced: [] })),
    }),
  },
  {
    from: '0034-what-suppliers-say',
    to: '0035-programs-tablets-people',
    change: (tables) => ({
      ...tables,
      // who was there before knows the way
      person: (tables['person'] ?? []).map((p) => ({
        ...p,
        skills: [],
        must_not_touch: [],
        shifts: [],
        first_day_over_at: new Date(0).toISOString(),
      })),
    }),
  },
];

/** The rows of a file in the shape wanted; undefined where no way leads there. */
export function upgradedTo(wanted: string, shape: string, tables: Tables): Tables | undefined {
  let now = { shape, tables };
  while (now.shape !== wanted) {
    const step = steps.find((s) => s.from === now.shape);
    if (step === undefined) return undefined;
    now = { shape: step.to, tables: step.change(now.tables) };
  }
  return now.tables;
}
