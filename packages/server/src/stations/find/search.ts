/** One search over everything a house has: what is on hand or under way before what is done, then the latest. */
import { type Answer, type api, type FoundKind, type FoundThing, mayDo } from '@zabrik/contract';
import { codeTyped, FOUND_OF_A_KIND, wordsOf } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { listPlans } from '../../db/plans.ts';
import { listRecipes } from '../../db/recipes.ts';
import { select } from '../../db/select.ts';
import type { Actor } from '../../services.ts';

interface Row extends Omit<FoundThing, 'kind' | 'at'> {
  readonly at: Date | null;
}

/** Each word stands somewhere in what a thing is called by: $2 are the words as patterns, $3 the beginning of a lot's code or null. */
const LOTS = `select l.id, l.name, l.code, b.mass_mg as "massMg", s.name as of, l.made_at as at, b.mass_mg > 0 as open
  from lot l join lot_balance b on b.lot_id = l.id and b.house_id = $1 left join supplier s on s.id = l.supplier_id
  where l.house_id = $1 and (l.code like $3 || '%' or concat_ws(' ', l.name, l.code, s.name, l.reserved_for, l.note) ilike all ($2::text[]))
  order by l.code like $3 || '%' desc nulls last, open desc, l.made_at desc, l.id limit ${FOUND_OF_A_KIND}`;

const BREAKDOWNS = `select b.id, concat_ws(', ', l.name, pv.plan->>'title') as name, l.code, b.start_mg as "massMg", p.name as of, b.started_at as at, b.state = 'open' as open
  from breakdown b join lot l on l.id = b.lot_id join person p on p.id = b.person_id join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version
  where b.house_id = $1 and b.state <> 'cancelled' and (l.code like $3 || '%' or concat_ws(' ', l.name, l.code, pv.plan->>'title', p.name) ilike all ($2::text[]))
  order by open desc, b.started_at desc, b.id limit ${FOUND_OF_A_KIND}`;

const CUTTINGS = `select c.id, string_agg(distinct l.name, ' and ') as name, min(l.code) as code, sum(i.mass_mg)::bigint as "massMg", p.name as of, c.started_at as at, c.state = 'open' as open
  from cutting c join cutting_input i on i.cutting_id = c.id join lot l on l.id = i.lot_id join person p on p.id = c.person_id
  where c.house_id = $1 and c.state <> 'cancelled' group by c.id, c.started_at, c.state, p.name
  having bool_or(l.code like $3 || '%') or concat_ws(' ', string_agg(l.name, ' '), string_agg(l.code, ' '), p.name) ilike all ($2::text[])
  order by open desc, c.started_at desc, c.id limit ${FOUND_OF_A_KIND}`;

const BATCHES = `select r.id, rv.recipe->>'title' as name, l.code, r.base_mg as "massMg", p.name as of, coalesce(r.started_at, r.planned_at) as at, r.state in ('planned', 'on') as open
  from batch r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version join person p on p.id = r.person_id left join lot l on l.id = r.output_lot_id
  where r.house_id = $1 and r.state <> 'called-off' and (l.code like $3 || '%' or concat_ws(' ', rv.recipe->>'title', l.code, p.name) ilike all ($2::text[]))
  order by open desc, at desc, r.id limit ${FOUND_OF_A_KIND}`;

const DELIVERIES = `select d.id, concat_ws(', invoice ', s.name, d.invoice) as name, null as code, null::bigint as "massMg", p.name as of, d.at, d.closed_at is null as open
  from delivery d join supplier s on s.id = d.supplier_id join person p on p.id = d.person_id
  where d.house_id = $1 and concat_ws(' ', s.name, d.invoice, d.note, p.name) ilike all ($2::text[])
  order by open desc, d.at desc, d.id limit ${FOUND_OF_A_KIND}`;

const SUPPLIERS = `select s.id, s.name, null as code, null::bigint as "massMg", null as of, null::timestamptz as at, true as open from supplier s
  where s.house_id = $1 and s.name ilike all ($2::text[]) order by s.name limit ${FOUND_OF_A_KIND}`;

const PEOPLE = `select p.id, p.name, null as code, null::bigint as "massMg", p.role as of, null::timestamptz as at, p.left_at is null as open from person p
  where p.house_id = $1 and p.name ilike all ($2::text[]) order by open desc, p.name limit ${FOUND_OF_A_KIND}`;

/** A word as a pattern: what stands for anything in a pattern stands for itself. */
const pattern = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** Plans or recipes whose title has every word. */
const titled = <T>(
  kind: FoundKind,
  all: readonly T[],
  words: readonly string[],
  read: (of: T) => { readonly id: string; readonly title: string; readonly retired: boolean },
): FoundThing[] =>
  all
    .map(read)
    .filter(({ title }) => words.every((word) => title.toLowerCase().includes(word)))
    .sort((a, b) => Number(a.retired) - Number(b.retired))
    .slice(0, FOUND_OF_A_KIND)
    .map(({ id, title, retired }) => ({
      kind,
      id,
      name: title,
      code: null,
      massMg: null,
      of: null,
      at: null,
      open: !retired,
    }));

/** Everything of a house in which each word of `q` stands, by kind. */
export async function search(db: Sequelize, actor: Actor, q: string): Promise<Answer<typeof api.find.search>> {
  const words = wordsOf(q);
  // a word of marks alone is no word, and nothing is everything's
  if (words.length === 0) return { found: [] };
  const named = [actor.houseId, words.map(pattern)];
  const coded = [...named, codeTyped(q) ?? null];
  const rows = async (kind: FoundKind, query: string, bind: readonly unknown[]): Promise<FoundThing[]> =>
    (await select<Row>(db, query, bind)).map(({ at, ...row }) => ({ kind, ...row, at: at?.toISOString() ?? null }));
  const [lots, breakdowns, cuttings, batches, deliveries, suppliers, people, plans, recipes] = await Promise.all([
    rows('lot', LOTS, coded),
    rows('breakdown', BREAKDOWNS, coded),
    rows('cutting', CUTTINGS, coded),
    rows('batch', BATCHES, coded),
    rows('delivery', DELIVERIES, named),
    rows('supplier', SUPPLIERS, named),
    mayDo(actor.role, 'house.people') ? rows('person', PEOPLE, named) : [],
    listPlans(db, actor.houseId),
    listRecipes(db, actor.houseId),
  ]);
  return {
    found: [
      ...lots,
      ...breakdowns,
      ...cuttings,
      ...batches,
      ...deliveries,
      ...titled('plan', plans, words, ({ plan, retired }) => ({ id: plan.id, title: plan.title, retired })),
      ...titled('recipe', recipes, words, ({ recipe, own }) => ({
        id: recipe.id,
        title: recipe.title,
        retired: own?.retired === true,
      })),
      ...suppliers,
      ...people,
    ],
  };
}
