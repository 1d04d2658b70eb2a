/** The mass ledger: lots, movements and postings, and the triggers that refuse what does not balance. */
export const massLedger = {
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
};
