/**
 * Each house numbers its lots from a sequence of its own. The number stood in the house's row, which was locked until the command was done: a house
 * made its lots one at a time. And whoever gets another role, PIN or password begins anew: a session keeps the role it was opened with.
 */
export const lotSerials = {
  name: '0018-lot-serials',
  up: `
create function lot_sequence(house uuid) returns text language sql immutable as $$
  select 'lot_serial_' || replace(house::text, '-', '')
$$;
create function next_lot_serial(house uuid) returns integer language sql volatile as $$
  select nextval(lot_sequence(house)::regclass)::integer
$$;
create function make_lot_sequence() returns trigger language plpgsql as $$
begin
  execute format('create sequence %I as integer', lot_sequence(new.id));
  return null;
end $$;
create function drop_lot_sequence() returns trigger language plpgsql as $$
begin
  execute format('drop sequence if exists %I', lot_sequence(old.id));
  return null;
end $$;
do $$
declare h record;
begin
  for h in select id, last_lot_serial from house loop
    execute format('create sequence %I as integer', lot_sequence(h.id));
    if h.last_lot_serial > 0 then perform setval(lot_sequence(h.id)::regclass, h.last_lot_serial); end if;
  end loop;
end $$;
create trigger house_numbers_its_lots after insert on house for each row execute function make_lot_sequence();
create trigger house_takes_its_numbers_along after delete on house for each row execute function drop_lot_sequence();
alter table house drop column last_lot_serial;

create function end_sessions() returns trigger language plpgsql as $$
begin
  delete from session where sess #>> '{who,personId}' = new.id::text;
  return null;
end $$;
create trigger person_begins_anew after update on person for each row
  when (old.role is distinct from new.role or old.pin_hash is distinct from new.pin_hash or old.password_hash is distinct from new.password_hash)
  execute function end_sessions();`,
} as const;
