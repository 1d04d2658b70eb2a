/**
 * What of a lot belongs to a breakdown, a cutting or a batch before it is moved. It was summed from three tables of inputs with the state of each
 * holder, at every list and every lock; now it is written down once, kept beside the balance, and no movement takes from a lot what is reserved.
 */
export const reservations = {
  name: '0019-reservations',
  up: `
create table reservation (
  house_id uuid not null,
  lot_id uuid not null,
  holder_kind text not null,
  holder_id uuid not null,
  mass_mg bigint not null check (mass_mg > 0),
  primary key (holder_id, lot_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create index reservation_lot on reservation (lot_id);
alter table lot_balance add column reserved_mg bigint not null default 0 check (reserved_mg >= 0);

create function keep_reserved() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' then
    update lot_balance set reserved_mg = reserved_mg - old.mass_mg where lot_id = old.lot_id;
    return null;
  end if;
  update lot_balance set reserved_mg = reserved_mg + new.mass_mg where lot_id = new.lot_id and reserved_mg + new.mass_mg <= mass_mg;
  if not found then
    raise exception 'lot % has no % mg left to be reserved', new.lot_id, new.mass_mg using errcode = 'ZB003';
  end if;
  return null;
end $$;

insert into reservation (house_id, lot_id, holder_kind, holder_id, mass_mg)
  select i.house_id, i.lot_id, 'breakdown', i.breakdown_id, i.mass_mg from breakdown_input i join breakdown o on o.id = i.breakdown_id and o.state = 'open'
  union all select i.house_id, i.lot_id, 'cutting', i.cutting_id, i.mass_mg from cutting_input i join cutting o on o.id = i.cutting_id and o.state = 'open'
  union all select i.house_id, i.lot_id, 'run', i.run_id, i.mass_mg from run_input i join run r on r.id = i.run_id and r.state in ('planned', 'on');
update lot_balance b set reserved_mg = r.mass_mg
  from (select lot_id, sum(mass_mg)::bigint as mass_mg from reservation group by 1) r where r.lot_id = b.lot_id;

create trigger reservation_is_kept after insert or delete on reservation for each row execute function keep_reserved();
create function refuse_reservation_change() returns trigger language plpgsql as $$
begin
  raise exception 'a reservation is made and let go, never changed' using errcode = 'ZB001';
end $$;
create trigger reservation_unchanged before update on reservation for each row execute function refuse_reservation_change();
create trigger reservation_no_truncate before truncate on reservation for each statement execute function refuse_reservation_change();

create or replace function judge_movement(wanted uuid) returns void language plpgsql as $$
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
             where p.movement_id = wanted and (b.mass_mg < 0 or b.cost_minor < 0 or (p.mass_mg < 0 and b.mass_mg < b.reserved_mg))) then
    raise exception 'movement % takes more from a lot than it holds, or what is reserved in it', wanted using errcode = 'ZB003';
  end if;
end $$;`,
} as const;
