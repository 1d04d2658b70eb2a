import type { Sequelize, Transaction } from 'sequelize';

/** The role that work for one house is done under. It owns nothing and passes no policy by. */
export const HOUSE_ROLE = 'zabrik_house';

/**
 * Sees to it that the database keeps the houses apart by itself: a role for work done for one house, and on every table with a house in it a policy that
 * shows and takes rows of that house alone. Done after every migration, so that no table can be forgotten; what is there already is left alone.
 */
export async function keepApart(db: Sequelize, transaction: Transaction): Promise<void> {
  await db.query(
    `do $$
     declare t record;
     begin
       begin
         create role ${HOUSE_ROLE} nologin;
       exception when duplicate_object or unique_violation then null; -- a role is the whole cluster's: another database has made it
       end;
       grant usage on schema public to ${HOUSE_ROLE};
       grant select, insert, update, delete on all tables in schema public to ${HOUSE_ROLE};
       grant usage, select on all sequences in schema public to ${HOUSE_ROLE};
       -- of tables and numberings that come later: a house brings its own
       alter default privileges in schema public grant select, insert, update, delete on tables to ${HOUSE_ROLE};
       alter default privileges in schema public grant usage, select on sequences to ${HOUSE_ROLE};
       create or replace function house_now() returns uuid language sql stable parallel safe as
         'select nullif(current_setting(''zabrik.house'', true), '''')::uuid';
       for t in
         select c.relname as name, case when c.relname = 'house' then 'id' else 'house_id' end as of
         from pg_class c join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
         where c.relkind in ('r', 'p') and not exists (select 1 from pg_policy p where p.polrelid = c.oid)
           and (c.relname = 'house' or exists (select 1 from pg_attribute a where a.attrelid = c.oid and a.attname = 'house_id' and not a.attisdropped))
       loop
         execute format('alter table %I enable row level security', t.name);
         -- asked once a statement, not once a row
         execute format('create policy its_house on %I using (%I = (select house_now()))', t.name, t.of);
       end loop;
     end $$`,
    { transaction },
  );
}
