/** Houses, the people who work in them, sessions and settings. */
export const housesAndPeople = {
  name: '0001-houses-and-people',
  up: `
create table house (
  id uuid primary key,
  slug text not null unique check (slug ~ '^[a-z0-9][a-z0-9-]{0,63}$'),
  name text not null check (length(name) between 1 and 120),
  currency char(3) not null,
  timezone text not null,
  settings jsonb not null,
  last_lot_serial integer not null default 0,
  created_at timestamptz not null default now()
);
create table person (
  id uuid primary key,
  house_id uuid not null references house(id),
  name text not null check (length(name) between 1 and 120),
  role text not null check (role in ('butcher', 'sous-chef', 'head-chef', 'viewer')),
  pin_hash text not null,
  password_hash text,
  wrong_count integer not null default 0,
  locked_until timestamptz,
  unique (house_id, name)
);
create table session (
  sid varchar primary key,
  sess json not null,
  expire timestamp(6) not null
);
create index session_expire on session (expire);
create table supplier (
  id uuid primary key,
  house_id uuid not null references house(id),
  name text not null check (length(name) between 1 and 120),
  unique (house_id, name),
  unique (id, house_id)
);
create table command (
  id uuid primary key,
  house_id uuid not null references house(id),
  endpoint text not null,
  fingerprint text not null,
  answer jsonb not null,
  person_id uuid not null references person(id),
  at timestamptz not null
);`,
};
