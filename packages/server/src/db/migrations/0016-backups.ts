/**
 * What was kept of the records and where, and when they were brought back: a tablet that knows more than records that were brought back can tell.
 * They belong to the machine and to no house.
 */
export const backups = {
  name: '0016-backups',
  up: `
create table backup (
  name text primary key,
  kind text not null check (kind in ('dump', 'base')),
  at timestamptz not null,
  bytes bigint not null check (bytes >= 0),
  sha256 text,
  second text check (second in ('kept', 'failed')),
  second_why text,
  tried_at timestamptz,
  tried_why text,
  check ((tried_why is null) or (tried_at is not null))
);
create index backup_at on backup (at desc);
create table restored (
  id uuid primary key,
  at timestamptz not null,
  state_at timestamptz not null
);`,
} as const;
