/**
 * A kitchen is set up and run from the screen. Who has left keeps the name in the books and signs in no more; who has no PIN yet cannot sign in; what an
 * hour of somebody costs stands with the person. People and house count their versions, so that two chefs at once are told. What is changed is written
 * down, from what to what. The recovery code of a house is kept as a hash, like any other secret.
 */
export const aHouseMovesIn = {
  name: '0031-a-house-moves-in',
  up: `
alter table person
  alter column pin_hash drop not null,
  add column left_at timestamptz,
  add column hourly_minor bigint check (hourly_minor >= 0),
  add column version integer not null default 1;
drop trigger person_begins_anew on person;
create trigger person_begins_anew after update on person for each row
  when (old.role is distinct from new.role or old.pin_hash is distinct from new.pin_hash or old.password_hash is distinct from new.password_hash
        or (new.left_at is not null and old.left_at is null))
  execute function end_sessions();
alter table house add column version integer not null default 1, add column recovery_hash text;

create table setting_change (
  id uuid not null,
  house_id uuid not null references house(id),
  at timestamptz not null,
  person_id uuid not null references person(id),
  what text not null check (length(what) between 1 and 60),
  about text check (length(about) between 1 and 120),
  before jsonb,
  after jsonb,
  primary key (house_id, at, id)
);
create trigger setting_change_append_only before update or delete on setting_change for each row execute function refuse_change();
create trigger setting_change_no_truncate before truncate on setting_change execute function refuse_change();`,
};
