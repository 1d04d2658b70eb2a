/**
 * The books are kept by house and time: an entry of the ledger and its lines have both in their key, and so do the events that are read by what they
 * belong to. A list of a time, and the export of one, read that time alone; and a table can be cut into months where that is measured to pay. A line
 * has the time of its entry: the database refuses another.
 * `command` and `weighing` stay under their own ids: a tablet's key is the same command for good, in whatever month it is said again.
 * And a degree is a number like any other, the end of a session a moment.
 */
export const byHouseAndTime = {
  name: '0024-by-house-and-time',
  up: `
alter table lot alter column date_max_c type double precision;
alter table session alter column expire type timestamptz using expire at time zone 'UTC';

alter table movement drop constraint movement_pkey, add primary key (house_id, at, id);
drop index movement_house_at; -- the key serves it
drop index movement_reverses; -- and this its own constraint

alter table posting add column at timestamptz;
alter table posting disable trigger posting_append_only;
update posting p set at = m.at from movement m where m.id = p.movement_id;
alter table posting enable trigger posting_append_only;
alter table posting
  alter column at set not null,
  drop constraint posting_pkey,
  add primary key (house_id, at, id),
  drop constraint posting_movement_id_house_id_fkey,
  add foreign key (house_id, at, movement_id) references movement (house_id, at, id);

alter table bench_event drop constraint bench_event_pkey, add primary key (house_id, at, id);
alter table cutting_event drop constraint cutting_event_pkey, add primary key (house_id, at, id);
alter table batch_event drop constraint run_event_pkey, add primary key (house_id, at, id);
alter table cooling_reading drop constraint cooling_reading_pkey, add primary key (house_id, at, id);`,
};
