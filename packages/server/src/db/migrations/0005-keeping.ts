/** Where a lot stands, in what state, and every change of that; movements that split, merge, fill and count. */
export const keeping = {
  name: '0005-keeping',
  up: `
alter table lot drop constraint lot_kind_check, add constraint lot_kind_check check (kind in ('delivery', 'piece', 'batch', 'tub', 'goods'));
alter table lot
  add column place_id text not null default 'cold-room',
  add column ready boolean not null default false,
  add column state text not null default 'fresh' check (state in ('fresh', 'frozen', 'thawed')),
  add column opened_on date,
  add column frozen_on date,
  add column thawed_on date,
  add column days_left integer,
  add column date_basis text check (length(date_basis) <= 300),
  add column reserved_for text check (length(reserved_for) between 1 and 120),
  add column held text check (length(held) between 1 and 300),
  add column goods text,
  add column tub_use text,
  add column labels integer not null default 0,
  add check ((state = 'frozen') <= (frozen_on is not null));
update lot set ready = true where kind = 'batch';
create index lot_by_date on lot (house_id, use_by, id);
create index lot_by_breakdown on lot (breakdown_id) where breakdown_id is not null;
alter table movement drop constraint movement_kind_check,
  add constraint movement_kind_check check (kind in ('receive', 'close-stage', 'run', 'take-out', 'reverse', 'split', 'merge', 'fill', 'count'));
alter table posting drop constraint posting_sink_check,
  add constraint posting_sink_check check (sink in ('supplier', 'pantry', 'waste', 'loss', 'served', 'staff', 'count'));
create index movement_reverses on movement (reverses) where reverses is not null;
-- what happened to how a lot is kept: before and after, so that it can be put back
create table lot_event (
  id uuid primary key,
  seq bigint generated always as identity,
  house_id uuid not null,
  lot_id uuid not null,
  kind text not null check (kind in ('move', 'freeze', 'thaw', 'open', 'date', 'reserve', 'hold', 'reading', 'label', 'undo')),
  before jsonb not null,
  after jsonb not null,
  note text,
  undoes uuid unique references lot_event(id),
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (lot_id, house_id) references lot (id, house_id),
  check ((kind = 'undo') = (undoes is not null))
);
create index lot_event_lot on lot_event (lot_id, seq);
create trigger lot_event_append_only before update or delete on lot_event for each row execute function refuse_change();
create trigger lot_event_no_truncate before truncate on lot_event execute function refuse_change();
-- a round through the larder with the scale
create table stock_take (
  id uuid primary key,
  house_id uuid not null references house(id),
  place_id text,
  movement_id uuid,
  lots integer not null,
  differing integer not null,
  difference_mg bigint not null,
  difference_minor bigint not null,
  note text,
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (movement_id, house_id) references movement (id, house_id)
);
create index stock_take_house on stock_take (house_id, at desc);`,
} as const;
