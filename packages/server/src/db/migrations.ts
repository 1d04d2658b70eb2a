import type { Sequelize } from 'sequelize';
import { Umzug } from 'umzug';
import { keeping } from './migrations/0005-keeping.ts';
import { receiving } from './migrations/0006-receiving.ts';
import { cutting } from './migrations/0007-cutting.ts';
import { pots } from './migrations/0008-pots.ts';

/** Every change of the database, oldest first. One that has landed is never edited: a mistake is put right by the next. */
const migrations: readonly { readonly name: string; readonly up: string }[] = [
  {
    name: '0001-houses-and-people',
    up: `
create table house (
  id uuid primary key,
  slug text not null unique check (slug ~ '^[a-z0-9][a-z0-9-]{0,63}$'),
  name text not null check (length(name) between 1 and 120),
  currency char(3) not null,
  timezone text not null,
  settings jsonb not null,
  last_lot_serial integer not null default 0,
  created_at timestamptz not null default now()
);
create table person (
  id uuid primary key,
  house_id uuid not null references house(id),
  name text not null check (length(name) between 1 and 120),
  role text not null check (role in ('butcher', 'sous-chef', 'head-chef', 'viewer')),
  pin_hash text not null,
  password_hash text,
  wrong_count integer not null default 0,
  locked_until timestamptz,
  unique (house_id, name)
);
create table session (
  sid varchar primary key,
  sess json not null,
  expire timestamp(6) not null
);
create index session_expire on session (expire);
create table supplier (
  id uuid primary key,
  house_id uuid not null references house(id),
  name text not null check (length(name) between 1 and 120),
  unique (house_id, name),
  unique (id, house_id)
);
create table command (
  id uuid primary key,
  house_id uuid not null references house(id),
  endpoint text not null,
  fingerprint text not null,
  answer jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null
);`,
  },
  {
    name: '0002-mass-ledger',
    up: `
create table lot (
  id uuid primary key,
  house_id uuid not null references house(id),
  serial integer not null check (serial > 0),
  code text not null,
  kind text not null check (kind in ('delivery', 'piece', 'batch')),
  name text not null check (length(name) between 1 and 200),
  species text,
  form text,
  category text,
  destination text check (destination in ('portion','stock','filling','staff','fat','garnish','larder','waste')),
  pieces integer not null check (pieces > 0),
  made_mg bigint not null check (made_mg > 0),
  use_by date,
  made_at timestamptz not null,
  supplier_id uuid,
  breakdown_id uuid,
  piece_id text,
  run_id uuid,
  allergens text[] not null default '{}',
  unique (house_id, serial),
  unique (id, house_id),
  foreign key (supplier_id, house_id) references supplier (id, house_id)
);
create table movement (
  id uuid primary key,
  house_id uuid not null references house(id),
  command_id uuid not null unique,
  kind text not null check (kind in ('receive', 'close-stage', 'run', 'take-out', 'reverse')),
  station text not null,
  at timestamptz not null,
  person_id uuid not null references person(id),
  note text,
  reverses uuid unique,
  unique (id, house_id),
  foreign key (reverses, house_id) references movement (id, house_id),
  check ((kind = 'reverse') = (reverses is not null))
);
create index movement_house_at on movement (house_id, at desc, id);
create table posting (
  id bigint generated always as identity primary key,
  movement_id uuid not null,
  house_id uuid not null,
  lot_id uuid,
  sink text check (sink in ('supplier', 'pantry', 'waste', 'loss', 'served', 'staff')),
  reason text,
  mass_mg bigint not null,
  cost_minor bigint not null,
  check ((lot_id is null) <> (sink is null)),
  check (sink is null or sink not in ('waste', 'loss') or reason is not null),
  foreign key (movement_id, house_id) references movement (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create index posting_movement on posting (movement_id);
create index posting_lot on posting (lot_id, movement_id) where lot_id is not null;
create table lot_balance (
  lot_id uuid primary key references lot(id),
  house_id uuid not null,
  mass_mg bigint not null,
  cost_minor bigint not null
);
create index lot_balance_on_hand on lot_balance (house_id) where mass_mg > 0;

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception '% is append-only: write a counter-entry', tg_table_name using errcode = 'ZB001';
end $$;
create trigger movement_append_only before update or delete on movement for each row execute function refuse_change();
create trigger movement_no_truncate before truncate on movement execute function refuse_change();
create trigger posting_append_only before update or delete on posting for each row execute function refuse_change();
create trigger posting_no_truncate before truncate on posting execute function refuse_change();

create function keep_lot_balance() returns trigger language plpgsql as $$
begin
  if new.lot_id is not null then
    insert into lot_balance (lot_id, house_id, mass_mg, cost_minor)
    values (new.lot_id, new.house_id, new.mass_mg, new.cost_minor)
    on conflict (lot_id) do update
      set mass_mg = lot_balance.mass_mg + excluded.mass_mg, cost_minor = lot_balance.cost_minor + excluded.cost_minor;
  end if;
  return null;
end $$;
create trigger posting_keeps_balance after insert on posting for each row execute function keep_lot_balance();

create function judge_movement(wanted uuid) returns void language plpgsql as $$
declare mass numeric; cost numeric; lines integer;
begin
  select coalesce(sum(mass_mg), 0), coalesce(sum(cost_minor), 0), count(*) into mass, cost, lines from posting where movement_id = wanted;
  if lines < 2 then
    raise exception 'movement % has % posting(s), it needs two', wanted, lines using errcode = 'ZB002';
  end if;
  if mass <> 0 or cost <> 0 then
    raise exception 'movement % does not sum to zero: % mg, % minor', wanted, mass, cost using errcode = 'ZB002';
  end if;
  if exists (select 1 from posting p join lot_balance b on b.lot_id = p.lot_id
             where p.movement_id = wanted and (b.mass_mg < 0 or b.cost_minor < 0)) then
    raise exception 'movement % takes more from a lot than it holds', wanted using errcode = 'ZB003';
  end if;
end $$;
create function judge_posting() returns trigger language plpgsql as $$
begin perform judge_movement(new.movement_id); return null; end $$;
create function judge_new_movement() returns trigger language plpgsql as $$
begin perform judge_movement(new.id); return null; end $$;
create constraint trigger posting_balances after insert on posting deferrable initially deferred
  for each row execute function judge_posting();
create constraint trigger movement_balances after insert on movement deferrable initially deferred
  for each row execute function judge_new_movement();`,
  },
  {
    name: '0003-stations',
    up: `
create table delivery (
  lot_id uuid primary key,
  house_id uuid not null,
  gross_mg bigint not null check (gross_mg > 0),
  tare_mg bigint not null check (tare_mg >= 0 and tare_mg < gross_mg),
  invoice_mg bigint not null check (invoice_mg > 0),
  paid_minor bigint not null check (paid_minor >= 0),
  temperature_centi_c integer,
  origin text,
  landed_on date,
  note text,
  person_id uuid not null references person(id),
  at timestamptz not null,
  movement_id uuid not null,
  foreign key (lot_id, house_id) references lot (id, house_id),
  foreign key (movement_id, house_id) references movement (id, house_id)
);
create index delivery_house_at on delivery (house_id, at desc, lot_id);
create table breakdown (
  id uuid primary key,
  house_id uuid not null references house(id),
  lot_id uuid not null,
  plan jsonb not null,
  refusals jsonb not null,
  plan_id text not null,
  stage_id text not null,
  species text not null,
  form text not null,
  animals integer not null check (animals > 0),
  start_mg bigint not null check (start_mg > 0),
  start_minor bigint not null check (start_minor >= 0),
  state text not null check (state in ('open', 'closed', 'cancelled')),
  supplier_id uuid,
  person_id uuid not null references person(id),
  started_at timestamptz not null,
  closed_at timestamptz,
  movement_id uuid,
  booked_school text,
  note text,
  taken_back integer not null default 0,
  unique (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id),
  foreign key (movement_id, house_id) references movement (id, house_id),
  check ((state = 'closed') = (movement_id is not null))
);
create index breakdown_closed on breakdown (house_id, closed_at desc, id) where state = 'closed';
create index breakdown_open on breakdown (house_id, started_at) where state = 'open';
create index breakdown_alike on breakdown (house_id, plan_id, species, form, closed_at desc) where state = 'closed';
create table weighing (
  id uuid primary key,
  seq bigint generated always as identity,
  house_id uuid not null,
  breakdown_id uuid not null,
  piece_id text,
  destination text,
  mass_mg bigint check (mass_mg > 0),
  source text check (source in ('scale', 'typed')),
  replaces uuid unique references weighing(id),
  person_id uuid not null references person(id),
  at timestamptz not null,
  recorded_at timestamptz not null default now(),
  foreign key (breakdown_id, house_id) references breakdown (id, house_id),
  check ((mass_mg is null) = (piece_id is null)),
  check ((mass_mg is null) = (destination is null)),
  check ((mass_mg is null) = (source is null)),
  check (mass_mg is not null or replaces is not null)
);
create index weighing_breakdown on weighing (breakdown_id, seq);
create trigger weighing_append_only before update or delete on weighing for each row execute function refuse_change();
create trigger weighing_no_truncate before truncate on weighing execute function refuse_change();
/*
 * All the weighings that arrived while the last commit was under way, in one call and one commit. For each it finds who is
 * asking by the session (or takes the person named when there is no session: the demo's own hand), locks the breakdowns against a
 * closing that runs beside it, checks piece and tray against the plan each was started with, and writes. A weighing's id is the
 * client's key, so a repeat writes nothing. In a function because its plan is then kept.
 */
create function take_weighings(asked_rows jsonb, roles text[])
returns table (id uuid, house_id uuid, person_id uuid, person text, allowed boolean, state text, written boolean, refusal text, known boolean)
language plpgsql as $$
#variable_conflict use_column
begin
  return query
  with asked as (
    select * from jsonb_to_recordset(asked_rows) as a(id uuid, sid text, house_id uuid, person_id uuid, breakdown_id uuid, piece_id text,
                                                      destination text, mass_mg bigint, source text, replaces uuid, at timestamptz)
  ), seated as (
    select a.id, a.breakdown_id, a.piece_id, a.destination, a.mass_mg, a.source, a.replaces, a.at,
           case when a.sid is null then a.house_id else (s.sess #>> '{who,houseId}')::uuid end as house_id,
           case when a.sid is null then a.person_id else (s.sess #>> '{who,personId}')::uuid end as person_id,
           s.sess #>> '{who,name}' as person,
           a.sid is null or coalesce(s.sess #>> '{who,role}' = any(roles), false) as allowed
    from asked a left join session s on s.sid = a.sid and s.expire >= now()
  ), b as materialized (
    select id, house_id, state, refusals from breakdown where id in (select breakdown_id from seated where allowed) order by id for share
  ), judged as (
    select a.*, b.state, a.piece_id is null or b.refusals ? a.piece_id as known, b.refusals -> a.piece_id ->> a.destination as refusal
    from seated a left join b on b.id = a.breakdown_id and b.house_id = a.house_id
  ), w as (
    insert into weighing (id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at)
    select id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at
    from judged j
    where j.allowed and j.state = 'open' and j.known and j.refusal is null
      and (j.replaces is null
           or exists (select 1 from weighing o where o.id = j.replaces and o.breakdown_id = j.breakdown_id and o.mass_mg is not null))
    on conflict do nothing
    returning id
  )
  select j.id, j.house_id, j.person_id, j.person, j.allowed, j.state, exists (select 1 from w where w.id = j.id), j.refusal, j.known
  from judged j;
end $$;
create table breakdown_piece (
  breakdown_id uuid not null,
  house_id uuid not null,
  piece_id text not null,
  destination text not null,
  mass_mg bigint not null check (mass_mg > 0),
  units integer not null check (units > 0), -- how many pieces it is
  lot_id uuid,
  primary key (breakdown_id, piece_id, destination),
  foreign key (breakdown_id, house_id) references breakdown (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create table run (
  id uuid primary key,
  house_id uuid not null references house(id),
  use_id text not null,
  use jsonb not null,
  state text not null check (state in ('planned', 'done', 'called-off')),
  ingredients jsonb not null,
  base_mg bigint not null check (base_mg > 0),
  expected jsonb not null,
  plates integer,
  limiting text not null,
  output_mg bigint check (output_mg > 0),
  output_lot_id uuid,
  movement_id uuid,
  person_id uuid not null references person(id),
  planned_at timestamptz not null,
  done_at timestamptz,
  unique (id, house_id),
  foreign key (output_lot_id, house_id) references lot (id, house_id),
  foreign key (movement_id, house_id) references movement (id, house_id),
  check ((state = 'done') = (movement_id is not null))
);
create index run_house on run (house_id, planned_at desc, id);
create table run_input (
  run_id uuid not null,
  house_id uuid not null,
  lot_id uuid not null,
  position integer not null,
  mass_mg bigint not null check (mass_mg > 0),
  primary key (run_id, lot_id),
  foreign key (run_id, house_id) references run (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create index run_input_lot on run_input (lot_id);`,
  },
  {
    name: '0004-stages-batches-events',
    up: `
alter table breakdown
  add column root_id uuid,
  add column start_share double precision not null default 1 check (start_share > 0),
  add column way text not null default 'one-by-one' check (way in ('one-by-one', 'pooled', 'by-animal')),
  add column holder_id uuid references person(id);
update breakdown set root_id = id, holder_id = person_id;
alter table breakdown alter column root_id set not null, alter column holder_id set not null;
alter table breakdown add foreign key (root_id, house_id) references breakdown (id, house_id);
create index breakdown_root on breakdown (root_id);
drop index breakdown_alike;
create index breakdown_alike on breakdown (house_id, plan_id, stage_id, species, form, closed_at desc) where state = 'closed';
-- plans kept with breakdowns take the shape plans have now: a count for each animal instead of a name for each unit of all animals
update breakdown set plan = (plan - 'species' - 'startForms' - 'minutes' - 'stages') || jsonb_build_object(
  'skill', 2,
  'starts', (select jsonb_agg(jsonb_build_object('species', s.value, 'forms', plan->'startForms')) from jsonb_array_elements(plan->'species') s),
  'stages', (select jsonb_agg((st.value - 'pieces') || jsonb_build_object(
    'minutes', plan->'minutes',
    'pieces', (select jsonb_agg((p.value - 'units')
        || jsonb_build_object('count', greatest(1, case when animals <= 12 then jsonb_array_length(p.value->'units') / animals else jsonb_array_length(p.value->'units') end))
        || case when animals = 1 and jsonb_array_length(p.value->'units') > 1 then jsonb_build_object('units', p.value->'units') else '{}'::jsonb end
        order by p.ordinality)
      from jsonb_array_elements(st.value->'pieces') with ordinality p)) order by st.ordinality)
    from jsonb_array_elements(plan->'stages') with ordinality st))
where plan ? 'startForms';
create table breakdown_input (
  breakdown_id uuid not null,
  house_id uuid not null,
  lot_id uuid not null,
  position integer not null,
  mass_mg bigint not null check (mass_mg > 0),
  primary key (breakdown_id, lot_id),
  foreign key (breakdown_id, house_id) references breakdown (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create index breakdown_input_lot on breakdown_input (lot_id);
insert into breakdown_input (breakdown_id, house_id, lot_id, position, mass_mg) select id, house_id, lot_id, 0, start_mg from breakdown;
alter table lot add column next_stage text, add column note text;
create index lot_waiting on lot (house_id, made_at) where next_stage is not null;
alter table weighing add column count integer not null default 1 check (count > 0), add column animal integer check (animal > 0), add column scale text;
update house set settings = (settings - 'scale') || jsonb_build_object('scales', jsonb_build_array(settings->'scale' || '{"id": "bench"}'::jsonb))
where settings ? 'scale';
create table bench_event (
  id uuid primary key,
  seq bigint generated always as identity,
  house_id uuid not null,
  breakdown_id uuid not null,
  body jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  recorded_at timestamptz not null default now(),
  foreign key (breakdown_id, house_id) references breakdown (id, house_id)
);
create index bench_event_breakdown on bench_event (breakdown_id, seq);
create trigger bench_event_append_only before update or delete on bench_event for each row execute function refuse_change();
create trigger bench_event_no_truncate before truncate on bench_event execute function refuse_change();
create table cut_plan (
  house_id uuid not null references house(id),
  id text not null check (id ~ '^[a-z0-9][a-z0-9-]{0,63}$'),
  version integer not null check (version > 0),
  plan jsonb not null,
  retired boolean not null default false,
  person_id uuid not null references person(id),
  at timestamptz not null,
  primary key (house_id, id, version)
);
create trigger cut_plan_append_only before update or delete on cut_plan for each row execute function refuse_change();
create table house_species (
  house_id uuid not null references house(id),
  id text not null check (id ~ '^[a-z0-9][a-z0-9-]{0,63}$'),
  species jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  primary key (house_id, id)
);
drop function take_weighings(jsonb, text[]);
create function take_weighings(asked_rows jsonb, roles text[])
returns table (id uuid, house_id uuid, person_id uuid, person text, allowed boolean, state text, written boolean, refusal text, known boolean)
language plpgsql as $$
#variable_conflict use_column
begin
  return query
  with asked as (
    select * from jsonb_to_recordset(asked_rows) as a(id uuid, sid text, house_id uuid, person_id uuid, breakdown_id uuid, piece_id text,
                                                      destination text, mass_mg bigint, source text, replaces uuid, at timestamptz,
                                                      count integer, animal integer, scale text)
  ), seated as (
    select a.id, a.breakdown_id, a.piece_id, a.destination, a.mass_mg, a.source, a.replaces, a.at, a.count, a.animal, a.scale,
           case when a.sid is null then a.house_id else (s.sess #>> '{who,houseId}')::uuid end as house_id,
           case when a.sid is null then a.person_id else (s.sess #>> '{who,personId}')::uuid end as person_id,
           s.sess #>> '{who,name}' as person,
           a.sid is null or coalesce(s.sess #>> '{who,role}' = any(roles), false) as allowed
    from asked a left join session s on s.sid = a.sid and s.expire >= now()
  ), b as materialized (
    select id, house_id, state, refusals from breakdown where id in (select breakdown_id from seated where allowed) order by id for share
  ), judged as (
    select a.*, b.state, a.piece_id is null or b.refusals ? a.piece_id as known, b.refusals -> a.piece_id ->> a.destination as refusal
    from seated a left join b on b.id = a.breakdown_id and b.house_id = a.house_id
  ), w as (
    insert into weighing (id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale)
    select id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale
    from judged j
    where j.allowed and j.state = 'open' and j.known and j.refusal is null
      and (j.replaces is null
           or exists (select 1 from weighing o where o.id = j.replaces and o.breakdown_id = j.breakdown_id and o.mass_mg is not null))
    on conflict do nothing
    returning id
  )
  select j.id, j.house_id, j.person_id, j.person, j.allowed, j.state, exists (select 1 from w where w.id = j.id), j.refusal, j.known
  from judged j;
end $$;`,
  },
  keeping,
  receiving,
  cutting,
  pots,
];

const ONE_MIGRATOR = 7_261_180_942;

/**
 * Brings the database to the newest shape, or to that of the migration named. Safe to call from several processes at once: one works,
 * the others wait and find it done.
 */
export async function migrate(db: Sequelize, upTo?: string): Promise<string[]> {
  return db.transaction(async (transaction) => {
    await db.query('select pg_advisory_xact_lock($1)', { bind: [ONE_MIGRATOR], transaction });
    await db.query(
      'create table if not exists migration (name text primary key, at timestamptz not null default now())',
      {
        transaction,
      },
    );
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({
        name,
        up: async (): Promise<void> => {
          await db.query(up, { transaction });
        },
      })),
      storage: {
        logMigration: async ({ name }): Promise<void> => {
          await db.query('insert into migration (name) values ($1)', { bind: [name], transaction });
        },
        unlogMigration: async ({ name }): Promise<void> => {
          await db.query('delete from migration where name = $1', { bind: [name], transaction });
        },
        executed: async (): Promise<string[]> => {
          const [rows] = await db.query('select name from migration order by name', { transaction });
          return (rows as { name: string }[]).map((row) => row.name);
        },
      },
      logger: undefined,
    });
    return (await umzug.up(upTo === undefined ? {} : { to: upTo })).map((done) => done.name);
  });
}
