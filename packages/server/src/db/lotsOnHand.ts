/** Lots as lists show them: what is on hand, whose list and in which order. Several stations read it. */
import { categoryInPots } from '@zabrik/catalogue';
import { cutCategories } from '@zabrik/catalogue/portioning';
import type { Asked, api, Lot } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import type { GroupPlace } from '../http/page.ts';
import { FREE } from './freeOfLot.ts';
import { select, selectOne } from './select.ts';

export interface LotRow extends Omit<Lot, 'madeAt' | 'potKind'> {
  readonly madeAt: Date;
}

/** The columns of a lot, and where they come from: `$1` is the house. */
export const LOT = `
select l.id, l.code, l.kind, l.name, l.species, l.form, l.category, l.destination, b.pieces, b.mass_mg as "massMg", ${FREE}, l.made_mg as "madeMg",
       b.cost_minor as "costMinor", l.use_by as "useBy", l.made_at as "madeAt", s.name as "supplierName", l.breakdown_id as "breakdownId", l.piece_id as "pieceId", l.allergens, l.note, l.next_stage as "nextStage",
       l.place_id as "placeId", l.state, l.ready, l.frozen_on as "frozenOn", l.thawed_on as "thawedOn", l.opened_on as "openedOn",
       l.date_basis as "dateBasis", l.date_limit as "dateLimit", l.date_max_c::float8 as "dateMaxC", l.raised, l.reserved_for as "reservedFor", l.held, l.goods, l.tub_recipe as "tubRecipe", l.labels,
       case when l.category is null then (select r.recipe_id from batch r where r.id = l.batch_id) end as "recipeId",
       array(select distinct pl.code from lot_genealogy k join lot pl on pl.id = k.parent_id where k.child_id = l.id order by pl.code) as "parentCodes"`;

export const FROM = `
from lot l join lot_balance b on b.lot_id = l.id left join supplier s on s.id = l.supplier_id
where b.house_id = $1 and l.house_id = $1`;

export const lotOf = (row: LotRow): Lot => ({
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

/** Nothing asked for: every lot. */
export const anyLot = filterOf({
  search: undefined,
  destination: undefined,
  kind: undefined,
  place: undefined,
  category: undefined,
  state: undefined,
  due: undefined,
  held: undefined,
  cuttable: undefined,
  toWeight: undefined,
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
export const GROUP: Readonly<Record<LotGroup, string>> = {
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
    select<LotRow & { readonly groupKey: string }>(
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
