/** When a scale was checked with weights, by whom, and what it showed: written once, with the interval and class it had that day. */
export const devicesOfTheHouse = {
  name: '0032-devices-of-the-house',
  up: `
create table scale_check (
  id uuid not null,
  house_id uuid not null references house(id),
  at timestamptz not null,
  person_id uuid not null references person(id),
  scale text not null check (length(scale) between 1 and 64),
  scale_name text not null check (length(scale_name) between 1 and 120),
  accuracy_class text not null check (accuracy_class in ('II', 'III', 'IIII')),
  interval_mg bigint not null check (interval_mg > 0),
  points jsonb not null,
  primary key (house_id, at, id)
);
create index scale_check_of on scale_check (house_id, scale, at desc, id desc);
create trigger scale_check_append_only before update or delete on scale_check for each row execute function refuse_change();
create trigger scale_check_no_truncate before truncate on scale_check execute function refuse_change();`,
};
