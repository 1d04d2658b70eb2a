import type { Answer, api, Cooling, Lot, LotLog } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { listCoolingsOf } from '../../db/coolings.ts';
import { FROM, GROUP, LOT, type LotGroup, type LotRow, lotOf } from '../../db/lotsOnHand.ts';
import { select, selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { eventWords } from './words.ts';

type StockTake = Answer<typeof api.larder.stockTakes>['stockTakes'][number];

export interface GroupRow {
  readonly key: string;
  readonly lots: number;
  readonly massMg: number;
  readonly costMinor: number;
  readonly earliest: string | null;
}

/** What is on hand, added up. In the order in which the list stands by that group. */
export const sumGroups = (db: Sequelize, houseId: string, by: LotGroup): Promise<GroupRow[]> =>
  select<GroupRow>(
    db,
    `select ${GROUP[by]} as key, count(*)::int as lots, sum(b.mass_mg)::bigint as "massMg", sum(b.cost_minor)::bigint as "costMinor", min(l.use_by) as earliest
     ${FROM} and b.mass_mg > 0 group by 1 order by 1`,
    [houseId],
  );

interface LinkRow {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
}

interface EntryRow {
  readonly movementId: string;
  readonly kind: string;
  readonly at: Date;
  readonly by: string;
  readonly note: string | null;
  readonly massMg: number;
  readonly costMinor: number;
  readonly reverses: string | null;
  readonly reversed: boolean;
}

/** What a lot was made from, or what it went into, with what the other gave or got in the movements between them. */
const related = (mine: 'parent_id' | 'child_id', theirs: 'parent_id' | 'child_id'): string => `
select x.id, x.code, x.name, sum(o.mass_mg)::bigint as "massMg"
from lot_genealogy k join lot x on x.id = k.${theirs}
join posting o on o.movement_id = k.movement_id and o.lot_id = k.${theirs} and o.mass_mg ${theirs === 'parent_id' ? '<' : '>'} 0
where k.${mine} = $1 and k.house_id = $2 group by x.id, x.code, x.name order by x.code`;

interface EventRow {
  readonly id: string;
  readonly kind: string;
  readonly after: Readonly<Record<string, unknown>>;
  readonly note: string | null;
  readonly by: string;
  readonly at: Date;
  readonly undone: boolean;
}

const logTold = ({ id, kind, state, verdict, limit, readings, startedAt, outcome }: Cooling): LotLog[] => {
  const last = readings.at(-1);
  if (last === undefined) return [];
  const document = limit === null ? null : `${limit.citation.document} ${limit.citation.section}`;
  return [
    {
      id,
      kind,
      open: state === 'open',
      verdict,
      document,
      readings: readings.length,
      lastCentiC: last.centiC,
      startedAt,
      lastAt: last.at,
      outcome,
    },
  ];
};

export const readEventsOf = (db: Sequelize, lotId: string): Promise<EventRow[]> =>
  select<EventRow>(
    db,
    `select e.id, e.kind, e.after, e.note, p.name as by, e.at, exists (select 1 from corrected c where c.house_id = e.house_id and c.id = e.id) as undone
     from lot_event e join person p on p.id = e.person_id where e.lot_id = $1 order by e.seq`,
    [lotId],
  );

/** A probe reading that nobody took back, in order of time. */
export const readingsOf = (events: readonly EventRow[]): { centiC: number; at: string; by: string }[] =>
  events.flatMap((e) =>
    e.kind === 'reading' && !e.undone ? [{ centiC: Number(e.after['centiC']), at: e.at.toISOString(), by: e.by }] : [],
  );

export async function readLot(
  db: Sequelize,
  houseId: string,
  lotId: string,
  placeName: (id: string) => string,
  now: Date,
) {
  const row = await selectOne<LotRow>(db, `${LOT} ${FROM} and l.id = $2`, [houseId, lotId]);
  if (row === undefined) throw new Problem('not_found');
  const [parents, children, entries, events, coolings] = await Promise.all([
    select<LinkRow>(db, related('child_id', 'parent_id'), [lotId, houseId]),
    select<LinkRow>(db, related('parent_id', 'child_id'), [lotId, houseId]),
    select<EntryRow>(
      db,
      `select m.id as "movementId", m.kind, m.at, w.name as by, m.note, sum(p.mass_mg)::bigint as "massMg", sum(p.cost_minor)::bigint as "costMinor",
              m.reverses, exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id) as reversed
       from posting p join movement m on m.id = p.movement_id join person w on w.id = m.person_id
       where p.lot_id = $1 and p.house_id = $2 group by m.house_id, m.at, m.id, w.name order by m.at, m.id`,
      [lotId, houseId],
    ),
    readEventsOf(db, lotId),
    listCoolingsOf(db, houseId, lotId, now),
  ]);
  return {
    ...lotOf(row),
    parents,
    children,
    entries: entries.map((e) => ({ ...e, at: e.at.toISOString() })),
    readings: readingsOf(events),
    logs: coolings.flatMap(logTold),
    events: events.map(({ after, at, ...e }) => ({
      ...e,
      at: at.toISOString(),
      says: eventWords(e.kind, after, placeName),
    })),
  };
}

/** The tubs that hold something, earliest date first. */
export const listTubLots = async (db: Sequelize, houseId: string): Promise<Lot[]> =>
  (
    await select<LotRow>(
      db,
      `${LOT} ${FROM} and b.mass_mg > 0 and l.kind = 'tub' order by l.use_by nulls last, l.id limit 60`,
      [houseId],
    )
  ).map(lotOf);

export async function listStockTakes(db: Sequelize, houseId: string, limit: number): Promise<StockTake[]> {
  const rows = await select<Omit<StockTake, 'at'> & { readonly at: Date }>(
    db,
    `select t.id, t.place_id as "placeId", t.lots, t.differing, t.difference_mg as "differenceMg", t.difference_minor as "differenceMinor", t.note,
            p.name as by, t.at
     from stock_take t join person p on p.id = t.person_id where t.house_id = $1 order by t.at desc, t.id limit $2`,
    [houseId, limit],
  );
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}
