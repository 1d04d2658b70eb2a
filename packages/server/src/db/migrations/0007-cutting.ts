/** Lots cut to weight: what lies on the board, and everything measured, wished and weighed there, append-only. */
export const cutting = {
  name: '0007-cutting',
  up: `
alter table movement drop constraint movement_kind_check,
  add constraint movement_kind_check check (kind in ('receive', 'close-stage', 'cut', 'run', 'take-out', 'reverse', 'split', 'merge', 'fill', 'count'));
create table cutting (
  id uuid primary key,
  house_id uuid not null references house(id),
  kind text not null check (kind in ('portions', 'roll', 'slices', 'mould')),
  state text not null default 'open' check (state in ('open', 'closed', 'cancelled')),
  start_minor bigint not null default 0,
  person_id uuid not null references person(id),
  started_at timestamptz not null,
  closed_at timestamptz,
  movement_id uuid,
  unique (id, house_id),
  foreign key (movement_id, house_id) references movement (id, house_id),
  check ((state = 'closed') = (movement_id is not null))
);
create index cutting_open on cutting (house_id, started_at) where state = 'open';
create index cutting_closed on cutting (house_id, closed_at desc) where state = 'closed';
create index cutting_movement on cutting (movement_id) where movement_id is not null;
create table cutting_input (
  cutting_id uuid not null,
  house_id uuid not null,
  lot_id uuid not null,
  position integer not null,
  mass_mg bigint not null check (mass_mg > 0),
  primary key (cutting_id, position),
  unique (cutting_id, lot_id),
  foreign key (cutting_id, house_id) references cutting (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id)
);
create index cutting_input_lot on cutting_input (lot_id);
create table cutting_event (
  seq bigint generated always as identity unique,
  id uuid primary key,
  house_id uuid not null,
  cutting_id uuid not null,
  body jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (cutting_id, house_id) references cutting (id, house_id)
);
create index cutting_event_cutting on cutting_event (cutting_id, seq);
create trigger cutting_event_append_only before update or delete on cutting_event for each row execute function refuse_change();
create trigger cutting_event_no_truncate before truncate on cutting_event execute function refuse_change();`,
} as const;
