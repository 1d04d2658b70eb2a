/**
 * Which lot went into which, movement by movement: what a trace follows. It was read from the postings, four look-ups a lot; a house of
 * five years and a lot of two thousand descendants made that 12 ms twice, and 3 ms now. Written by the database with the postings, so
 * that it cannot differ from them.
 */
export const kin = {
  name: '0009-kin',
  up: `
create table lot_kin (
  parent_id uuid not null,
  child_id uuid not null,
  movement_id uuid not null,
  house_id uuid not null,
  primary key (parent_id, child_id, movement_id),
  foreign key (parent_id, house_id) references lot (id, house_id),
  foreign key (child_id, house_id) references lot (id, house_id),
  foreign key (movement_id, house_id) references movement (id, house_id)
);
create index lot_kin_child on lot_kin (child_id, parent_id);
create index lot_kin_movement on lot_kin (movement_id);

-- what goes in is kin of what comes out: not by a counter-entry, nor by a stock-take that puts several lots right
create function keep_lot_kin() returns trigger language plpgsql as $$
begin
  insert into lot_kin (parent_id, child_id, movement_id, house_id)
  select distinct i.lot_id, o.lot_id, m.id, m.house_id
  from (select distinct movement_id from added where lot_id is not null) a
  join movement m on m.id = a.movement_id and m.kind not in ('reverse', 'count')
  join posting i on i.movement_id = m.id and i.lot_id is not null and i.mass_mg < 0
  join posting o on o.movement_id = m.id and o.lot_id is not null and o.mass_mg > 0 and o.lot_id <> i.lot_id
  on conflict do nothing;
  delete from lot_kin k
  using (select distinct movement_id from added) a join movement m on m.id = a.movement_id and m.kind = 'reverse'
  where k.movement_id = m.reverses;
  return null;
end $$;
create trigger posting_keeps_kin after insert on posting referencing new table as added for each statement execute function keep_lot_kin();

insert into lot_kin (parent_id, child_id, movement_id, house_id)
select distinct i.lot_id, o.lot_id, m.id, m.house_id
from movement m
join posting i on i.movement_id = m.id and i.lot_id is not null and i.mass_mg < 0
join posting o on o.movement_id = m.id and o.lot_id is not null and o.mass_mg > 0 and o.lot_id <> i.lot_id
where m.kind not in ('reverse', 'count') and not exists (select 1 from movement r where r.reverses = m.id);`,
};
