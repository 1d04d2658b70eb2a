/**
 * What happens to a batch while it is on: the log of its cooling begins in its step. Photographs that show how a step should look belong to the house, not
 * to a delivery's line. And plates: what is served, by its components.
 */
export const whileItIsOn = {
  name: '0027-while-it-is-on',
  up: `
alter table cooling add column batch_id uuid,
  add constraint cooling_batch_id_house_id_fkey foreign key (batch_id, house_id) references batch (id, house_id);
create index cooling_batch on cooling (batch_id) where batch_id is not null;
alter table photograph alter column line_id drop not null;
create table house_plate (
  house_id uuid not null references house(id),
  plate_id text not null,
  version integer not null check (version > 0),
  body jsonb not null,
  retired boolean not null default false,
  person_id uuid not null references person(id),
  at timestamptz not null,
  primary key (house_id, plate_id, version)
);
create trigger house_plate_append_only before update or delete on house_plate for each row execute function refuse_change();
create trigger house_plate_no_truncate before truncate on house_plate execute function refuse_change();`,
};
