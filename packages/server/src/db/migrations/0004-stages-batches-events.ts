/** Breakdowns in stages and of several animals, and what is said at the bench beside weighing. */
export const stagesBatchesEvents = {
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
};
