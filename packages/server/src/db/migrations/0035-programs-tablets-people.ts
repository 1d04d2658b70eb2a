/**
 * For others' programs: tokens that act for a person, kept as hashes, and addresses the house calls by itself. A call is written in the transaction of what
 * it tells of, so that nothing that stands in the books goes untold. A tablet gets a name and its people; a person what they can, when they work and what
 * they must not touch.
 */
export const programsTabletsPeople = {
  name: '0035-programs-tablets-people',
  up: `
create table api_token (
  id uuid primary key,
  house_id uuid not null references house(id),
  person_id uuid not null references person(id),
  name text not null check (length(name) between 1 and 120),
  scope text not null check (scope in ('read', 'work')),
  hash text not null unique,
  made_at timestamptz not null,
  until timestamptz not null,
  used_at timestamptz,
  ended_at timestamptz
);
create index api_token_of on api_token (house_id, made_at);

create table webhook (
  id uuid primary key,
  house_id uuid not null references house(id),
  person_id uuid not null references person(id),
  name text not null check (length(name) between 1 and 120),
  url text not null check (length(url) between 8 and 500),
  secret text not null,
  topics text[] not null,
  made_at timestamptz not null,
  last_ok_at timestamptz,
  last_why text,
  ended_at timestamptz
);
create index webhook_of on webhook (house_id) where ended_at is null;

create table webhook_call (
  id uuid primary key,
  house_id uuid not null references house(id),
  webhook_id uuid not null references webhook(id),
  topic text not null check (topic in ('movement', 'used-up')),
  movement_id uuid not null,
  lot_id uuid,
  at timestamptz not null,
  due_at timestamptz not null,
  tries integer not null default 0,
  ended_at timestamptz,
  ok boolean not null default false
);
create index webhook_call_due on webhook_call (due_at) where ended_at is null;
create index webhook_call_of on webhook_call (webhook_id, at);

alter table device add column name text check (length(name) between 1 and 120), add column people text[] not null default '{}', add column seen_at timestamptz;
alter table person
  add column skills text[] not null default '{}',
  add column must_not_touch text[] not null default '{}',
  add column shifts jsonb not null default '[]',
  add column first_day_over_at timestamptz;
-- whoever works here already knows the way
update person set first_day_over_at = now();`,
} as const;
