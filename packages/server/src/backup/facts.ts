/** What can be said of the records so that another copy of them can be held against it. */
import type pg from 'pg';

/** Rows of these are no part of a backup: who was signed in, tries and wrong PINs at the door, and files that can be made again. */
export const NOT_KEPT = ['session', 'sign_in_try', 'rate_limit', 'job_part'] as const;

/** Of every table how many rows, and a sum over all they hold that does not depend on their order. */
export type Facts = Readonly<Record<string, { readonly rows: number; readonly sum: string }>>;

/** Counts and sums every table as the client's transaction sees it. */
export async function readFacts(client: pg.Client): Promise<Facts> {
  await client.query("set timezone = 'UTC'");
  const { rows } = await client.query<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
  );
  const facts: Record<string, { rows: number; sum: string }> = {};
  for (const { name } of rows.filter((r) => !NOT_KEPT.some((n) => n === r.name))) {
    const counted = await client.query<{ rows: number; sum: string }>(
      `select count(*)::int as rows, coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as sum from "${name}" t`,
    );
    facts[name] = counted.rows[0] ?? { rows: 0, sum: '0' };
  }
  return facts;
}

/** What is wrong with the records themselves, in words: nothing when every movement sums to zero and every balance is that of its postings. */
export async function wrongInside(client: pg.Client): Promise<string[]> {
  const uneven = await client.query<{ n: number }>(
    `select count(*)::int as n from (select movement_id from posting group by movement_id having sum(mass_mg) <> 0 or sum(cost_minor) <> 0) x`,
  );
  const off = await client.query<{ n: number }>(
    `select count(*)::int as n from lot_balance b
     full join (select lot_id, sum(mass_mg) as mass, sum(cost_minor) as cost from posting where lot_id is not null group by lot_id) p using (lot_id)
     where b.mass_mg is distinct from p.mass or b.cost_minor is distinct from p.cost`,
  );
  return [
    ...((uneven.rows[0]?.n ?? 0) > 0 ? [`${uneven.rows[0]?.n} movements do not sum to zero`] : []),
    ...((off.rows[0]?.n ?? 0) > 0 ? [`${off.rows[0]?.n} balances are not those of their postings`] : []),
  ];
}

/** The tables in which two copies differ. */
export const differing = (a: Facts, b: Facts): string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (name) => a[name]?.rows !== b[name]?.rows || a[name]?.sum !== b[name]?.sum,
  );
