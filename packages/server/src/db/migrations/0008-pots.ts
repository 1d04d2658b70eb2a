/** Pots: the house's own uses, what is written down at the stove, and logs of what cools. */
export const pots = {
  name: '0008-pots',
  up: `
create table house_use (
  house_id uuid not null references house(id),
  use_id text not null,
  version integer not null check (version > 0),
  body jsonb not null,
  retired boolean not null default false,
  note text not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  primary key (house_id, use_id, version)
);
create trigger house_use_append_only before update or delete on house_use for each row execute function refuse_change();
create trigger house_use_no_truncate before truncate on house_use execute function refuse_change();

alter table posting drop constraint posting_sink_check,
  add constraint posting_sink_check check (sink in ('supplier', 'pantry', 'waste', 'loss', 'served', 'staff', 'count', 'work'));

alter table run drop constraint run_state_check,
  add constraint run_state_check check (state in ('planned', 'on', 'done', 'called-off'));
alter table run add column ways jsonb not null default '[]', add column pieces integer, add column short jsonb not null default '[]',
  add column vessel_id text, add column started_at timestamptz;
-- batches planned before: their uses had steps as plain sentences
update run set use = use || jsonb_build_object(
  'acceptsUses', '[]'::jsonb, 'takes', 'any', 'questions', '[]'::jsonb, 'marks', '[]'::jsonb, 'vessel', 'pot', 'keeps', '[]'::jsonb,
  'ready', use ->> 'kind' <> 'filling',
  'output', (use -> 'output') || '{"measure": "mass"}',
  'steps', (select jsonb_agg(jsonb_build_object('kind', 'cook', 'text', s)) from jsonb_array_elements_text(use -> 'steps') s))
where jsonb_typeof(use -> 'steps' -> 0) = 'string';
update run set ingredients = coalesce((select jsonb_agg(i || '{"fromLotsMg": 0}') from jsonb_array_elements(ingredients) i), '[]')
where not ingredients @> '[{"fromLotsMg": 0}]';
alter table run_input add column as_part text not null default 'base';
create index run_use_done on run (house_id, use_id, done_at desc) where state = 'done';
create index run_going on run (house_id) where state in ('planned', 'on');
create table run_event (
  seq bigint generated always as identity unique,
  id uuid primary key,
  house_id uuid not null,
  run_id uuid not null,
  body jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (run_id, house_id) references run (id, house_id)
);
create index run_event_run on run_event (run_id, seq);
create trigger run_event_append_only before update or delete on run_event for each row execute function refuse_change();
create trigger run_event_no_truncate before truncate on run_event execute function refuse_change();

create table cooling (
  id uuid primary key,
  house_id uuid not null references house(id),
  kind text not null check (kind in ('cooling', 'freezing')),
  state text not null default 'open' check (state in ('open', 'closed', 'called-off')),
  lot_id uuid,
  name text not null,
  setup jsonb not null,
  limit_at_start jsonb,
  verdict text,
  outcome text,
  person_id uuid not null references person(id),
  started_at timestamptz not null,
  closed_at timestamptz,
  unique (id, house_id),
  foreign key (lot_id, house_id) references lot (id, house_id),
  check ((state = 'open') = (closed_at is null))
);
create index cooling_open on cooling (house_id, started_at) where state = 'open';
create index cooling_closed on cooling (house_id, closed_at desc) where state <> 'open';
create index cooling_lot on cooling (lot_id) where lot_id is not null;
create table cooling_reading (
  seq bigint generated always as identity unique,
  id uuid primary key,
  house_id uuid not null,
  cooling_id uuid not null,
  centi_c integer not null check (centi_c between -8000 and 30000),
  source text not null check (source in ('probe', 'typed')),
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (cooling_id, house_id) references cooling (id, house_id)
);
create index cooling_reading_cooling on cooling_reading (cooling_id, at, seq);
create trigger cooling_reading_append_only before update or delete on cooling_reading for each row execute function refuse_change();
create trigger cooling_reading_no_truncate before truncate on cooling_reading execute function refuse_change();`,
} as const;
