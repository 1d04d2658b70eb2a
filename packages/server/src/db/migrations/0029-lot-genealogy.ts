/** Which lot went into which is called by its usual name. */
export const lotGenealogy = {
  name: '0029-lot-genealogy',
  up: `
alter table lot_kin rename to lot_genealogy;
alter index lot_kin_pkey rename to lot_genealogy_pkey;
alter index lot_kin_child rename to lot_genealogy_child;
alter index lot_kin_movement rename to lot_genealogy_movement;
drop trigger posting_keeps_kin on posting;
drop function keep_lot_kin();
create function keep_lot_genealogy() returns trigger language plpgsql as $$
begin
  insert into lot_genealogy (parent_id, child_id, movement_id, house_id)
  select distinct i.lot_id, o.lot_id, m.id, m.house_id
  from (select distinct movement_id from added where lot_id is not null) a
  join movement m on m.id = a.movement_id and m.kind not in ('reverse', 'count')
  join posting i on i.movement_id = m.id and i.lot_id is not null and i.mass_mg < 0
  join posting o on o.movement_id = m.id and o.lot_id is not null and o.mass_mg > 0 and o.lot_id <> i.lot_id
  on conflict do nothing;
  delete from lot_genealogy k
  using (select distinct movement_id from added) a join movement m on m.id = a.movement_id and m.kind = 'reverse'
  where k.movement_id = m.reverses;
  return null;
end $$;
create trigger posting_keeps_genealogy after insert on posting referencing new table as added for each statement execute function keep_lot_genealogy();`,
};
