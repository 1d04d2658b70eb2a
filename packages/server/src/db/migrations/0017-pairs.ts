/** Two weights that go together, as the parts of one that is split, are written both or neither. */
export const pairs = {
  name: '0017-pairs',
  up: `
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
           or (exists (select 1 from weighing o where o.id = j.replaces and o.breakdown_id = j.breakdown_id and o.mass_mg is not null)
               and (j.pair is null or not exists (select 1 from weighing o where o.replaces = j.replaces)))) as fits
    from judged j
  ), w as (
    insert into weighing (id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale)
    select id, house_id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at, count, animal, scale
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
               and exists (select 1 from weighing n where n.id = a.id and n.xmin = pg_current_xact_id()::xid)
                   and not exists (select 1 from weighing n where n.id = a.pair and n.xmin = pg_current_xact_id()::xid)) then
    raise exception 'one of two weights that go together' using errcode = 'ZB004';
  end if;
end $$;`,
} as const;
