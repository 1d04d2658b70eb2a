/**
 * What takes longer than one waits for. The queue itself is pg-boss's, in a schema of its own; what a house asked for, how far it is and what came of it
 * is a row here. What is made lies beside it for a day, in a table that is not logged: after a crash of the database it is made again.
 */
export const jobs = {
  name: '0022-jobs',
  up: `
create table job (
  id uuid primary key,
  house_id uuid not null references house (id),
  asked jsonb not null,
  state text not null check (state in ('waiting', 'working', 'done', 'failed', 'called-off')),
  person_id uuid not null references person (id),
  at timestamptz not null,
  tries integer not null default 0,
  seen_at timestamptz,
  ended_at timestamptz,
  done_ratio double precision check (done_ratio between 0 and 1),
  bytes bigint not null default 0,
  why text,
  file_name text,
  file_type text,
  parts integer,
  check ((state in ('waiting', 'working')) = (ended_at is null)),
  check (state <> 'done' or file_name is not null)
);
create index job_latest on job (house_id, at desc, id desc);
create index job_going on job (state, at) where state in ('waiting', 'working');
create unlogged table job_part (
  house_id uuid not null,
  job_id uuid not null references job (id) on delete cascade,
  n integer not null,
  bytes bytea not null,
  primary key (job_id, n)
);`,
} as const;
