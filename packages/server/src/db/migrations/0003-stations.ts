/** What the stations keep beside the ledger: deliveries, breakdowns and weighings, batches, commands. */
export const stations = {
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
};
