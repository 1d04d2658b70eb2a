/**
 * What is made of is a recipe and its making a batch, in the database as on the screen: they were `use` and `run`, which said neither. Names alone
 * change; of the ledger the word for one kind of movement and of reservation, which their guards
 * are put aside for.
 * What commands of before were asked with is forgotten: a yes has another name too. That they were done is still known by their keys; of those at the
 * pots the answer in the old words is let go.
 * And a line refused unweighed need not say what its invoice weighs: 1 g was written down where nobody read it.
 */
export const recipesAndBatches = {
  name: '0023-recipes-and-batches',
  up: `
alter table run rename to batch;
alter table run_input rename to batch_input;
alter table run_event rename to batch_event;
alter table house_use rename to house_recipe;
alter table batch rename column use_id to recipe_id;
alter table batch_input rename column run_id to batch_id;
alter table batch_event rename column run_id to batch_id;
alter table house_recipe rename column use_id to recipe_id;
alter table lot rename column run_id to batch_id;
alter table lot rename column tub_use to tub_recipe;
alter index run_house rename to batch_house;
alter index run_input_lot rename to batch_input_lot;
alter index run_use_done rename to batch_recipe_done;
alter index run_going rename to batch_going;
alter index run_event_run rename to batch_event_batch;
alter table movement disable trigger movement_append_only;
alter table movement drop constraint movement_kind_check;
update movement set kind = 'batch' where kind = 'run';
alter table movement add constraint movement_kind_check
  check (kind in ('receive', 'close-stage', 'cut', 'batch', 'take-out', 'reverse', 'split', 'merge', 'fill', 'count'));
alter table movement enable trigger movement_append_only;
alter table reservation disable trigger reservation_unchanged;
update reservation set holder_kind = 'batch' where holder_kind = 'run';
alter table reservation enable trigger reservation_unchanged;
alter table delivery_line alter column invoice_mg drop not null;
update command set fingerprint = '';
update command set answer = null where endpoint like 'pots.%' or endpoint = 'larder.startTub';`,
};
