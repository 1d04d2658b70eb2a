/** Deliveries with lines, what was expected, photographs, prices; the limits a house selected and the cautions people have seen. */
export const receiving = {
  name: '0006-receiving',
  up: `
alter table delivery rename to delivery_line;
alter index delivery_house_at rename to delivery_line_house_at;
create table supply_order (
  id uuid primary key,
  house_id uuid not null references house(id),
  supplier_id uuid not null,
  due_on date not null,
  note text,
  state text not null default 'open' check (state in ('open', 'done', 'called-off')),
  person_id uuid not null references person(id),
  at timestamptz not null,
  unique (id, house_id),
  foreign key (supplier_id, house_id) references supplier (id, house_id)
);
create index supply_order_open on supply_order (house_id, due_on) where state = 'open';
create table supply_order_line (
  order_id uuid not null,
  house_id uuid not null,
  position integer not null,
  species text,
  form text,
  goods text,
  count integer check (count > 0),
  mass_mg bigint not null check (mass_mg > 0),
  minor_per_kg bigint check (minor_per_kg >= 0),
  primary key (order_id, position),
  foreign key (order_id, house_id) references supply_order (id, house_id),
  check ((species is null) = (form is null) and (species is null) <> (goods is null))
);
create table delivery (
  id uuid primary key,
  house_id uuid not null references house(id),
  supplier_id uuid not null,
  order_id uuid,
  invoice text check (length(invoice) between 1 and 60),
  person_id uuid not null references person(id),
  at timestamptz not null,
  closed_at timestamptz,
  note text,
  unique (id, house_id),
  foreign key (supplier_id, house_id) references supplier (id, house_id),
  foreign key (order_id, house_id) references supply_order (id, house_id)
);
create index delivery_house_at on delivery (house_id, at desc, id);
-- what there was until now: a delivery of one line each, under the id of its lot
insert into delivery (id, house_id, supplier_id, person_id, at, closed_at)
select d.lot_id, d.house_id, l.supplier_id, d.person_id, d.at, d.at from delivery_line d join lot l on l.id = d.lot_id;
alter table delivery_line add column id uuid;
update delivery_line set id = lot_id;
alter table delivery_line
  drop constraint delivery_pkey,
  alter column id set not null,
  alter column lot_id drop not null,
  alter column movement_id drop not null,
  alter column gross_mg drop not null,
  add primary key (id),
  add unique (id, house_id),
  add column delivery_id uuid,
  add column species text,
  add column form text,
  add column goods text,
  add column animals integer,
  add column use_by date,
  add column verdict text not null default 'accepted' check (verdict in ('accepted', 'part', 'refused')),
  add column refused_mg bigint not null default 0 check (refused_mg >= 0),
  add column refused_reason text,
  add column inspection jsonb not null default '[]',
  add column details jsonb not null default '{}',
  add column boxes jsonb not null default '[]',
  add column codes text[] not null default '{}',
  add column order_position integer;
update delivery_line d set delivery_id = d.lot_id, species = l.species, form = l.form, animals = l.pieces, use_by = l.use_by from lot l where l.id = d.lot_id;
alter table delivery_line
  alter column delivery_id set not null,
  add foreign key (delivery_id, house_id) references delivery (id, house_id),
  add unique (lot_id),
  add check ((verdict = 'refused') = (lot_id is null)),
  add check ((verdict = 'refused') = (movement_id is null)),
  add check ((verdict = 'accepted') = (refused_mg = 0)),
  add check ((verdict = 'accepted') = (refused_reason is null)),
  add check ((species is null) <> (goods is null));
create index delivery_line_delivery on delivery_line (delivery_id, at);
create table photograph (
  id uuid primary key,
  house_id uuid not null,
  line_id uuid not null,
  type text not null check (type in ('image/jpeg', 'image/png', 'image/webp')),
  width integer not null,
  height integer not null,
  bytes bytea not null check (length(bytes) <= 3000000),
  person_id uuid not null references person(id),
  at timestamptz not null,
  foreign key (line_id, house_id) references delivery_line (id, house_id)
);
create index photograph_line on photograph (line_id);
create table price_list (
  id uuid primary key,
  house_id uuid not null,
  supplier_id uuid not null,
  file text not null,
  valid_from date not null,
  rows integer not null,
  person_id uuid not null references person(id),
  at timestamptz not null,
  finished_at timestamptz,
  undone_at timestamptz,
  unique (id, house_id),
  foreign key (supplier_id, house_id) references supplier (id, house_id)
);
create index price_list_house on price_list (house_id, at desc);
create table price (
  list_id uuid not null,
  house_id uuid not null,
  line integer not null,
  item text not null,
  minor_per_kg bigint not null check (minor_per_kg > 0),
  unit text not null,
  primary key (list_id, line),
  foreign key (list_id, house_id) references price_list (id, house_id)
);
create index price_item on price (house_id, item);
create table house_limits (
  id uuid primary key,
  seq bigint generated always as identity,
  house_id uuid not null references house(id),
  profile_id text not null,
  changes jsonb not null,
  note text not null,
  person_id uuid not null references person(id),
  at timestamptz not null
);
create index house_limits_house on house_limits (house_id, seq desc);
create trigger house_limits_append_only before update or delete on house_limits for each row execute function refuse_change();
create table caution_seen (
  id uuid primary key,
  house_id uuid not null references house(id),
  caution_id text not null,
  about text,
  person_id uuid not null references person(id),
  at timestamptz not null
);
create index caution_seen_by on caution_seen (house_id, person_id, at desc);`,
} as const;
