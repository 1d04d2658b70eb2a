/**
 * Every key of the books carries house and time, and nothing else of them must be unique: each can be cut into months by a migration that touches no code.
 *
 * A tablet's key has its time in itself (version 7): `time_in` reads it, and so a weight's id and a command's key stay unique for good, in whatever
 * month they are said again. What must be one over all months stands beside the books: which entry a command made (`movement_key`, which is also what
 * others point at), and what was put right, once (`corrected`).
 */
export const keysWithTheirTime = {
  name: '0028-keys-with-their-time',
  up: `
create function time_in(key uuid) returns timestamptz language sql immutable strict parallel safe as
  $$ select case when substr(key::text, 15, 1) = '7' and ('x' || lpad(replace(left(key::text, 13), '-', ''), 16, '0'))::bit(64)::bigint < 7258118400000
       then timezone('UTC', timestamp '1970-01-01' + ('x' || lpad(replace(left(key::text, 13), '-', ''), 16, '0'))::bit(64)::bigint * interval '1 millisecond')
       else timezone('UTC', timestamp '1970-01-01') end $$;

create table corrected (
  house_id uuid not null references house(id),
  id uuid not null,
  by_id uuid not null,
  primary key (house_id, id)
);
create trigger corrected_append_only before update or delete on corrected for each row execute function refuse_change();
create trigger corrected_no_truncate before truncate on corrected execute function refuse_change();
insert into corrected (house_id, id, by_id)
  select house_id, reverses, id from movement where reverses is not null
  union all select house_id, replaces, id from weighing where replaces is not null
  union all select house_id, undoes, id from lot_event where undoes is not null;
-- what is put right is of the same house and the same thing, and is put right once
create function note_correction() returns trigger language plpgsql as $$
declare
  target uuid := (to_jsonb(new) ->> tg_argv[0])::uuid;
  there boolean;
begin
  execute format('select exists (select 1 from %I where house_id = $1 and id = $2 and %I = $3)', tg_table_name, tg_argv[1])
    into there using new.house_id, target, (to_jsonb(new) ->> tg_argv[1])::uuid;
  if not there then
    raise exception 'there is no % of that id to put right', tg_table_name using errcode = 'foreign_key_violation';
  end if;
  insert into corrected (house_id, id, by_id) values (new.house_id, target, new.id);
  return null;
end $$;

alter table command add column keyed_at timestamptz;
update command set keyed_at = time_in(id);
alter table command alter column keyed_at set not null, add check (keyed_at = time_in(id)),
  drop constraint command_pkey, add primary key (id, keyed_at, house_id);

alter table weighing disable trigger weighing_append_only;
alter table weighing add column keyed_at timestamptz;
update weighing set keyed_at = time_in(id);
alter table weighing enable trigger weighing_append_only;
alter table weighing alter column keyed_at set not null, add check (keyed_at = time_in(id)),
  drop constraint weighing_replaces_fkey, drop constraint weighing_replaces_key,
  drop constraint weighing_pkey, add primary key (id, keyed_at, house_id);
create trigger weighing_corrects after insert on weighing for each row when (new.replaces is not null)
  execute function note_correction('replaces', 'breakdown_id');

alter table lot_event drop constraint lot_event_undoes_fkey, drop constraint lot_event_undoes_key,
  drop constraint lot_event_pkey, add primary key (house_id, at, id);
create index lot_event_id on lot_event (id);
create trigger lot_event_corrects after insert on lot_event for each row when (new.undoes is not null)
  execute function note_correction('undoes', 'lot_id');

alter table batch_event drop constraint run_event_seq_key;
alter table cutting_event drop constraint cutting_event_seq_key;
alter table cooling_reading drop constraint cooling_reading_seq_key;

create table movement_key (
  house_id uuid not null references house(id),
  id uuid not null,
  command_id uuid not null,
  primary key (house_id, id),
  unique (house_id, command_id)
);
create trigger movement_key_append_only before update or delete on movement_key for each row execute function refuse_change();
create trigger movement_key_no_truncate before truncate on movement_key execute function refuse_change();
insert into movement_key (house_id, id, command_id) select house_id, id, command_id from movement;
create function keep_movement_key() returns trigger language plpgsql as $$
begin
  insert into movement_key (house_id, id, command_id) values (new.house_id, new.id, new.command_id);
  if new.reverses is not null then
    insert into corrected (house_id, id, by_id) values (new.house_id, new.reverses, new.id);
  end if;
  return null;
end $$;
create trigger movement_has_key after insert on movement for each row execute function keep_movement_key();
alter table breakdown drop constraint breakdown_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table cutting drop constraint cutting_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table delivery_line drop constraint delivery_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table lot_kin drop constraint lot_kin_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table batch drop constraint run_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table stock_take drop constraint stock_take_movement_id_house_id_fkey, add foreign key (house_id, movement_id) references movement_key (house_id, id);
alter table movement drop constraint movement_reverses_house_id_fkey, drop constraint movement_reverses_key,
  drop constraint movement_command_id_key, drop constraint movement_id_house_id_key,
  add foreign key (house_id, reverses) references movement_key (house_id, id);
create index movement_id on movement (id);

create or replace function take_weighings(asked_rows jsonb, roles text[])
returns table (id uuid, house_id uuid, person_id uuid, person text, allowed boolean, state text, written boolean, refusal text, known boolean)
language plpgsql as $$
#variable_conflict use_column
begin
  return query
  with asked as (
    select * from rows from (jsonb_to_recordset(asked_rows) as (id uuid, sid text, house_id uuid, person_id uuid, breakdown_id uuid,
        piece_id text, destination text, mass_mg bigint, source text, replaces uuid, at timestamptz, count integer, animal integer,
        scale text, pair uuid))
      with ordinality as a(id, sid, house_id, person_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, at, count, animal,
                           scale, pair, ord)
  ), seated as (
    select a.id, a.breakdown_id, a.piece_id, a.destination, a.mass_mg, a.source, a.replaces, a.at, a.count, a.animal, a.scale, a.pair, a.ord,
           case when a.sid is null then a.house_id else (s.sess #>> '{who,houseId}')::uuid end as house_id,
           case when a.sid is null then a.person_id else (s.sess #>> '{who,personId}')::uuid end as person_id,
           s.sess #>> '{who,name}' as person,
           a.sid is null or (coalesce(s.sess #>> '{who,role}' = any(roles), false)
             and (a.person_id is null or a.person_id = (s.sess #>> '{who,personId}')::uuid)) as allowed
    from asked a left join session s on s.sid = a.sid and s.expire >= now()
  ), b as materialized (
    select id, house_id, state, refusals from breakdown where id in (select breakdown_id from seated where allowed) order by id for share
  ), judged as (
    select a.*, b.state, a.piece_id is null or b.refusals ? a.piece_id as known, b.refusals -> a.piece_id ->> a.destination as refusal
    from seated a left join b on b.id = a.breakdown_id and b.house_id = a.house_id
  ), fit as (
    select j.id, j.allowed and j.state = 'open' and j.known and j.refusal is null
      and (j.replaces is null
           or (exists (select 1 from weighing o where o.id = j.replaces and o.keyed_at = time_in(j.replaces)
                       and o.breakdown_id = j.breakdown_id and o.mass_mg is not null)
               and not exists (select 1 from corrected c where c.house_id = j.house_id and c.id = j.replaces))) as fits
    from judged j
  ), w as (
    insert into weighing (id, keyed_at, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale)
    select id, time_in(id), house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale
    from judged j
    where exists (select 1 from fit f where f.id = j.id and f.fits)
      and (j.pair is null or exists (select 1 from fit f where f.id = j.pair and f.fits))
    order by j.ord
    on conflict do nothing
    returning id
  )
  select j.id, j.house_id, j.person_id, j.person, j.allowed, j.state, exists (select 1 from w where w.id = j.id), j.refusal, j.known
  from judged j;
  -- two at the same moment: one of a pair found its place taken, so the other may not stay. Only what was written just now counts
  if exists (select 1 from jsonb_to_recordset(asked_rows) as a(id uuid, pair uuid)
             where a.pair is not null
               and exists (select 1 from weighing n where n.id = a.id and n.keyed_at = time_in(a.id) and n.xmin = pg_current_xact_id()::xid)
                   and not exists (select 1 from weighing n where n.id = a.pair and n.keyed_at = time_in(a.pair) and n.xmin = pg_current_xact_id()::xid)) then
    raise exception 'one of two weights that go together' using errcode = 'ZB004';
  end if;
end $$;`,
};
