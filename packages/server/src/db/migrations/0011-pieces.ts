/**
 * How many pieces a lot still is. A posting says how many went with its mass where somebody counted them; else they go as the mass does, of
 * what the lot was made of, so that a counter-entry brings as many back.
 */
export const countedPieces = {
  name: '0011-pieces',
  up: `
alter table posting add column pieces integer;
alter table lot_balance add column pieces integer not null default 0;
update lot_balance b set pieces = case when b.mass_mg <= 0 then 0 else greatest(1, round(l.pieces * b.mass_mg::numeric / greatest(1, l.made_mg)))::int end
from lot l where l.id = b.lot_id;

create or replace function keep_lot_balance() returns trigger language plpgsql as $$
declare moved integer;
begin
  if new.lot_id is not null then
    select coalesce(new.pieces, round(l.pieces * new.mass_mg::numeric / greatest(1, l.made_mg))::int) into moved from lot l where l.id = new.lot_id;
    insert into lot_balance (lot_id, house_id, mass_mg, cost_minor, pieces)
    values (new.lot_id, new.house_id, new.mass_mg, new.cost_minor, case when new.mass_mg > 0 then greatest(1, moved) else 0 end)
    on conflict (lot_id) do update
      set mass_mg = lot_balance.mass_mg + excluded.mass_mg, cost_minor = lot_balance.cost_minor + excluded.cost_minor,
          -- something is left while there is mass, and nothing when there is none
          pieces = case when lot_balance.mass_mg + excluded.mass_mg <= 0 then 0 else greatest(1, lot_balance.pieces + moved) end;
  end if;
  return null;
end $$;`,
} as const;
