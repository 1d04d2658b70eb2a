import { categoryInPots } from '@zabrik/catalogue';
import { cutCategories } from '@zabrik/catalogue/portioning';
import type { Answer, Asked, api, Cooling, Lot, LotLog } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { listCoolingsOf } from '../../db/coolings.ts';
import { select, selectOne } from '../../db/select.ts';
import type { GroupPlace } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import { FREE } from '../../massledger/lockLots.ts';
import { eventWords } from './words.ts';

interface Row extends Omit<Lot, 'madeAt' | 'potKind'> {
  readonly madeAt: Date;
}

const LOT = `
select l.id, l.code, l.kind, l.name, l.species, l.form, l.category, l.destination, b.pieces, b.mass_mg as "massMg", ${FREE}, l.made_mg as "madeMg",
       b.cost_minor as "costMinor", l.use_by as "useBy", l.made_at as "madeAt", s.name as "supplierName", l.breakdown_id as "breakdownId", l.piece_id as "pieceId", l.allergens, l.note, l.next_stage as "nextStage",
       l.place_id as "placeId", l.state, l.ready, l.frozen_on as "frozenOn", l.thawed_on as "thawedOn", l.opened_on as "openedOn",
       l.date_basis as "dateBasis", l.date_limit as "dateLimit", l.date_max_c::float8 as "dateMaxC", l.raised, l.reserved_for as "reservedFor", l.held, l.goods, l.tub_recipe as "tubRecipe", l.labels,
       case when l.category is null then (select r.recipe_id from batch r where r.id = l.batch_id) end as "recipeId",
       array(select distinct pl.code from lot_genealogy k join lot pl on pl.id = k.parent_id where k.child_id = l.id order by pl.code) as "parentCodes"`;

const FROM = `
from lot l join lot_balance b on b.lot_id = l.id left join supplier s on s.id = l.supplier_id
where b.house_id = $1 and l.house_id = $1`;

const lotOf = (row: Row): Lot => ({
  ...row,
  madeAt: row.madeAt.toISOString(),
  potKind: categoryInPots(row.category, row.species),
});

export interface LotFilter {
  readonly search: string | undefined;
  readonly destination: Destination | undefined;
  readonly kind: Lot['kind'] | undefined;
  readonly place: string | undefined;
  readonly category: string | undefined;
  readonly state: Lot['state'] | undefined;
  readonly due: 'past' | 'today' | 'soon' | undefined;
  readonly held: boolean;
  readonly cuttable: boolean;
  readonly toWeight: 'cut' | 'mould' | undefined;
}
export type LotGroup = NonNullable<Answered['group']>;
type StockTake = Answer<typeof api.larder.stockTakes>['stockTakes'][number];
type Answered = Asked<typeof api.larder.list>['query'];

/** Which lots are asked for by a request. */
export const filterOf = ({
  held,
  cuttable,
  search,
  destination,
  kind,
  place,
  category,
  state,
  due,
  toWeight,
}: Omit<Answered, 'cursor' | 'limit' | 'group'>): LotFilter => ({
  search,
  destination,
  kind,
  place,
  category,
  state,
  due,
  held: held === 'yes',
  cuttable: cuttable === 'yes',
  toWeight,
});

const FILTER = `and b.mass_mg > 0
  and ($2::text is null or l.name ilike '%' || $2 || '%' or l.code ilike $2 || '%' or s.name ilike '%' || $2 || '%' or l.reserved_for ilike '%' || $2 || '%')
  and ($3::text is null or l.destination = $3) and ($4::text is null or l.kind = $4) and (not $5::boolean or (l.form is not null and b.mass_mg > b.reserved_mg))
  and ($6::text is null or l.place_id = $6) and ($7::text is null or l.category = $7) and ($8::text is null or l.state = $8)
  and ($9::text is null or case $9 when 'past' then l.use_by < $10::date when 'today' then l.use_by = $10::date
       else l.use_by between $10::date and $10::date + 2 end)
  and (not $11::boolean or l.held is not null)
  and ($12::text is null or (l.state <> 'frozen' and l.held is null and b.mass_mg > b.reserved_mg
       and case when l.category = any($13::text[]) then $12 = 'mould' or l.kind = 'delivery' or l.destination in ('portion', 'larder')
           else $12 = 'mould' and (l.kind = 'batch' or l.destination = 'filling') end))`;

const FAR = '9999-12-31';
const DUE = `coalesce(l.use_by, '${FAR}')`;

/** What lots are put together by; within a group the earliest date first. Never null: it is half of a place in the list. */
const GROUP: Readonly<Record<LotGroup, string>> = {
  place: 'l.place_id',
  date: `${DUE}::text`,
  destination: `case when l.destination is null and l.kind = 'delivery' then 'whole' when l.kind = 'goods' then 'goods' else coalesce(l.destination, 'larder') end`,
  species: `coalesce(l.species, l.goods, '~')`,
  supplier: `coalesce(s.name, '~')`,
};

/** What is on hand in the order asked for; the place in the list is the group, the use-by date and the id. */
export async function listOnHand(
  db: Sequelize,
  houseId: string,
  filter: LotFilter,
  group: LotGroup | undefined,
  today: string,
  limit: number,
  after: GroupPlace | undefined,
): Promise<{ readonly lots: Lot[]; readonly total: number; readonly next: GroupPlace | undefined }> {
  const search = filter.search?.trim().replace(/[\\%_]/g, (c) => `\\${c}`);
  const bind = [
    houseId,
    search === undefined || search === '' ? null : search,
    filter.destination ?? null,
    filter.kind ?? null,
    filter.cuttable,
    filter.place ?? null,
    filter.category ?? null,
    filter.state ?? null,
    filter.due ?? null,
    today,
    filter.held,
    filter.toWeight ?? null,
    cutCategories,
  ];
  // when nothing is asked for in groups, all are one
  const key = group === undefined ? `''::text` : GROUP[group];
  const [rows, counted] = await Promise.all([
    select<Row & { readonly groupKey: string }>(
      db,
      `${LOT}, ${key} as "groupKey" ${FROM} ${FILTER}
         and ($14::date is null or (${key}, ${DUE}, l.id) > ($15::text, $14::date, $16::uuid))
       order by ${key}, ${DUE}, l.id limit $17`,
      [...bind, after?.at ?? null, after?.group ?? null, after?.id ?? null, limit + 1],
    ),
    selectOne<{ total: number }>(db, `select count(*)::int as total ${FROM} ${FILTER}`, bind),
  ]);
  const last = rows.length > limit ? rows[limit - 1] : undefined;
  return {
    lots: rows.slice(0, limit).map(({ groupKey: _, ...row }) => lotOf(row)),
    total: counted?.total ?? 0,
    next: last === undefined ? undefined : { at: last.useBy ?? FAR, id: last.id, group: last.groupKey },
  };
}

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
  const row = await selectOne<Row>(db, `${LOT} ${FROM} and l.id = $2`, [houseId, lotId]);
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
    await select<Row>(
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
