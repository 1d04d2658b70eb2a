/**
 * Wrong PINs are counted by the door they are tried at: a stranger's guesses must not lock out the tablet that stands in the kitchen. A door is
 * a device that someone of the house has signed in on, or the street, where all who are strangers stand together.
 */
export const doors = {
  name: '0015-doors',
  up: `
create table device (
  id text primary key,
  house_id uuid not null references house (id),
  since timestamptz not null default now()
);
create table sign_in_try (
  person_id uuid not null references person (id),
  door text not null,
  secret text not null check (secret in ('pin', 'password')),
  wrong integer not null,
  pauses integer not null default 0,
  locked_until timestamptz,
  primary key (person_id, door, secret)
);
alter table person drop column wrong_count;
alter table person drop column locked_until;`,
} as const;
